import type { Instant } from '@/core/time';
import type { Queryable, Transaction } from './pool';

export type ConfirmationState = 'waiting' | 'confirming' | 'done' | 'refused' | 'declined' | 'withdrawn';

/** Something that waits, or has waited, for a second person. */
export interface ConfirmationRow {
  readonly id: number;
  readonly command: string;
  readonly what: string;
  readonly why: string;
  readonly amountMinor: number | null;
  readonly askedBy: number;
  readonly askedByName: string;
  readonly askedAt: Instant;
  readonly state: ConfirmationState;
  readonly settledByName: string | null;
  readonly settledAt: Instant | null;
  readonly answer: string | null;
}

const ROW = `c.id, c.command, c.what, c.why, c.amount_minor as "amountMinor", c.asked_by as "askedBy", a.name as "askedByName",
  c.asked_at as "askedAt", c.state, s.name as "settledByName", c.settled_at as "settledAt", c.answer
  from confirmations c join people a on a.id = c.asked_by left join people s on s.id = c.settled_by`;

/** What waits, and what was begun and has not come to an end, since a day; the oldest first. */
export async function selectWaiting(db: Queryable, since: Instant): Promise<ConfirmationRow[]> {
  const { rows } = await db.query<ConfirmationRow>(
    `select ${ROW} where c.state in ('waiting', 'confirming') and c.asked_at > $1 and a.ended_at is null order by c.id`,
    [new Date(since)],
  );
  return rows;
}

export async function selectConfirmation(db: Queryable, id: number): Promise<ConfirmationRow | null> {
  const { rows } = await db.query<ConfirmationRow>(`select ${ROW} where c.id = $1`, [id]);
  return rows[0] ?? null;
}

/** Lets something wait; what waits already, asked by the same person, waits once. Answers its number. */
export async function insertConfirmation(
  tx: Transaction,
  draft: Pick<ConfirmationRow, 'command' | 'what' | 'why' | 'amountMinor' | 'askedBy' | 'askedAt'> & {
    readonly sealed: Buffer;
    readonly hash: Buffer;
  },
): Promise<number> {
  const { rows } = await tx.query<{ id: number }>(
    `insert into confirmations (command, arguments, arguments_hash, what, why, amount_minor, asked_by, asked_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8)
     on conflict (command, asked_by, arguments_hash) where state = 'waiting'
     do update set asked_at = excluded.asked_at, what = excluded.what, why = excluded.why, amount_minor = excluded.amount_minor
     returning id`,
    [
      draft.command,
      draft.sealed,
      draft.hash,
      draft.what,
      draft.why,
      draft.amountMinor,
      draft.askedBy,
      new Date(draft.askedAt),
    ],
  );
  return rows[0]?.id as number;
}

/** Takes up what waits, once: of two who settle it in the same moment one gets nothing. Answers what it was asked with. */
export async function takeUp(
  tx: Transaction,
  id: number,
  state: 'confirming' | 'declined' | 'withdrawn',
  settledBy: number,
  at: Instant,
): Promise<Buffer | null> {
  const { rows } = await tx.query<{ arguments: Buffer }>(
    `update confirmations set state = $2, settled_by = $3, settled_at = $4 where id = $1 and state = 'waiting' returning arguments`,
    [id, state, settledBy, new Date(at)],
  );
  return rows[0]?.arguments ?? null;
}

export async function endConfirmation(
  db: Queryable,
  id: number,
  state: 'done' | 'refused',
  answer: string | null,
): Promise<void> {
  await db.query("update confirmations set state = $2, answer = $3 where id = $1 and state = 'confirming'", [
    id,
    state,
    answer,
  ]);
}

/** What somebody has spent since an instant, in minor units of the home currency; nobody spends beside it until this transaction ends. */
export async function lockSpent(tx: Transaction, personId: number, since: Instant): Promise<number> {
  await tx.query('select from people where id = $1 for update', [personId]);
  const { rows } = await tx.query<{ spent: number }>(
    'select coalesce(sum(amount_minor), 0)::int8 as spent from person_spending where person_id = $1 and at >= $2',
    [personId, new Date(since)],
  );
  return rows[0]?.spent ?? 0;
}

export async function insertSpending(
  db: Queryable,
  personId: number,
  at: Instant,
  amountMinor: number,
  command: string,
): Promise<number> {
  const { rows } = await db.query<{ id: number }>(
    'insert into person_spending (person_id, at, amount_minor, command) values ($1, $2, $3, $4) returning id',
    [personId, new Date(at), amountMinor, command],
  );
  return rows[0]?.id as number;
}

/** Takes back what was counted for a command that was refused after all. */
export async function deleteSpending(db: Queryable, id: number): Promise<void> {
  await db.query('delete from person_spending where id = $1', [id]);
}

/** Roles of everybody but one who can sign in. */
export async function selectOtherRoles(db: Queryable, personId: number): Promise<string[]> {
  const { rows } = await db.query<{ role: string }>(
    `select p.role from people p where p.id <> $1 and p.kind = 'person' and p.ended_at is null
       and (p.pass_phrase is not null or exists (select from passkeys k where k.person_id = p.id))`,
    [personId],
  );
  return rows.map(({ role }) => role);
}
