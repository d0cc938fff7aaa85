import { type Day, dayOf, type Instant } from '@/core/time';
import type { Queryable } from './pool';

/** Adds visits that were counted, each to its name and day. A name that has left the ledger meanwhile is passed over. */
export async function addVisits(
  db: Queryable,
  visits: readonly { readonly nameId: number; readonly day: Day; readonly visits: number }[],
): Promise<void> {
  await db.query(
    `insert into visits (name_id, day, visits)
     select v.name_id, v.day, v.visits from unnest($1::int[], $2::date[], $3::int[]) as v(name_id, day, visits) join names n on n.id = v.name_id
     on conflict (name_id, day) do update set visits = visits.visits + excluded.visits`,
    [visits.map(({ nameId }) => nameId), visits.map(({ day }) => day), visits.map((one) => one.visits)],
  );
}

/** How often windows were opened on so many days up to an instant, by name; names that nobody looked at are not there. */
export async function selectVisits(
  db: Queryable,
  nameIds: readonly number[] | null,
  until: Instant,
  days: number,
): Promise<Map<number, number>> {
  const { rows } = await db.query<{ id: number; visits: number }>(
    `select name_id as id, sum(visits)::int as visits from visits where ($1::int[] is null or name_id = any($1))
       and day > $2::date - $3::int and day <= $2::date group by name_id`,
    [nameIds, dayOf(until), days],
  );
  return new Map(rows.map(({ id, visits }) => [id, visits]));
}

/** The visits of one name, day by day, the last first. */
export async function selectVisitDays(
  db: Queryable,
  nameId: number,
  until: Instant,
  days: number,
): Promise<{ day: Day; visits: number }[]> {
  const { rows } = await db.query<{ day: Day; visits: number }>(
    'select day, visits from visits where name_id = $1 and day > $2::date - $3::int and day <= $2::date order by day desc',
    [nameId, dayOf(until), days],
  );
  return rows;
}
