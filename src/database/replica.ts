import type { Queryable } from './pool';

/** Up to where the primary has written (PostgreSQL 15 documentation, section 9.27.3): everything committed lies before. */
export async function selectPosition(primary: Queryable): Promise<string> {
  const { rows } = await primary.query<{ at: string }>('select pg_current_wal_insert_lsn()::text as at');
  return rows[0]?.at ?? '0/0';
}

/** Whether a copy holds everything up to a position of its primary. Throws for a database that is no copy. */
export async function hasReplayed(copy: Queryable, position: string): Promise<boolean> {
  const { rows } = await copy.query<{ has: boolean | null }>('select pg_last_wal_replay_lsn() >= $1::pg_lsn as has', [
    position,
  ]);
  const has = rows[0]?.has ?? null;
  if (has === null) throw new Error('READ_DATABASE_URL names a database that is no copy of another');
  return has;
}
