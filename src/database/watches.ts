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

export async function insertWatches(
  db: Queryable,
  watches: readonly Pick<WatchRow, 'ascii' | 'unicode' | 'ending' | 'note'>[],
  since: Instant,
): Promise<void> {
  await db.query(
    `insert into watches (ascii, "unicode", ending, note, since)
     select distinct on (w.ascii) w.ascii, w."unicode", w.ending, w.note, $2
     from jsonb_to_recordset($1::jsonb) as w(ascii text, "unicode" text, ending text, note text) order by w.ascii
     on conflict (ascii) do update set note = case when excluded.note = '' then watches.note else excluded.note end`,
    [JSON.stringify(watches), new Date(since)],
  );
}

export async function deleteWatch(db: Queryable, ascii: string): Promise<void> {
  await db.query('delete from watches where ascii = $1', [ascii]);
}

/** How watched names stand after a check. `change` is `null` where nothing changed. */
export interface WatchedNow extends Pick<WatchRow, 'ascii' | 'isFree' | 'earliest' | 'latest' | 'standing'> {
  readonly change: string | null;
}

export async function updateWatches(db: Queryable, watched: readonly WatchedNow[], at: Instant): Promise<void> {
  await db.query(
    `update watches w set checked_at = $2, is_free = n."isFree", earliest = to_timestamp(n.earliest / 1000.0),
       latest = to_timestamp(n.latest / 1000.0), standing = n.standing, change = coalesce(n.change, w.change),
       changed_at = case when n.change is null then w.changed_at else $2 end
     from jsonb_to_recordset($1::jsonb) as n(ascii text, "isFree" boolean, earliest float8, latest float8, standing text, change text)
     where w.ascii = n.ascii`,
    [JSON.stringify(watched), new Date(at)],
  );
}
