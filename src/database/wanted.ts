import type { Instant } from '@/core/time';
import type { Queryable } from './pool';

/** A name on the shortlist. */
export interface WantedRow {
  readonly id: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly ending: string;
  /** What was typed first. */
  readonly typed: string;
  /** What it is wanted for: names of one purpose are reviewed together. */
  readonly purpose: string;
  readonly note: string;
  readonly addedAt: Instant;
}

const COLUMNS = `id, ascii, "unicode", ending, typed, purpose, note, added_at as "addedAt"`;

/** The shortlist, by purpose. */
export async function selectWanted(db: Queryable): Promise<WantedRow[]> {
  return (await db.query<WantedRow>(`select ${COLUMNS} from wanted_names order by purpose, added_at, id`)).rows;
}

/** Puts names on the shortlist; one that is there keeps its place and takes the new words where some are said. */
export async function insertWanted(
  db: Queryable,
  names: readonly Pick<WantedRow, 'ascii' | 'unicode' | 'ending' | 'typed' | 'purpose' | 'note'>[],
  at: Instant,
): Promise<void> {
  await db.query(
    `insert into wanted_names (ascii, "unicode", ending, typed, purpose, note, added_at)
     select distinct on (w.ascii) w.ascii, w."unicode", w.ending, w.typed, w.purpose, w.note, $2
     from jsonb_to_recordset($1::jsonb) as w(ascii text, "unicode" text, ending text, typed text, purpose text, note text) order by w.ascii
     on conflict (ascii) do update set purpose = case when excluded.purpose = '' then wanted_names.purpose else excluded.purpose end,
       note = case when excluded.note = '' then wanted_names.note else excluded.note end`,
    [JSON.stringify(names), new Date(at)],
  );
}

export async function deleteWanted(db: Queryable, ascii: readonly string[]): Promise<void> {
  await db.query('delete from wanted_names where ascii = any($1)', [ascii]);
}
