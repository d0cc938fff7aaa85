import type { Instant } from '@/core/time';
import type { Queryable } from './pool';

/** A request that came with a key; without a status while it is carried out, or where its process ended meanwhile. */
export interface KeyedRequest {
  readonly sha256: Buffer;
  readonly status: number | null;
  readonly answer: string | null;
}

/** Begins the request of a key. Answers the one that came with it before, else `null`. */
export async function beginKeyed(
  db: Queryable,
  key: string,
  sha256: Buffer,
  at: Instant,
): Promise<KeyedRequest | null> {
  const { rowCount } = await db.query(
    'insert into keyed_requests (key, sha256, begun_at) values ($1, $2, $3) on conflict do nothing',
    [key, sha256, new Date(at)],
  );
  if (rowCount === 1) return null;
  const { rows } = await db.query<KeyedRequest>('select sha256, status, answer from keyed_requests where key = $1', [
    key,
  ]);
  return rows[0] ?? beginKeyed(db, key, sha256, at);
}

/** Keeps what the request of a key was answered. */
export async function keepAnswer(db: Queryable, key: string, status: number, answer: string): Promise<void> {
  await db.query('update keyed_requests set status = $2, answer = $3 where key = $1', [key, status, answer]);
}

/** A request that was refused before anything was written may be sent again with its key. */
export async function freeKey(db: Queryable, key: string): Promise<void> {
  await db.query('delete from keyed_requests where key = $1', [key]);
}

/** Forgets keys that were sent before an instant. Answers how many. */
export async function forgetKeys(db: Queryable, before: Instant): Promise<number> {
  const { rowCount } = await db.query('delete from keyed_requests where begun_at < $1', [new Date(before)]);
  return rowCount ?? 0;
}
