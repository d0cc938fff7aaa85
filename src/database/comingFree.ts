import type { Day, Instant } from '@/core/time';
import type { Queryable, Transaction } from './pool';

/** A name that somebody lists as about to come free. */
export interface ComingFreeRow {
  readonly ascii: string;
  readonly unicode: string;
  readonly ending: string;
  readonly onDay: Day | null;
  readonly source: string;
  readonly notedAt: Instant;
}

const COLUMNS = `ascii, "unicode", ending, on_day as "onDay", source, noted_at as "notedAt"`;

/** Takes listed names in; a newer list replaces what an older one said. Answers how many were not known before. */
export async function upsertComingFree(
  tx: Transaction,
  names: readonly Pick<ComingFreeRow, 'ascii' | 'unicode' | 'ending' | 'onDay'>[],
  source: string,
  at: Instant,
): Promise<number> {
  const { rows } = await tx.query<{ isNew: boolean }>(
    `insert into coming_free (ascii, "unicode", ending, on_day, source, noted_at)
     select distinct on (c.ascii) c.ascii, c."unicode", c.ending, c."onDay", $2, $3::timestamptz
     from jsonb_to_recordset($1::jsonb) as c(ascii text, "unicode" text, ending text, "onDay" date) order by c.ascii
     on conflict (ascii) do update set on_day = coalesce(excluded.on_day, coming_free.on_day), source = excluded.source, noted_at = excluded.noted_at
     returning xmax = 0 as "isNew"`,
    [JSON.stringify(names), source, new Date(at)],
  );
  return rows.filter(({ isNew }) => isNew).length;
}

/** Listed names that hold one of these words, of today and later, the earliest first; all of them where there are no words. */
export async function selectComingFree(
  db: Queryable,
  words: readonly string[],
  from: Day,
  limit: number,
): Promise<ComingFreeRow[]> {
  const { rows } = await db.query<ComingFreeRow>(
    `select ${COLUMNS} from coming_free c where (on_day is null or on_day >= $2)
       and (cardinality($1::text[]) = 0 or exists (select from unnest($1::text[]) as w where position(w in split_part(c."unicode", '.', 1)) > 0))
     order by on_day nulls last, ascii limit $3`,
    [words, from, limit],
  );
  return rows;
}

/** What lists say of one name. */
export async function selectListedFree(db: Queryable, ascii: string): Promise<ComingFreeRow | null> {
  return (
    (await db.query<ComingFreeRow>(`select ${COLUMNS} from coming_free where ascii = $1`, [ascii])).rows[0] ?? null
  );
}

export async function countComingFree(db: Queryable): Promise<number> {
  const { rows } = await db.query<{ count: number }>('select count(*) from coming_free');
  return rows[0]?.count ?? 0;
}
