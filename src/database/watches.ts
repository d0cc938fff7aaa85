import type { Instant } from '@/core/time';
import type { Queryable } from './pool';

/** A name of somebody else that is watched. */
export interface WatchRow {
  readonly ascii: string;
  readonly unicode: string;
  readonly ending: string;
  readonly since: Instant;
  readonly note: string;
  readonly checkedAt: Instant | null;
  readonly isFree: boolean;
  readonly earliest: Instant | null;
  readonly latest: Instant | null;
  readonly standing: string;
  readonly changedAt: Instant | null;
  readonly change: string;
}

export async function selectWatches(db: Queryable, ascii: readonly string[] | null): Promise<WatchRow[]> {
  const { rows } = await db.query<WatchRow>(
    `select ascii, "unicode", ending, since, note, checked_at as "checkedAt", is_free as "isFree", earliest, latest, standing,
       changed_at as "changedAt", change
     from watches where $1::text[] is null or ascii = any($1) order by is_free desc, earliest nulls last, ascii`,
    [ascii],
  );
  return rows;
}

export async function insertWatch(
  db: Queryable,
  watch: Pick<WatchRow, 'ascii' | 'unicode' | 'ending' | 'note'>,
  since: Instant,
): Promise<void> {
  await db.query(
    `insert into watches (ascii, "unicode", ending, note, since) values ($1, $2, $3, $4, $5)
     on conflict (ascii) do update set note = case when excluded.note = '' then watches.note else excluded.note end`,
    [watch.ascii, watch.unicode, watch.ending, watch.note, new Date(since)],
  );
}

export async function deleteWatch(db: Queryable, ascii: string): Promise<void> {
  await db.query('delete from watches where ascii = $1', [ascii]);
}

export async function updateWatch(
  db: Queryable,
  ascii: string,
  to: Pick<WatchRow, 'isFree' | 'earliest' | 'latest' | 'standing'> & {
    readonly checkedAt: Instant;
    readonly changedAt?: Instant;
    readonly change?: string;
  },
): Promise<void> {
  const date = (at: Instant | null | undefined) => (at === null || at === undefined ? null : new Date(at));
  await db.query(
    `update watches set checked_at = $2, is_free = $3, earliest = $4, latest = $5, standing = $6,
       changed_at = coalesce($7, changed_at), change = coalesce($8, change) where ascii = $1`,
    [
      ascii,
      date(to.checkedAt),
      to.isFree,
      date(to.earliest),
      date(to.latest),
      to.standing,
      date(to.changedAt),
      to.change ?? null,
    ],
  );
}
