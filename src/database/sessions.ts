import type { Member } from '@/core/people';
import type { Instant } from '@/core/time';
import type { Queryable } from './pool';

/** By what somebody has signed in. */
export type SignInWay = 'passkey' | 'pass phrase' | 'recovery code';

export interface SessionRow {
  readonly id: number;
  readonly personId: number;
  readonly way: SignInWay;
  readonly beganAt: Instant;
  readonly seenAt: Instant;
  readonly address: string;
  readonly agent: string;
}

const SESSION = `s.id, s.person_id as "personId", s.way, s.began_at as "beganAt", s.seen_at as "seenAt", s.address, s.agent`;

export async function insertSession(
  db: Queryable,
  hash: Buffer,
  { personId, way, beganAt, address, agent }: Omit<SessionRow, 'id' | 'seenAt'>,
): Promise<number> {
  const { rows } = await db.query<{ id: number }>(
    `insert into sessions (person_id, token_hash, way, began_at, seen_at, address, agent)
     values ($1, $2, $3, $4, $4, $5, $6) returning id`,
    [personId, hash, way, new Date(beganAt), address, agent],
  );
  return rows[0]?.id as number;
}

/** The session of a token, with whose it is; `null` where it was withdrawn, or he has no access any more. */
export async function selectSession(db: Queryable, hash: Buffer): Promise<(SessionRow & { member: Member }) | null> {
  const { rows } = await db.query<SessionRow & { member: Member }>(
    `select ${SESSION}, json_build_object('id', p.id, 'kind', p.kind, 'name', p.name, 'role', p.role, 'scope', p.scope,
       'monthlyLimitMinor', p.monthly_limit_minor) as member
     from sessions s join people p on p.id = s.person_id where s.token_hash = $1 and p.ended_at is null`,
    [hash],
  );
  return rows[0] ?? null;
}

export async function selectSessionsOf(db: Queryable, personId: number): Promise<SessionRow[]> {
  const { rows } = await db.query<SessionRow>(
    `select ${SESSION} from sessions s where s.person_id = $1 order by s.seen_at desc`,
    [personId],
  );
  return rows;
}

export async function updateSeen(db: Queryable, id: number, at: Instant): Promise<void> {
  await db.query('update sessions set seen_at = $2 where id = $1 and seen_at < $2', [id, new Date(at)]);
}

/** Ends sessions of somebody: one, all but one, or all. Answers how many. */
export async function deleteSessions(
  db: Queryable,
  personId: number,
  which: { readonly only?: number; readonly but?: number } = {},
): Promise<number> {
  const { rowCount } = await db.query(
    'delete from sessions where person_id = $1 and ($2::int is null or id = $2) and ($3::int is null or id <> $3)',
    [personId, which.only ?? null, which.but ?? null],
  );
  return rowCount ?? 0;
}

/** Takes away what has ended. */
export async function deleteEndedSessions(db: Queryable, beganBefore: Instant, seenBefore: Instant): Promise<void> {
  await db.query('delete from sessions where began_at <= $1 or seen_at <= $2', [
    new Date(beganBefore),
    new Date(seenBefore),
  ]);
}
