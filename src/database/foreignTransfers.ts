import { OVER_MOVES } from '@/core/moving';
import { OVER_STAGES } from '@/core/selling';
import type { Instant } from '@/core/time';
import type { Queryable } from './pool';

/**
 * How a transfer stands that nobody here asked for. `rejecting`: its rejection may have been sent. `gone`: the name has left without
 * anybody here having done it. `over`: it ended by itself.
 */
export type ForeignState = 'open' | 'rejecting' | 'rejected' | 'gone' | 'in order' | 'over';

export interface ForeignTransfer {
  readonly id: number;
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly accountId: number;
  readonly account: string;
  readonly registrar: string;
  readonly isLinked: boolean;
  /** What the office has written down of its registrar: whom to ring. */
  readonly notes: string;
  readonly seenAt: Instant;
  readonly seenBy: 'message' | 'record' | 'mail';
  readonly requestedBy: string | null;
  /** When it passes by itself. */
  readonly actsBy: Instant | null;
  readonly state: ForeignState;
  readonly problem: string | null;
  readonly isMailed: boolean;
}

const ROW = `
  select f.id, f.name_id as "nameId", n.ascii, n."unicode", f.account_id as "accountId", a.label as account, a.registrar,
    a.link_host is not null as "isLinked", a.notes, f.seen_at as "seenAt", f.seen_by as "seenBy", f.requested_by as "requestedBy",
    f.acts_by as "actsBy", f.state, f.problem, f.mailed_at is not null as "isMailed"
  from foreign_transfers f join names n on n.id = f.name_id join accounts a on a.id = f.account_id`;

/** What has to be looked at: those that are pending, and names that have gone, until somebody has said that it is in order. */
export async function selectForeignTransfers(db: Queryable): Promise<ForeignTransfer[]> {
  return (
    await db.query<ForeignTransfer>(
      `${ROW} where f.state in ('open', 'rejecting') or (f.state = 'gone' and f.settled_at is null) order by f.acts_by nulls last, n.ascii`,
    )
  ).rows;
}

export async function selectForeignTransfer(db: Queryable, id: number): Promise<ForeignTransfer | null> {
  return (await db.query<ForeignTransfer>(`${ROW} where f.id = $1`, [id])).rows[0] ?? null;
}

/** A transfer or a handover of our own that a name may be on: what the registry tells of it is no alarm. */
const OWN = `
  exists (select from transfers t where t.name_id = n.id and t.stage <> all($OVER) and t.stage not in ('planned', 'checked', 'zone copied', 'funded'))
  or exists (select from sales s where s.name_id = n.id and s.handover = 'transfer' and (s.handing_over or s.stage <> all($SOLD)))`;

const own = (over: number, sold: number) => OWN.replace('$OVER', `$${over}`).replace('$SOLD', `$${sold}`);

/**
 * Notes transfers that are told or seen of names in the ledger, once each; those of our own doing are left out. Answers how many were new.
 */
export async function noteForeign(
  db: Queryable,
  told: readonly {
    readonly nameId: number;
    readonly requestedBy: string | null;
    readonly actsBy: Instant | null;
  }[],
  seenBy: ForeignTransfer['seenBy'],
  at: Instant,
): Promise<number> {
  if (told.length === 0) return 0;
  const { rowCount } = await db.query(
    `insert into foreign_transfers (name_id, account_id, seen_at, seen_by, requested_by, acts_by)
     select n.id, n.account_id, $2, $3, f."requestedBy", to_timestamp(f."actsBy" / 1000.0)
     from jsonb_to_recordset($1::jsonb) as f("nameId" int, "requestedBy" text, "actsBy" float8) join names n on n.id = f."nameId"
     where n.gone_at is null and not (${own(4, 5)})
     on conflict (name_id) where state in ('open', 'rejecting') do update set requested_by = coalesce(foreign_transfers.requested_by, excluded.requested_by),
       acts_by = coalesce(foreign_transfers.acts_by, excluded.acts_by)`,
    [JSON.stringify(told), new Date(at), seenBy, OVER_MOVES, [...OVER_STAGES, 'agreed', 'money held', 'buyer known']],
  );
  return rowCount ?? 0;
}

/** Names whose record says that a transfer is pending, of those that were looked at. */
export async function selectPendingInRecords(
  db: Queryable,
  ascii: readonly string[],
): Promise<{ nameId: number; pending: boolean }[]> {
  const { rows } = await db.query<{ nameId: number; pending: boolean }>(
    `select id as "nameId", 'pendingTransfer' = any(statuses) as pending from names where ascii = any($1) and gone_at is null`,
    [ascii],
  );
  return rows;
}

/** A name has left without our doing: what was open of it, or a new alarm, says so. False where it left by our own doing. */
export async function noteGone(db: Queryable, nameId: number, at: Instant): Promise<boolean> {
  const { rows } = await db.query<{ own: boolean }>(`select (${own(2, 3)}) as own from names n where n.id = $1`, [
    nameId,
    OVER_MOVES,
    [...OVER_STAGES.filter((stage) => stage !== 'done'), 'agreed', 'money held', 'buyer known'],
  ]);
  if (rows[0]?.own !== false) return false;
  const open = await db.query(
    "update foreign_transfers set state = 'gone' where name_id = $1 and state in ('open', 'rejecting')",
    [nameId],
  );
  if (open.rowCount === 0)
    await db.query(
      `insert into foreign_transfers (name_id, account_id, seen_at, seen_by, state) select id, account_id, $2, 'message', 'gone' from names where id = $1`,
      [nameId, new Date(at)],
    );
  return true;
}

/** Moves an alarm on; false when it stands otherwise by now. */
export async function moveForeign(
  db: Queryable,
  id: number,
  from: readonly ForeignState[],
  to: ForeignState,
  problem: string | null,
  settledAt: Instant | null,
): Promise<boolean> {
  const { rowCount } = await db.query(
    'update foreign_transfers set state = $3, problem = $4, settled_at = $5 where id = $1 and state = any($2)',
    [id, from, to, problem, settledAt === null ? null : new Date(settledAt)],
  );
  return rowCount === 1;
}

/** Alarms that are over by themselves: the registrar, or the record, says that no transfer is pending any more. */
export async function endForeign(db: Queryable, nameIds: readonly number[], at: Instant): Promise<void> {
  await db.query(
    "update foreign_transfers set state = 'over', settled_at = $2 where name_id = any($1) and state = 'open'",
    [nameIds, new Date(at)],
  );
}

export async function markForeignMailed(db: Queryable, ids: readonly number[], at: Instant): Promise<void> {
  await db.query('update foreign_transfers set mailed_at = $2 where id = any($1)', [ids, new Date(at)]);
}
