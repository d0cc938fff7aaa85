import { OPEN_RELEASES, type ReleaseState } from '@/core/acquiring';
import type { Instant } from '@/core/time';
import { oneOf } from './oneOf';
import type { Queryable, Transaction } from './pool';

/** A name that is to be registered when it is released. Amounts are minor units of `currency`, the office's. */
export interface ReleaseOrderRow {
  readonly id: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly ending: string;
  /** In the order in which they are tried. */
  readonly accountIds: readonly number[];
  readonly years: number;
  readonly mostFirstMinor: number;
  readonly mostRenewalMinor: number;
  readonly currency: string;
  readonly fromAt: Instant;
  readonly untilAt: Instant;
  readonly note: string;
  readonly madeAt: Instant;
  readonly state: ReleaseState;
  readonly since: Instant;
  readonly registrationId: number | null;
  readonly problem: string | null;
  /** Who of the office made it, by the name he had then. */
  readonly person: string | null;
}

export interface ReleaseTry {
  readonly orderId: number;
  readonly accountId: number;
  readonly at: Instant;
  readonly outcome: string;
}

const COLUMNS = `id, ascii, "unicode", ending, account_ids as "accountIds", years, most_first_minor as "mostFirstMinor",
  most_renewal_minor as "mostRenewalMinor", currency, from_at as "fromAt", until_at as "untilAt", note, made_at as "madeAt", state, since,
  registration_id as "registrationId", problem, person`;

export async function selectReleaseOrders(db: Queryable): Promise<ReleaseOrderRow[]> {
  return (
    await db.query<ReleaseOrderRow>(
      `select ${COLUMNS} from release_orders order by state ${oneOf(OPEN_RELEASES)} desc, from_at, id limit 500`,
    )
  ).rows;
}

/** Orders that have begun, or whose earliest instant has come; the one that was tried longest ago first, so that each has its turn. */
export async function selectDueReleases(db: Queryable, at: Instant): Promise<ReleaseOrderRow[]> {
  return (
    await db.query<ReleaseOrderRow>(
      `select ${COLUMNS} from release_orders o where state ${oneOf(OPEN_RELEASES)} and from_at <= $1
       order by (select max(at) from release_tries t where t.order_id = o.id) nulls first, from_at, id`,
      [new Date(at)],
    )
  ).rows;
}

export type ReleaseDraft = Pick<
  ReleaseOrderRow,
  | 'ascii'
  | 'unicode'
  | 'ending'
  | 'accountIds'
  | 'years'
  | 'mostFirstMinor'
  | 'mostRenewalMinor'
  | 'currency'
  | 'fromAt'
  | 'untilAt'
  | 'note'
>;

/** Makes an order; `null` where one for the name is open already. */
export async function insertReleaseOrder(tx: Transaction, draft: ReleaseDraft, at: Instant): Promise<number | null> {
  const { rows } = await tx.query<{ id: number }>(
    `insert into release_orders (ascii, "unicode", ending, account_ids, years, most_first_minor, most_renewal_minor, currency, from_at, until_at,
       note, made_at, since) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $12) on conflict do nothing returning id`,
    [
      draft.ascii,
      draft.unicode,
      draft.ending,
      draft.accountIds,
      draft.years,
      draft.mostFirstMinor,
      draft.mostRenewalMinor,
      draft.currency,
      new Date(draft.fromAt),
      new Date(draft.untilAt),
      draft.note,
      new Date(at),
    ],
  );
  return rows[0]?.id ?? null;
}

/** Moves an order that is open; false when it was settled or stopped meanwhile. */
export async function moveRelease(
  db: Queryable,
  id: number,
  move: { readonly state: ReleaseState; readonly problem: string | null; readonly registrationId?: number | null },
  at: Instant,
): Promise<boolean> {
  const { rowCount } = await db.query(
    `update release_orders set state = $2, problem = $3, since = case when state = $2 then since else $4 end,
       registration_id = case when $5 then $6::int else registration_id end
     where id = $1 and state ${oneOf(OPEN_RELEASES)}`,
    [id, move.state, move.problem, new Date(at), move.registrationId !== undefined, move.registrationId ?? null],
  );
  return rowCount === 1;
}

export async function insertTry(db: Queryable, { orderId, accountId, at, outcome }: ReleaseTry): Promise<void> {
  await db.query('insert into release_tries (order_id, account_id, at, outcome) values ($1, $2, $3, $4)', [
    orderId,
    accountId,
    new Date(at),
    outcome.slice(0, 300),
  ]);
}

/** When each account was last tried, for whichever order. */
export async function selectLastTries(db: Queryable): Promise<Map<number, Instant>> {
  const { rows } = await db.query<{ id: number; at: Instant }>(
    'select account_id as id, max(at) as at from release_tries group by account_id',
  );
  return new Map(rows.map(({ id, at }) => [id, at]));
}

/** What was tried for one order, the newest first. */
export async function selectTries(db: Queryable, orderId: number): Promise<ReleaseTry[]> {
  return (
    await db.query<ReleaseTry>(
      `select order_id as "orderId", account_id as "accountId", at, outcome from release_tries where order_id = $1 order by at desc, id desc limit 500`,
      [orderId],
    )
  ).rows;
}
