import type { Instant } from '@/core/time';
import { type Database, type Queryable, transaction } from './pool';

/** Something that happened. */
export interface EventRow {
  /** Where it stands in the order of all: from one on, without gaps until some are forgotten. */
  readonly place: number;
  readonly at: Instant;
  readonly kind: string;
  readonly subject: string;
  readonly ascii: string | null;
  /** What is told of it, by column. */
  readonly told: Readonly<Record<string, unknown>>;
}

/**
 * Gives places to the events that have been written since the last time, in their order. Only what is written can be seen, so that nothing
 * ever comes to stand before what somebody has read.
 */
async function placeEvents(database: Database): Promise<void> {
  const { rows } = await database.query<{ any: boolean }>(
    'select exists (select from events where place is null) as any',
  );
  if (!rows[0]?.any) return;
  await transaction(database, async (tx) => {
    // One at a time: what is seen after this is everything that others have placed.
    await tx.query('select from event_places for update');
    await tx.query(
      `with fresh as (select id, row_number() over (order by id) as n from events where place is null),
         placed as (update events e set place = p.last + f.n from fresh f, event_places p where e.id = f.id returning e.id)
       update event_places set last = last + (select count(*) from placed)`,
    );
  });
}

/** The last place that was given, everything written so far before it; and the last of those whose events have been forgotten. */
export async function selectPlaces(database: Database): Promise<{ readonly last: number; readonly forgotten: number }> {
  await placeEvents(database);
  const { rows } = await database.query<{ last: number; forgotten: number }>(
    'select last, forgotten from event_places',
  );
  return rows[0] ?? { last: 0, forgotten: 0 };
}

/** Events in order, and up to which place nothing else was to be found. */
export interface EventsRead {
  readonly events: readonly EventRow[];
  readonly upTo: number;
}

/** The events after a place, in order, of some kinds or of all. */
export async function selectEvents(
  database: Database,
  after: number,
  kinds: readonly string[],
  limit: number,
): Promise<EventsRead> {
  const { last } = await selectPlaces(database);
  const { rows } = await database.query<EventRow>(
    `select e.place, e.at, e.kind, e.subject, n.ascii, e.told from events e left join names n on n.id = e.name_id
     where e.place > $1 and e.place <= $2 and (cardinality($3::text[]) = 0 or e.kind = any($3)) order by e.place limit $4`,
    [after, last, kinds, limit],
  );
  return { events: rows, upTo: rows.length < limit ? Math.max(after, last) : (rows.at(-1)?.place ?? after) };
}

/** Forgets events from before an instant, and remembers that it did. Answers how many. */
export async function forgetEvents(database: Database, before: Instant): Promise<number> {
  await placeEvents(database);
  const { rows } = await database.query<{ count: number }>(
    `with gone as (delete from events where at < $1 and place is not null returning place),
       noted as (update event_places set forgotten = greatest(forgotten, (select max(place) from gone)))
     select count(*)::int as count from gone`,
    [new Date(before)],
  );
  return rows[0]?.count ?? 0;
}

/** Forgets all of them: what they were about is no longer there. */
export async function forgetAllEvents(tx: Queryable): Promise<void> {
  await tx.query('delete from events');
  await tx.query('update event_places set last = last + 1, forgotten = last + 1');
}
