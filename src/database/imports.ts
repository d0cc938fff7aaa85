import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { from as copyFrom } from 'pg-copy-streams';
import type { Instant } from '@/core/time';
import type { Mapping } from '@/formats/portfolio/columns';
import type { NamePatch } from './changes';
import type { Queryable, Transaction } from './pool';

export type ImportStatus = 'reading' | 'asking' | 'ready' | 'writing' | 'done' | 'failed' | 'dropped';
export type RowOutcome = 'new' | 'changed' | 'unchanged' | 'refused' | 'missing';

/** How an import is read, as proposed and corrected. */
export interface ImportOptions {
  readonly mapping: Mapping;
  /** The account of rows that name none. */
  readonly accountId: number | null;
  /** The list holds every name of that account: what it lacks is offered as no longer there. */
  readonly fullList: boolean;
  readonly allowPrivateEndings: boolean;
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
}

export async function insertImport(db: Queryable, row: ImportRow, content: Buffer): Promise<void> {
  await db.query(
    'insert into imports (id, made_at, source, content, options, status, rows_total) values ($1, $2, $3, $4, $5, $6, $7)',
    [row.id, new Date(row.madeAt), row.source, content, JSON.stringify(row.options), row.status, row.rowsTotal],
  );
}

export async function selectImport(db: Queryable, id: string): Promise<ImportRow | null> {
  const { rows } = await db.query<ImportRow>(
    `select id, made_at as "madeAt", source, options, status, rows_done as "rowsDone", rows_total as "rowsTotal", problem, batch_id as "batchId"
     from imports where id = $1`,
    [id],
  );
  return rows[0] ?? null;
}

export async function selectImportContent(db: Queryable, id: string): Promise<Buffer> {
  const { rows } = await db.query<{ content: Buffer }>('select content from imports where id = $1', [id]);
  return rows[0]?.content ?? Buffer.alloc(0);
}

/** Imports that were begun and neither written nor dropped, newest first. */
export async function selectOpenImports(db: Queryable): Promise<ImportRow[]> {
  const { rows } = await db.query<ImportRow>(
    `select id, made_at as "madeAt", source, options, status, rows_done as "rowsDone", rows_total as "rowsTotal", problem, batch_id as "batchId"
     from imports where status in ('reading', 'asking', 'ready', 'writing') order by made_at desc limit 20`,
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
       problem = coalesce($5, problem), batch_id = coalesce($6, batch_id), options = coalesce($7::jsonb, options)
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

/** Imports that were being read or written when the program ended: nothing of them was written. */
export async function failInterruptedImports(db: Queryable): Promise<void> {
  await db.query(
    "update imports set status = 'failed', problem = 'interrupted' where status in ('reading', 'writing')",
  );
}

/** What a read row says of a name, in columns of `names`, and what else it tells. */
export interface StagedData {
  readonly unicode: string;
  readonly ending: string;
  readonly warning: string | null;
  /** Lower-case label of the account the row names; `null` for the import's own. */
  readonly account: string | null;
  readonly accountLabel: string | null;
  readonly fields: NamePatch;
  readonly paid: { readonly minor: number; readonly currency: string; readonly onDay: string | null } | null;
  readonly renewal: { readonly minor: number; readonly currency: string } | null;
}

export interface StagedRow {
  readonly line: number;
  readonly input: string;
  readonly ascii: string | null;
  readonly outcome: 'read' | 'refused';
  readonly code: string | null;
  readonly message: string | null;
  readonly data: StagedData | null;
}

const COPY_ESCAPES: Readonly<Record<string, string>> = {
  '\\': '\\\\',
  '\t': '\\t',
  '\n': '\\n',
  '\r': '\\r',
};

function copyField(value: string | number | null): string {
  return value === null ? '\\N' : String(value).replace(/[\\\t\n\r]/g, (found) => COPY_ESCAPES[found] ?? '');
}

/** Puts read rows where they can be compared: by COPY into a table of this transaction. */
export async function stageRows(tx: Transaction, rows: readonly StagedRow[]): Promise<void> {
  await tx.query(
    'create temporary table staged (line int, input text, ascii text, outcome text, code text, message text, data jsonb) on commit drop',
  );
  const stream = tx.query(copyFrom('copy staged (line, input, ascii, outcome, code, message, data) from stdin'));
  function* lines() {
    for (let start = 0; start < rows.length; start += 500) {
      yield rows
        .slice(start, start + 500)
        .map((row) =>
          [
            row.line,
            row.input.replaceAll('\0', ''),
            row.ascii,
            row.outcome,
            row.code,
            row.message,
            row.data === null ? null : JSON.stringify(row.data),
          ]
            .map(copyField)
            .join('\t'),
        )
        .join('\n')
        .concat('\n');
    }
  }
  await pipeline(Readable.from(lines()), stream);
  await tx.query('analyze staged (ascii, outcome)');
}

/** The accounts that staged rows name, as they were written first. */
export async function selectStagedAccounts(tx: Queryable, importId: string): Promise<string[]> {
  const { rows } = await tx.query<{ label: string }>(
    `select distinct on (data->>'account') data->>'accountLabel' as label from import_rows
     where import_id = $1 and data->>'account' is not null and outcome <> 'refused' order by data->>'account', line`,
    [importId],
  );
  return rows.map((row) => row.label);
}

/** True when a new name of the list comes without an account. */
export async function hasNewRowsWithoutAccount(tx: Queryable, importId: string): Promise<boolean> {
  const { rows } = await tx.query(
    "select 1 from import_rows where import_id = $1 and outcome = 'new' and taken and data->>'account' is null limit 1",
    [importId],
  );
  return rows.length > 0;
}

/** Keys of a date in `fields` that only repeats, without its time, an instant that is known already. */
const repeats = (at: string, day: string) => `case when (r.data->'fields'->>'${day}')::boolean and not n.${day}
  and n.${at} >= (r.data->'fields'->>'${at}')::timestamptz - interval '14 hours' and n.${at} < (r.data->'fields'->>'${at}')::timestamptz + interval '36 hours'
  then array['${at}', '${day}'] else '{}' end`;

/** What differs between a name as it is (`old`) and as a list has it (`fields`), with the old values. Both are in the form of `to_jsonb`. */
const DIFFERENCE = `coalesce((
  select jsonb_object_agg(key, v.old -> key) from jsonb_each(w.fields) where value is distinct from v.old -> key), '{}'::jsonb)`;

/**
 * Compares staged rows with the ledger: doubles within the list are refused, the rest become new, changed or unchanged,
 * with what was before. `accountId` stands in for rows that name no account. With `fullList`, what the account holds and
 * the list lacks is added as missing, not taken unless chosen.
 */
export async function compareRows(
  tx: Transaction,
  importId: string,
  accountId: number | null,
  fullList: boolean,
): Promise<void> {
  await tx.query('delete from import_rows where import_id = $1', [importId]);
  await tx.query(
    `with numbered as (
       select s.*, case when outcome = 'read' then first_value(line) over (partition by ascii, outcome order by line) end as first from staged s
     ), wanted as (
       select r.line, r.input, r.ascii, r.first, r.outcome, r.code, r.message, r.data, n.id as name_id, n.gone_at, a.id as named, n,
         r.data->>'account' as account, r.data->'paid' as paid,
         (r.data->'fields') - ${repeats('term_end', 'term_end_day')} - ${repeats('registered', 'registered_day')}
           || case when coalesce(a.id, $2) is null then '{}'::jsonb else jsonb_build_object('account_id', coalesce(a.id, $2)) end as fields
       from numbered r left join names n on n.ascii = r.ascii left join accounts a on lower(a.label) = r.data->>'account'
     ), bought as (
       select e.name_id, sum(e.minor) as minor, min(e.currency) as currency from entries e where e.kind = 'bought' group by e.name_id
     ), compared as (
       select w.*, case when w.name_id is null then null else ${DIFFERENCE}
         || case when w.gone_at is null then '{}'::jsonb else jsonb_build_object('gone_at', w.gone_at) end
         || case when w.account is null or w.named is not null then '{}'::jsonb else '{"account": ""}'::jsonb end
         || case when w.paid = 'null' or (b.minor = (w.paid->>'minor')::int8 and b.currency = w.paid->>'currency') then '{}'::jsonb
              else jsonb_build_object('paid', case when b.minor is null then null else jsonb_build_object('minor', b.minor, 'currency', b.currency) end) end
         end as before
       from wanted w left join bought b on b.name_id = w.name_id,
       lateral (select case when w.name_id is null then null else to_jsonb(w.n) end as old offset 0) v
     )
     insert into import_rows (import_id, line, input, ascii, outcome, code, message, data, before, after)
     select $1, line, input, ascii,
       case when outcome = 'refused' or line > first then 'refused' when name_id is null then 'new' when before = '{}' then 'unchanged' else 'changed' end,
       case when line > first then 'name-twice' else code end,
       case when line > first then 'This name stands on line ' || first || ' already. Take one of the two out.' else message end,
       data - 'fields', before, case when gone_at is null then fields else fields || '{"gone_at": null}' end
     from compared`,
    [importId, accountId],
  );
  // What is planned next must know how the rows came out.
  await tx.query('analyze import_rows (import_id, outcome, ascii, taken)');
  if (fullList && accountId !== null) {
    await tx.query(
      `insert into import_rows (import_id, line, input, ascii, outcome, message, taken)
       select $1, 0, n."unicode", n.ascii, 'missing', 'Not in this list any more.', false from names n
       where n.account_id = $2 and n.gone_at is null and not exists (select from import_rows r where r.import_id = $1 and r.ascii = n.ascii and r.outcome <> 'refused')`,
      [importId, accountId],
    );
  }
}

/** How many rows came out how, and how many of them will be written. */
export type OutcomeCounts = Readonly<Record<RowOutcome, { readonly rows: number; readonly taken: number }>>;

export async function countOutcomes(db: Queryable, importId: string): Promise<OutcomeCounts> {
  const { rows } = await db.query<{ outcome: RowOutcome; rows: number; taken: number }>(
    'select outcome, count(*) as rows, count(*) filter (where taken) as taken from import_rows where import_id = $1 group by outcome',
    [importId],
  );
  const none = { rows: 0, taken: 0 };
  return {
    new: none,
    changed: none,
    unchanged: none,
    refused: none,
    missing: none,
    ...Object.fromEntries(rows.map((row) => [row.outcome, row])),
  };
}

/** A compared row as the preview shows it. */
export interface PreviewRow {
  readonly line: number;
  readonly input: string;
  readonly ascii: string | null;
  readonly outcome: RowOutcome;
  readonly code: string | null;
  readonly message: string | null;
  readonly before: Readonly<Record<string, unknown>> | null;
  readonly after: Readonly<Record<string, unknown>> | null;
  readonly data: StagedData | null;
  readonly taken: boolean;
}

export async function selectPreviewRows(
  db: Queryable,
  importId: string,
  outcome: RowOutcome,
  limit: number | null,
  offset: number,
): Promise<PreviewRow[]> {
  const { rows } = await db.query<PreviewRow>(
    `select line, input, ascii, outcome, code, message, before, after, data, taken from import_rows
     where import_id = $1 and outcome = $2 order by line, ascii limit $3 offset $4`,
    [importId, outcome, limit, offset],
  );
  return rows;
}

/** Chooses which rows of one outcome will be written; all of them when `names` is `null`. */
export async function takeRows(
  db: Queryable,
  importId: string,
  outcome: RowOutcome,
  names: readonly string[] | null,
  taken: boolean,
): Promise<void> {
  await db.query(
    'update import_rows set taken = $4 where import_id = $1 and outcome = $2 and ($3::text[] is null or ascii = any($3))',
    [importId, outcome, names, taken],
  );
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
