import type { Instant } from '@/core/time';
import type { Mapping } from '@/formats/portfolio/columns';
import { oneOf, word } from './oneOf';
import type { Queryable } from './pool';

export type ImportStatus = 'reading' | 'asking' | 'ready' | 'writing' | 'done' | 'failed' | 'dropped';

/** A process is at it. */
const AT_WORK: readonly ImportStatus[] = ['reading', 'writing'];
/** Begun, neither written nor dropped. */
const OPEN_IMPORTS: readonly ImportStatus[] = ['reading', 'asking', 'ready', 'writing'];

/** How an import is read, as proposed and corrected. */
export interface ImportOptions {
  readonly mapping: Mapping;
  /** The account of rows that name none. */
  readonly accountId: number | null;
  /** The list holds every name of that account: what it lacks is offered as no longer there. */
  readonly fullList: boolean;
  readonly allowPrivateEndings: boolean;
  /** A new account that rows without one are put into: it is made when the list is written. */
  readonly accountLabel?: string | null;
  /** The list is the account's own answer: what it says of auto-renew is confirmed, not believed. */
  readonly confirmed?: boolean;
  /** The sheet of a workbook that is read, and those there are. */
  readonly sheet?: string | null;
  readonly sheets?: readonly { readonly name: string; readonly rows: number }[];
  /** The first rows as they stand in the file, to show beside the mapping. */
  readonly sample?: readonly (readonly string[])[];
  /** Words around pasted names that are neither names nor dates. */
  readonly leftOut?: number;
  /** What was written in the end. */
  readonly written?: WrittenCounts;
}

/** What an import wrote. */
export interface WrittenCounts {
  readonly added: number;
  readonly changed: number;
  readonly gone: number;
  readonly entries: number;
  readonly prices: number;
}

export interface ImportRow {
  readonly id: string;
  readonly madeAt: Instant;
  readonly source: string;
  readonly options: ImportOptions;
  readonly status: ImportStatus;
  readonly rowsDone: number;
  readonly rowsTotal: number;
  readonly problem: string | null;
  readonly batchId: number | null;
  /** What it wrote was taken back. */
  readonly undone: boolean;
}

export async function insertImport(db: Queryable, row: ImportRow, content: Buffer): Promise<void> {
  await db.query(
    'insert into imports (id, made_at, source, content, options, status, rows_total) values ($1, $2, $3, $4, $5, $6, $7)',
    [row.id, new Date(row.madeAt), row.source, content, JSON.stringify(row.options), row.status, row.rowsTotal],
  );
}

const IMPORT = `select id, made_at as "madeAt", source, options, status, rows_done as "rowsDone", rows_total as "rowsTotal", problem,
  batch_id as "batchId", exists (select from batches b where b.id = imports.batch_id and b.undone_by is not null) as undone from imports`;

export async function selectImport(db: Queryable, id: string): Promise<ImportRow | null> {
  return (await db.query<ImportRow>(`${IMPORT} where id = $1`, [id])).rows[0] ?? null;
}

export async function selectImportContent(db: Queryable, id: string): Promise<Buffer> {
  const { rows } = await db.query<{ content: Buffer }>('select content from imports where id = $1', [id]);
  return rows[0]?.content ?? Buffer.alloc(0);
}

/** Imports that were begun and neither written nor dropped, newest first. */
export async function selectOpenImports(db: Queryable): Promise<ImportRow[]> {
  const { rows } = await db.query<ImportRow>(
    `${IMPORT} where status ${oneOf(OPEN_IMPORTS)} order by made_at desc limit 20`,
  );
  return rows;
}

/** Imports that were written and are still kept, newest first. */
export async function selectWrittenImports(db: Queryable): Promise<ImportRow[]> {
  const { rows } = await db.query<ImportRow>(
    `${IMPORT} where status = ${word<ImportStatus>('done')} and batch_id is not null order by made_at desc limit 20`,
  );
  return rows;
}

/** Moves an import on. With `from`, only out of one of these states: answers whether it did. */
export async function moveImport(
  db: Queryable,
  id: string,
  to: Partial<Pick<ImportRow, 'status' | 'rowsDone' | 'rowsTotal' | 'problem' | 'batchId' | 'options'>>,
  from: readonly ImportStatus[] | null = null,
): Promise<boolean> {
  const { rowCount } = await db.query(
    `update imports set status = coalesce($2, status), rows_done = coalesce($3, rows_done), rows_total = coalesce($4, rows_total),
       moved_at = now(), problem = coalesce($5, problem), batch_id = coalesce($6, batch_id), options = coalesce($7::jsonb, options)
     where id = $1 and ($8::text[] is null or status = any($8))`,
    [
      id,
      to.status ?? null,
      to.rowsDone ?? null,
      to.rowsTotal ?? null,
      to.problem ?? null,
      to.batchId ?? null,
      to.options ? JSON.stringify(to.options) : null,
      from,
    ],
  );
  return rowCount === 1;
}

/**
 * Ends imports that have not gone on for so many minutes though they were being read, since their process has ended, and those of which
 * a crash of the database has left no rows: each can be read again. Answers how many.
 */
export async function failSilentImports(db: Queryable, minutes: number): Promise<number> {
  const { rowCount } = await db.query(
    `update imports i set status = ${word<ImportStatus>('failed')}, problem = 'interrupted', moved_at = now()
     where (status ${oneOf(AT_WORK)} and moved_at < now() - make_interval(mins => $1))
       or (status = ${word<ImportStatus>('ready')} and rows_total > 0 and not exists (select from import_rows r where r.import_id = i.id))`,
    [minutes],
  );
  return rowCount ?? 0;
}

/** Deletes imports of before an instant with their rows, unless they are being worked on. Answers how many. */
export async function deleteOldImports(db: Queryable, before: Instant): Promise<number> {
  const { rowCount } = await db.query(
    `with old as (
       delete from imports where made_at < $1 and status not ${oneOf(AT_WORK)} returning id
     ), gone as (delete from import_rows where import_id in (select id from old))
     select id from old`,
    [new Date(before)],
  );
  return rowCount ?? 0;
}

/** Deletes one import with its rows. */
export async function deleteImport(db: Queryable, id: string): Promise<void> {
  await db.query('with gone as (delete from import_rows where import_id = $1) delete from imports where id = $1', [id]);
}

/** The mapping last used for a file with these headings from this account, else from any. */
export async function selectMapping(
  db: Queryable,
  accountId: number | null,
  headings: string,
): Promise<Mapping | null> {
  const { rows } = await db.query<{ mapping: Mapping }>(
    'select mapping from import_mappings where headings = $2 and (account_id is not distinct from $1 or account_id is null) order by account_id nulls last limit 1',
    [accountId, headings],
  );
  return rows[0]?.mapping ?? null;
}

export async function upsertMapping(
  db: Queryable,
  accountId: number | null,
  headings: string,
  mapping: Mapping,
): Promise<void> {
  await db.query(
    `insert into import_mappings (account_id, headings, mapping) values ($1, $2, $3)
     on conflict (account_id, headings) do update set mapping = excluded.mapping`,
    [accountId, headings, JSON.stringify(mapping)],
  );
}
