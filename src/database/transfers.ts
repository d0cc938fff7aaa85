import type { AutoRenewSetting } from '@/core/funding';
import {
  AT_THE_NEW_ACCOUNT,
  AT_THE_OLD_ACCOUNT,
  BEFORE_REQUEST,
  MAY_BE_UNDER_WAY,
  type MoveExit,
  type MoveStage,
  OVER_MOVES,
  type TransferMark,
} from '@/core/moving';
import { OVER_STAGES } from '@/core/selling';
import type { Instant } from '@/core/time';
import { oneOf } from './oneOf';
import type { Queryable, Transaction } from './pool';

/** How a name stands at its registrar, as the ledger has it. */
export interface NameStanding {
  readonly end: Instant;
  readonly setting: AutoRenewSetting;
  readonly lock: boolean | null;
  readonly privacy: boolean | null;
}

/** One name on its way from one account to another. Amounts are minor units of `currency`, the new account's. */
export interface TransferRow {
  readonly id: number;
  /** Who put it on its way, by the name he had then. */
  readonly person: string | null;
  readonly runId: string;
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly ending: string;
  /** `null` where it came by push. */
  readonly fromId: number | null;
  /** From whom it came then. */
  readonly cameFrom: string;
  /** `null` where it goes to the buyer of a sale. */
  readonly toId: number | null;
  readonly saleId: number | null;
  /** The registrar that the buyer has named. */
  readonly buyerAccount: string | null;
  readonly notBefore: Instant;
  readonly stage: MoveStage;
  readonly since: Instant;
  readonly exit: MoveExit | null;
  readonly problem: string | null;
  /** How it stood when it was begun, to be the same again. */
  readonly before: NameStanding & { readonly nameServers: readonly string[] };
  /** How it stands now. */
  readonly now: NameStanding & { readonly accountId: number };
  readonly zoneNote: string;
  readonly hasZone: boolean;
  readonly quotedMinor: number | null;
  /** The most that may be taken; `null` until somebody agrees to a price. */
  readonly capMinor: number | null;
  readonly currency: string;
  /** What the new registrar asked for when it was more than may be taken. */
  readonly askedMinor: number | null;
  readonly hasCode: boolean;
  readonly orderId: string | null;
  /** The last transfer of the name before ours was asked for. */
  readonly lastTransfer: TransferMark | null;
  readonly actsBy: Instant | null;
  readonly chargedMinor: number | null;
  readonly receipt: string | null;
  readonly creditedMinor: number | null;
  /** What the old registrar offers for staying, a year, in the old account’s currency. */
  readonly counterMinor: number | null;
  readonly isCounterDeclined: boolean;
  /** The holder's mail has to be confirmed by then. */
  readonly confirmMailBy: Instant | null;
}

const ms = (column: string) => `(date_part('epoch', ${column}) * 1000)::int8`;

const ROW = `
  select t.id, t.person, t.run_id as "runId", t.name_id as "nameId", n.ascii, n."unicode", n.ending, t.from_account as "fromId", t.came_from as "cameFrom", t.to_account as "toId", t.sale_id as "saleId", s.buyer_account as "buyerAccount",
    t.not_before as "notBefore", t.stage, t.since, t.exit, t.problem,
    jsonb_build_object('end', ${ms('t.old_end')}, 'setting', t.setting_before, 'lock', t.lock_before, 'privacy', t.privacy_before,
      'nameServers', t.name_servers) as before,
    jsonb_build_object('end', ${ms('coalesce(n.term_end, t.old_end)')}, 'setting', n.setting, 'lock', n.lock, 'privacy', n.privacy,
      'accountId', n.account_id) as now, t.zone_note as "zoneNote",
    t.zone is not null as "hasZone", t.quoted_minor as "quotedMinor", t.cap_minor as "capMinor", t.currency, t.asked_minor as "askedMinor",
    t.code_sealed is not null as "hasCode", t.order_id as "orderId", t.last_transfer as "lastTransfer", t.acts_by as "actsBy",
    t.charged_minor as "chargedMinor", t.receipt, t.credited_minor as "creditedMinor", t.counter_minor as "counterMinor", t.counter_declined as "isCounterDeclined", n.confirm_mail_by as "confirmMailBy"
  from transfers t join names n on n.id = t.name_id left join sales s on s.id = t.sale_id`;

/** Begins a run; false when the key has begun one already. */
export async function insertTransferRun(
  tx: Transaction,
  id: string,
  key: string | null,
  at: Instant,
): Promise<boolean> {
  const { rowCount } = await tx.query(
    'insert into transfer_runs (id, idempotency_key, made_at) values ($1, $2, $3) on conflict (idempotency_key) do nothing',
    [id, key, new Date(at)],
  );
  return rowCount === 1;
}

export async function selectTransferRunByKey(db: Queryable, key: string): Promise<string | null> {
  const { rows } = await db.query<{ id: string }>('select id from transfer_runs where idempotency_key = $1', [key]);
  return rows[0]?.id ?? null;
}

/** What a transfer begins with. */
export interface TransferDraft {
  readonly nameId: number;
  readonly toId: number;
  /** Milliseconds. */
  readonly notBefore: number;
  readonly quotedMinor: number | null;
  readonly currency: string;
}

/** Puts names on their way, each with how it stands now. One that is on its way already, or has no end, is left out: answers the rest. */
export async function insertTransfers(
  tx: Transaction,
  runId: string,
  drafts: readonly TransferDraft[],
  at: Instant,
): Promise<number> {
  const { rowCount } = await tx.query(
    `insert into transfers (run_id, name_id, from_account, to_account, not_before, since, old_end, setting_before, lock_before, privacy_before,
       name_servers, quoted_minor, cap_minor, currency)
     select $1, n.id, n.account_id, d."toId", to_timestamp(d."notBefore" / 1000.0), $3, n.term_end, n.setting, n.lock, n.privacy, n.name_servers,
       d."quotedMinor", d."quotedMinor", d.currency
     from jsonb_to_recordset($2::jsonb) as d("nameId" int, "toId" int, "notBefore" float8, "quotedMinor" int8, currency text)
     join names n on n.id = d."nameId" where n.gone_at is null and n.term_end is not null and n.account_id <> d."toId"
       and not exists (select from sales s where s.name_id = n.id and s.stage not ${oneOf(OVER_STAGES)})
     on conflict do nothing`,
    [runId, JSON.stringify(drafts), new Date(at)],
  );
  return rowCount ?? 0;
}

/** Puts a sold name on its way to its buyer, once: a run of its own. One that is on its way already stays as it is. */
export async function insertOutTransfer(tx: Transaction, runId: string, saleId: number, at: Instant): Promise<void> {
  await insertTransferRun(tx, runId, `sale ${saleId}`, at);
  await tx.query(
    `insert into transfers (run_id, name_id, from_account, sale_id, not_before, since, old_end, setting_before, lock_before, privacy_before,
       name_servers, currency)
     select r.id, n.id, n.account_id, s.id, $3, $3, n.term_end, n.setting, n.lock, n.privacy, n.name_servers, a.currency
     from sales s join names n on n.id = s.name_id join accounts a on a.id = n.account_id, transfer_runs r
     where s.id = $1 and r.idempotency_key = $2 and n.term_end is not null
     on conflict do nothing`,
    [saleId, `sale ${saleId}`, new Date(at)],
  );
}

/** A name has come by push: what is still to be looked after begins there. Auto-renew is to be on, as for every name that is kept. */
export async function insertArrival(
  tx: Transaction,
  runId: string,
  arrival: { readonly nameId: number; readonly cameFrom: string },
  at: Instant,
): Promise<void> {
  await insertTransferRun(tx, runId, null, at);
  await tx.query(
    `insert into transfers (run_id, name_id, to_account, came_from, not_before, stage, since, old_end, setting_before, currency)
     select $1, n.id, n.account_id, $3, $4, 'arrived', $4, n.term_end, 'on', a.currency
     from names n join accounts a on a.id = n.account_id where n.id = $2 on conflict do nothing`,
    [runId, arrival.nameId, arrival.cameFrom, new Date(at)],
  );
}

/** The transfer by which a sold name goes to its buyer, the newest; `null` where none was begun. */
export async function selectTransferOfSale(db: Queryable, saleId: number): Promise<TransferRow | null> {
  return (
    (await db.query<TransferRow>(`${ROW} where t.sale_id = $1 order by t.id desc limit 1`, [saleId])).rows[0] ?? null
  );
}

export async function selectTransfers(db: Queryable, runId: string): Promise<TransferRow[]> {
  return (await db.query<TransferRow>(`${ROW} where t.run_id = $1 order by t.not_before, n.ascii`, [runId])).rows;
}

export async function selectTransfer(db: Queryable, id: number): Promise<TransferRow | null> {
  return (await db.query<TransferRow>(`${ROW} where t.id = $1`, [id])).rows[0] ?? null;
}

/** The transfer that a name is on; `null` where it is on none. */
export async function selectOpenTransferOf(db: Queryable, nameId: number): Promise<TransferRow | null> {
  const { rows } = await db.query<TransferRow>(`${ROW} where t.name_id = $1 and t.stage <> all($2)`, [
    nameId,
    OVER_MOVES,
  ]);
  return rows[0] ?? null;
}

/** Every transfer that is not over, the one that has waited longest first. */
export async function selectOpenTransfers(db: Queryable): Promise<TransferRow[]> {
  return (await db.query<TransferRow>(`${ROW} where t.stage <> all($1) order by t.since, n.ascii`, [OVER_MOVES])).rows;
}

/** Every transfer that is not over, or was not on a day; the one that has waited longest first. */
export async function selectTransfersSince(db: Queryable, since: Instant): Promise<TransferRow[]> {
  return (
    await db.query<TransferRow>(`${ROW} where t.stage <> all($1) or t.since >= $2 order by t.since, n.ascii`, [
      OVER_MOVES,
      new Date(since),
    ])
  ).rows;
}

/** The accounts of every transfer that is not over; `null` among them where one comes by push or goes to a buyer. Empty where none is open. */
export async function selectAccountsOfTransfers(db: Queryable): Promise<Set<number | null>> {
  const { rows } = await db.query<{ id: number | null }>(
    'select distinct unnest(array[from_account, to_account]) as id from transfers where stage <> all($1)',
    [OVER_MOVES],
  );
  return new Set(rows.map(({ id }) => id));
}

/** Those at one stage whose day has come. */
export async function selectTransfersAt(db: Queryable, stage: MoveStage, at: Instant): Promise<TransferRow[]> {
  return (
    await db.query<TransferRow>(`${ROW} where t.stage = $1 and t.not_before <= $2 order by t.id`, [stage, new Date(at)])
  ).rows;
}

/** The transfer of ours that a name is on, from an account or to it; `null` where it is on none. */
export async function selectTransferOfName(
  db: Queryable,
  ascii: string,
  accountId: number,
): Promise<TransferRow | null> {
  const { rows } = await db.query<TransferRow>(
    `${ROW} where n.ascii = $1 and t.stage <> all($2) and $3 in (t.from_account, t.to_account)`,
    [ascii, OVER_MOVES, accountId],
  );
  return rows[0] ?? null;
}

/** What a step changes of a transfer beside its stage; what is left out stays. */
export interface TransferPatch {
  readonly exit?: MoveExit | null;
  readonly old_end?: string;
  readonly setting_before?: string;
  readonly lock_before?: boolean | null;
  readonly privacy_before?: boolean | null;
  readonly zone?: string | null;
  readonly zone_after?: string | null;
  readonly site?: string | null;
  readonly zone_note?: string;
  readonly cap_minor?: number | null;
  readonly asked_minor?: number | null;
  readonly order_id?: string;
  readonly last_transfer?: TransferMark | null;
  readonly acts_by?: string | null;
  readonly charged_minor?: number | null;
  readonly receipt?: string | null;
  readonly credited_minor?: number | null;
  readonly counter_minor?: number | null;
  readonly counter_declined?: boolean;
}

/** One transfer that goes on: from the stage it was read at, to another, or staying there with what keeps it. */
export interface TransferMove {
  readonly id: number;
  readonly from: MoveStage;
  readonly to: MoveStage;
  readonly problem: string | null;
  readonly patch?: TransferPatch;
}

const PATCHED: readonly (keyof TransferPatch)[] = [
  'exit',
  'old_end',
  'setting_before',
  'lock_before',
  'privacy_before',
  'zone',
  'zone_after',
  'site',
  'zone_note',
  'cap_minor',
  'asked_minor',
  'order_id',
  'last_transfer',
  'acts_by',
  'charged_minor',
  'receipt',
  'credited_minor',
  'counter_minor',
  'counter_declined',
];

/**
 * Moves transfers on, in one statement; one that has left the stage it was read at is left alone. Answers the ids that moved. The code goes
 * as soon as it is of no more use.
 */
export async function moveTransfers(tx: Queryable, moves: readonly TransferMove[], at: Instant): Promise<Set<number>> {
  if (moves.length === 0) return new Set();
  const { rows } = await tx.query<{ id: number }>(
    `with moved as (
       select t.id, m."to", m.problem, jsonb_populate_record(t, coalesce(m.patch, '{}')) as next
       from transfers t join jsonb_to_recordset($1::jsonb) as m(id int, "from" text, "to" text, problem text, patch jsonb)
         on m.id = t.id and m."from" = t.stage
     )
     update transfers t set stage = m."to", since = case when m."to" = t.stage then t.since else $2 end, problem = m.problem,
       code_sealed = case when m."to" = any($3) then t.code_sealed end,
       ${PATCHED.map((column) => `${column} = (m.next).${column}`).join(', ')}
     from moved m where m.id = t.id returning t.id`,
    [JSON.stringify(moves), new Date(at), [...BEFORE_REQUEST, ...MAY_BE_UNDER_WAY]],
  );
  return new Set(rows.map(({ id }) => id));
}

/** Keeps the codes of transfers, sealed; the first one for a transfer stays. Answers the codes as they are kept. */
export async function keepCodes(
  db: Queryable,
  codes: readonly { readonly id: number; readonly sealed: Buffer }[],
  replace: boolean,
): Promise<void> {
  await db.query(
    `update transfers t set code_sealed = case when $2 then decode(c.sealed, 'base64') else coalesce(t.code_sealed, decode(c.sealed, 'base64')) end
     from jsonb_to_recordset($1::jsonb) as c(id int, sealed text) where c.id = t.id`,
    [JSON.stringify(codes.map(({ id, sealed }) => ({ id, sealed: sealed.toString('base64') }))), replace],
  );
}

/** The sealed codes of some transfers, by id. */
export async function selectCodes(db: Queryable, ids: readonly number[]): Promise<Map<number, Buffer>> {
  const { rows } = await db.query<{ id: number; sealed: Buffer }>(
    'select id, code_sealed as sealed from transfers where id = any($1) and code_sealed is not null',
    [ids],
  );
  return new Map(rows.map(({ id, sealed }) => [id, sealed]));
}

/** Notes that what was paid for a transfer has come back, once. */
export async function noteCredit(db: Queryable, id: number, minor: number, at: Instant | null): Promise<void> {
  await db.query(
    'update transfers set credited_minor = coalesce(credited_minor, $2), credited_at = coalesce(credited_at, $3) where id = $1',
    [id, minor, at === null ? null : new Date(at)],
  );
}

/** A zone before and after a transfer, as master files, and how its site answered before. */
export interface SeenBefore {
  readonly before: string | null;
  readonly after: string | null;
  readonly site: string | null;
}

/** The zones of some transfers, and their sites. */
export async function selectZones(db: Queryable, ids: readonly number[]): Promise<Map<number, SeenBefore>> {
  const { rows } = await db.query<SeenBefore & { readonly id: number }>(
    'select id, zone as before, zone_after as after, site from transfers where id = any($1)',
    [ids],
  );
  return new Map(rows.map(({ id, ...seen }) => [id, seen]));
}

/** Transfers that wait for a person because an account has no link. The stages: `turnOfMove`. */
export async function countTransfersWaiting(db: Queryable): Promise<number> {
  const { rows } = await db.query<{ n: number }>(
    `select count(*) as n from transfers t left join accounts f on f.id = t.from_account left join accounts g on g.id = t.to_account
     where (t.stage = any($1) and f.link_host is null) or (t.stage = 'checked' and g.wants_zone) or (t.stage = any($2) and g.id is not null and g.link_host is null)`,
    [AT_THE_OLD_ACCOUNT, AT_THE_NEW_ACCOUNT],
  );
  return rows[0]?.n ?? 0;
}

/** Names that are on a transfer, or promised in a sale. */
export async function selectNamesUnderWay(db: Queryable): Promise<number[]> {
  const { rows } = await db.query<{ id: number }>(
    `select name_id as id from transfers where stage <> all($1) union select name_id from sales where stage not ${oneOf(OVER_STAGES)}`,
    [OVER_MOVES],
  );
  return rows.map(({ id }) => id);
}
