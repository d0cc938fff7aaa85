import type { Instant } from '@/core/time';
import type { Queryable } from './pool';

/** Whether a name led to its window when DNS was asked last. */
export interface WindowLook {
  readonly nameId: number;
  readonly lookedAt: Instant;
  readonly shows: boolean;
  /** What was found, each like `A 203.0.113.7`. */
  readonly found: readonly string[];
  /** Why nothing was seen; `null` when something was. */
  readonly problem: string | null;
}

/** Names that are shown to buyers: those with a live listing that are not promised. */
export interface ShownName {
  readonly id: number;
  readonly ascii: string;
}

/** Names to be looked at again: shown to buyers, and not looked at since `before`. */
export async function selectDueLooks(db: Queryable, before: Instant): Promise<ShownName[]> {
  const { rows } = await db.query<ShownName>(
    `select n.id, n.ascii from names n left join window_looks w on w.name_id = n.id
     where n.gone_at is null and exists (select from listings l where l.name_id = n.id and l.status = 'live')
       and (w.looked_at is null or w.looked_at <= $1) order by w.looked_at nulls first, n.id limit 5000`,
    [new Date(before)],
  );
  return rows;
}

export async function selectShownNames(db: Queryable, ids: readonly number[]): Promise<ShownName[]> {
  return (await db.query<ShownName>('select id, ascii from names where id = any($1) order by id', [ids])).rows;
}

export async function upsertLooks(db: Queryable, looks: readonly WindowLook[]): Promise<void> {
  await db.query(
    `insert into window_looks (name_id, looked_at, shows, found, problem)
     select l.name_id, l.looked_at, l.shows, coalesce(array(select jsonb_array_elements_text(l.found)), '{}'), l.problem
     from jsonb_to_recordset($1::jsonb) as l(name_id int, looked_at timestamptz, shows bool, found jsonb, problem text) join names n on n.id = l.name_id
     on conflict (name_id) do update set looked_at = excluded.looked_at, problem = excluded.problem,
       -- Where nothing was seen, what was seen before is all that is known.
       shows = case when excluded.problem is null then excluded.shows else window_looks.shows end,
       found = case when excluded.problem is null then excluded.found else window_looks.found end`,
    [
      JSON.stringify(
        looks.map(({ nameId, lookedAt, shows, found, problem }) => ({
          name_id: nameId,
          looked_at: new Date(lookedAt),
          shows,
          found,
          problem,
        })),
      ),
    ],
  );
}

export async function selectLooks(db: Queryable, nameIds: readonly number[]): Promise<Map<number, WindowLook>> {
  const { rows } = await db.query<WindowLook>(
    'select name_id as "nameId", looked_at as "lookedAt", shows, found, problem from window_looks where name_id = any($1)',
    [nameIds],
  );
  return new Map(rows.map((row) => [row.nameId, row]));
}
