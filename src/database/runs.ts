import {
  type ItemState,
  MAY_BE_SENT,
  OPEN_RUNS,
  type RunState,
  STARTABLE,
  UNDER_WAY,
  UNPAID,
  UNSETTLED,
} from '@/core/orders';
import type { Day, Instant } from '@/core/time';
import { oneOf, word } from './oneOf';
import type { Queryable, Transaction } from './pool';
import type { ReportWords, RunAction } from './renewals';

export type { ReportWords, RunAction } from './renewals';

const state = word<ItemState>;
const status = word<RunState>;

/** An item of a run whose account has a link, with what is needed to carry it out. */
export interface RunItem {
  readonly renewalId: string;
  readonly nameId: number;
  readonly ascii: string;
  readonly accountId: number;
  readonly years: number;
  readonly oldEnd: Instant;
  readonly newEnd: Instant;
  readonly state: ItemState;
  readonly orderId: string;
  readonly attempts: number;
  readonly currency: string;
  readonly feeCapMinor: number | null;
  readonly quotedMinor: number | null;
  readonly promotion: string | null;
  /** The payment method that is to pay; `null` for the account's usual order. */
  readonly payBy: string | null;
  readonly action: RunAction;
  readonly report: ReportWords | null;
}

/** What a screen shows of an item that goes over a link. */
export interface ItemProgress {
  readonly nameId: number;
  readonly state: ItemState;
  readonly attempts: number;
  readonly liveMinor: number | null;
  readonly liveCurrency: string | null;
  readonly chargedMinor: number | null;
  readonly currency: string | null;
  readonly receipt: string | null;
  readonly problem: string | null;
}

const ITEM = `
  select i.renewal_id as "renewalId", i.name_id as "nameId", n.ascii, n.account_id as "accountId", i.years, i.old_end as "oldEnd",
    i.new_end as "newEnd", i.state, i.order_id as "orderId", i.attempts, i.currency, i.fee_cap_minor as "feeCapMinor",
    i.quoted_minor as "quotedMinor", r.promotion->>'code' as promotion, r.pay_by->>(n.account_id::text) as "payBy", r.action, r.report
  from renewal_items i join names n on n.id = i.name_id join renewals r on r.id = i.renewal_id`;

export async function selectProgress(db: Queryable, renewalId: string): Promise<ItemProgress[]> {
  const { rows } = await db.query<ItemProgress>(
    `select name_id as "nameId", state, attempts, live_minor as "liveMinor", live_currency as "liveCurrency", charged_minor as "chargedMinor", currency, receipt, problem
     from renewal_items where renewal_id = $1`,
    [renewalId],
  );
  return rows;
}

/** Writes what the registrar asks for each name, live. */
export async function writeLivePrices(
  db: Queryable,
  renewalId: string,
  prices: readonly {
    readonly nameId: number;
    readonly minor: number | null;
    readonly currency: string | null;
    readonly problem: string | null;
  }[],
): Promise<void> {
  await db.query(
    `update renewal_items i set live_minor = p.minor, live_currency = p.currency, problem = p.problem
     from jsonb_to_recordset($2::jsonb) as p("nameId" int, minor int8, currency text, problem text)
     where i.renewal_id = $1 and i.name_id = p."nameId" and i.state ${oneOf(STARTABLE)}`,
    [renewalId, JSON.stringify(prices)],
  );
}

/** Puts items on their way: each gets the order's own id and the most it may cost. Answers how many. */
export async function startItems(
  tx: Transaction,
  renewalId: string,
  items: readonly {
    readonly nameId: number;
    readonly orderId: string;
    readonly feeCapMinor: number | null;
    readonly currency: string | null;
  }[],
): Promise<number> {
  const { rowCount } = await tx.query(
    `update renewal_items i set state = ${state('waiting')}, order_id = p."orderId", fee_cap_minor = p."feeCapMinor", attempts = 0, problem = null,
       currency = coalesce(p.currency, i.currency), quoted_minor = case when coalesce(p.currency, i.currency) = i.currency then i.quoted_minor end
     from jsonb_to_recordset($2::jsonb) as p("nameId" int, "orderId" text, "feeCapMinor" int8, currency text)
     where i.renewal_id = $1 and i.name_id = p."nameId" and i.state ${oneOf(STARTABLE)}`,
    [renewalId, JSON.stringify(items)],
  );
  return rowCount ?? 0;
}

/** Names of these that another run is changing already. */
export async function selectUnsettledElsewhere(tx: Transaction, nameIds: readonly number[]): Promise<string[]> {
  const { rows } = await tx.query<{ ascii: string }>(
    `select n.ascii from renewal_items i join names n on n.id = i.name_id
     where i.name_id = any($1) and i.state ${oneOf(UNSETTLED)} order by n.ascii`,
    [nameIds],
  );
  return rows.map((row) => row.ascii);
}

/** The items of a run that are on their way, those that may have been sent first. */
export async function selectOpenItems(db: Queryable, renewalId: string): Promise<RunItem[]> {
  return (
    await db.query<RunItem>(
      `${ITEM} where i.renewal_id = $1 and i.state ${oneOf(UNDER_WAY)} order by i.state, n.account_id, n.ascii`,
      [renewalId],
    )
  ).rows;
}

/** Runs that have items on their way. */
export async function selectOpenRuns(db: Queryable): Promise<string[]> {
  const { rows } = await db.query<{ id: string }>(
    `select distinct renewal_id as id from renewal_items where state ${oneOf(UNDER_WAY)}`,
  );
  return rows.map((row) => row.id);
}

/** The run in which a name is unsettled, or `null`. */
export async function selectRunOf(db: Queryable, nameId: number): Promise<string | null> {
  const { rows } = await db.query<{ id: string }>(
    `select renewal_id as id from renewal_items
     where name_id = $1 and state ${oneOf(UNSETTLED)}`,
    [nameId],
  );
  return rows[0]?.id ?? null;
}

/** Notes, before orders are sent, that they may have been sent. */
export async function markSending(db: Queryable, items: readonly RunItem[], at: Instant): Promise<void> {
  await db.query(
    `update renewal_items i set state = ${state('sending')}, sent_at = $2, attempts = attempts + 1, problem = null
     from jsonb_to_recordset($1::jsonb) as p("renewalId" uuid, "nameId" int)
     where i.renewal_id = p."renewalId" and i.name_id = p."nameId" and i.state in (${state('waiting')}, ${state('sending')})`,
    [keysOf(items), new Date(at)],
  );
}

type ItemKey = Pick<RunItem, 'renewalId' | 'nameId'>;

function keysOf(items: readonly ItemKey[]): string {
  return JSON.stringify(items.map(({ renewalId, nameId }) => ({ renewalId, nameId })));
}

/**
 * NetProceeds an item in doubt as it is, by a person's decision: then it counts as refused. What was paid or done meanwhile is not touched.
 * Answers whether it was left.
 */
export async function leaveDoubt(db: Queryable, renewalId: string, nameId: number, problem: string): Promise<boolean> {
  const { rowCount } = await db.query(
    `update renewal_items set state = ${state('refused')}, problem = $3 where renewal_id = $1 and name_id = $2 and state = ${state('doubt')}`,
    [renewalId, nameId, problem],
  );
  return rowCount === 1;
}

/** Moves items on without booking anything. */
export async function moveItems(
  db: Queryable,
  moves: readonly (ItemKey & { readonly state: ItemState; readonly problem: string | null })[],
): Promise<void> {
  await db.query(
    `update renewal_items i set state = p.state, problem = p.problem
     from jsonb_to_recordset($1::jsonb) as p("renewalId" uuid, "nameId" int, state text, problem text)
     where i.renewal_id = p."renewalId" and i.name_id = p."nameId"`,
    [JSON.stringify(moves)],
  );
}

/** Takes down that an order which was taken for later was not carried out. */
export async function refusePending(
  tx: Transaction,
  accountId: number,
  orderId: string,
  problem: string,
): Promise<void> {
  await tx.query(
    `update renewal_items i set state = ${state('refused')}, problem = $3 from names n
     where n.id = i.name_id and n.account_id = $1 and i.order_id = $2 and i.state ${oneOf(MAY_BE_SENT)}`,
    [accountId, orderId, problem],
  );
}

/** A restore that the registrar has taken and charged for: its report is to be sent. */
export interface PaidItem extends ItemKey {
  readonly chargedMinor: number | null;
  readonly currency: string | null;
  readonly paymentMethod: string | null;
  readonly receipt: string | null;
}

/** Notes restores that are paid. Answers the names that were not before: only for these may the charge be booked. */
export async function markPaid(
  tx: Transaction,
  batchId: number,
  chargedOn: Day,
  items: readonly PaidItem[],
): Promise<Set<number>> {
  const { rows } = await tx.query<{ nameId: number }>(
    `update renewal_items i set state = ${state('reporting')}, charged_minor = p."chargedMinor", charged_on = $3, receipt = p.receipt,
       reference = p.receipt, payment_method = coalesce(p."paymentMethod", ''), currency = coalesce(p.currency, i.currency), item_batch_id = $2, problem = null
     from jsonb_to_recordset($1::jsonb) as p("renewalId" uuid, "nameId" int, "chargedMinor" int8, currency text, "paymentMethod" text, receipt text)
     where i.renewal_id = p."renewalId" and i.name_id = p."nameId" and i.state ${oneOf(UNPAID)}
     returning i.name_id as "nameId"`,
    [JSON.stringify(items), batchId, chargedOn],
  );
  return new Set(rows.map((row) => row.nameId));
}

/** Settles restores whose reports were taken, with the ends that the registrar has. Answers the names settled now. */
export async function settleRestored(
  tx: Transaction,
  batchId: number,
  items: readonly (ItemKey & { readonly newEnd: Instant })[],
): Promise<Set<number>> {
  const { rows } = await tx.query<{ nameId: number }>(
    `update renewal_items i set state = ${state('done')}, done = true, new_end = to_timestamp(p."newEnd" / 1000.0), problem = null,
       item_batch_id = coalesce(item_batch_id, $2)
     from jsonb_to_recordset($1::jsonb) as p("renewalId" uuid, "nameId" int, "newEnd" float8)
     where i.renewal_id = p."renewalId" and i.name_id = p."nameId" and i.state in (${state('reporting')}, ${state('report refused')})
     returning i.name_id as "nameId"`,
    [JSON.stringify(items), batchId],
  );
  return new Set(rows.map((row) => row.nameId));
}

/** Puts reports that were refused on their way again. Answers how many. */
export async function reportAgain(tx: Transaction, renewalId: string): Promise<number> {
  const { rowCount } = await tx.query(
    `update renewal_items set state = ${state('reporting')}, problem = null where renewal_id = $1 and state = ${state('report refused')}`,
    [renewalId],
  );
  return rowCount ?? 0;
}

/** An item that was carried out. */
export interface DoneItem extends ItemKey {
  readonly newEnd: Instant;
  readonly chargedMinor: number | null;
  readonly currency: string | null;
  readonly paymentMethod: string | null;
  readonly receipt: string | null;
}

/** Settles items as done. Answers the names that were not settled before: only for these may anything be booked. */
export async function settleItems(
  tx: Transaction,
  batchId: number,
  chargedOn: Day,
  items: readonly DoneItem[],
): Promise<Set<number>> {
  const { rows } = await tx.query<{ nameId: number }>(
    `update renewal_items i set state = ${state('done')}, done = true, new_end = to_timestamp(p."newEnd" / 1000.0), charged_minor = p."chargedMinor",
       charged_on = $3, receipt = p.receipt, reference = p.receipt, payment_method = coalesce(p."paymentMethod", ''), currency = coalesce(p.currency, i.currency),
       quoted_minor = case when coalesce(p.currency, i.currency) = i.currency then i.quoted_minor end, item_batch_id = $2, problem = null
     from jsonb_to_recordset($1::jsonb) as p("renewalId" uuid, "nameId" int, "newEnd" float8, "chargedMinor" int8, currency text, "paymentMethod" text, receipt text)
     where i.renewal_id = p."renewalId" and i.name_id = p."nameId" and (i.state ${oneOf(UNPAID)} or i.state = ${state('doubt')})
     returning i.name_id as "nameId"`,
    [JSON.stringify(items), batchId, chargedOn],
  );
  return new Set(rows.map((row) => row.nameId));
}

/** Confirms a run all of whose items are done, by link or by hand. */
export async function confirmSettledRun(tx: Transaction, renewalId: string, at: Instant): Promise<void> {
  await tx.query(
    `update renewals set status = ${status('confirmed')}, confirmed_at = coalesce(confirmed_at, $2)
      where id = $1 and status in (${status('requested')}, ${status('confirmed')})
       and not exists (select from renewal_items where renewal_id = $1 and state <> ${state('done')} and not (state = ${state('planned')} and done is not null))`,
    [renewalId, new Date(at)],
  );
}

/**
 * Stops what of a run has not been sent: those items stay as they are at the registrar. Those that were sent and whose answer nobody
 * knows are left to a person. Answers how many were stopped.
 */
export async function stopItems(tx: Transaction, renewalId: string): Promise<number> {
  const { rowCount } = await tx.query(
    `update renewal_items set state = case when state = ${state('waiting')} and attempts = 0 then ${state('refused')} else ${state('doubt')} end,
       problem = case when state = ${state('waiting')} and attempts = 0 then 'Stopped before it was sent.'
         else 'Stopped while its answer was awaited. Look at the registrar whether it was done.' end
     where renewal_id = $1 and state ${oneOf(UNPAID)}`,
    [renewalId],
  );
  return rowCount ?? 0;
}

/** Closes a run whose items over links are settled, though some were refused. Answers whether it is closed now. */
export async function closeRun(db: Queryable, renewalId: string, at: Instant): Promise<boolean> {
  const { rowCount } = await db.query(
    `update renewals set status = ${status('confirmed')}, confirmed_at = $2 where id = $1 and status ${oneOf(OPEN_RUNS)}
       and not exists (select from renewal_items where renewal_id = $1 and state ${oneOf(UNSETTLED)})`,
    [renewalId, new Date(at)],
  );
  return rowCount === 1;
}
