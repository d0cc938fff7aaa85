import type { Instant } from '@/core/time';
import type { Queryable } from './pool';

/** Where somebody stands who follows along: the last event that was told, in the order of transactions. */
export interface EventCursor {
  readonly xid: string;
  readonly id: number;
}

/** Before the first event. */
export const FIRST: EventCursor = { xid: '0', id: 0 };

/** Something that happened. */
export interface EventRow extends EventCursor {
  readonly at: Instant;
  readonly kind: string;
  readonly subject: string;
  readonly ascii: string | null;
  /** What is told of it, by column. */
  readonly told: Readonly<Record<string, unknown>>;
}

/**
 * The events behind a place, in order, of some kinds or of all. What was written while an earlier transaction is still under way waits for
 * it: nothing is ever told before what was begun earlier.
 */
export async function selectEvents(
  db: Queryable,
  after: EventCursor,
  kinds: readonly string[],
  limit: number,
): Promise<EventRow[]> {
  const { rows } = await db.query<EventRow>(
    `select e.xid::text as xid, e.id, e.at, e.kind, e.subject, n.ascii, e.told from events e left join names n on n.id = e.name_id
     where (e.xid, e.id) > ($1::xid8, $2::bigint) and e.xid < pg_snapshot_xmin(pg_current_snapshot())
       and (cardinality($3::text[]) = 0 or e.kind = any($3)) order by e.xid, e.id limit $4`,
    [after.xid, after.id, kinds, limit],
  );
  return rows;
}

/** The place behind everything that has happened so far. */
export async function selectNow(db: Queryable): Promise<EventCursor> {
  const { rows } = await db.query<EventCursor>(
    `select xid::text as xid, id from (
       (select xid, id from events where xid < pg_snapshot_xmin(pg_current_snapshot()) order by xid desc, id desc limit 1)
       union all select xid, id from events_forgotten) e order by e.xid desc, id desc limit 1`,
  );
  return rows[0] ?? FIRST;
}

/** Whether events behind a place have been forgotten. */
export async function isForgotten(db: Queryable, after: EventCursor): Promise<boolean> {
  const { rows } = await db.query<{ forgotten: boolean }>(
    'select ($1::xid8, $2::bigint) < (xid, id) as forgotten from events_forgotten',
    [after.xid, after.id],
  );
  return rows[0]?.forgotten === true;
}

/** Forgets events from before an instant, and remembers that it did. Answers how many. */
export async function forgetEvents(db: Queryable, before: Instant): Promise<number> {
  const { rows } = await db.query<{ count: number }>(
    `with gone as (delete from events where at < $1 returning xid, id), last as (select xid, id from gone order by xid desc, id desc limit 1),
       noted as (update events_forgotten f set xid = l.xid, id = l.id from last l where (l.xid, l.id) > (f.xid, f.id))
     select count(*)::int as count from gone`,
    [new Date(before)],
  );
  return rows[0]?.count ?? 0;
}
