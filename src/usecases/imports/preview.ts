import { type Refusal, refuse } from '@/core/refusal';
import {
  countOutcomes,
  type OutcomeCounts,
  type PreviewRow,
  type RowOutcome,
  selectPreviewRows,
  takeRows,
} from '@/database/importRows';
import {
  deleteImport,
  type ImportRow,
  moveImport,
  selectImport,
  selectOpenImports,
  selectWrittenImports,
} from '@/database/imports';
import { writeRows, writeTable } from '@/formats/csv/writeTable';
import type { Deps } from '../deps';
import { command } from '../people/command';

export type { OutcomeCounts, PreviewRow, RowOutcome } from '@/database/importRows';

export const IMPORT_UNKNOWN = refuse('import-unknown', 'This import is no longer there. Bring the list again.');

/** An import with how many of its rows came out how. */
export interface ImportSummary {
  readonly row: ImportRow;
  readonly counts: OutcomeCounts;
}

export async function importSummary(deps: Deps, id: string): Promise<ImportSummary | Refusal> {
  const row = await selectImport(deps.database, id);
  if (!row) return IMPORT_UNKNOWN;
  return { row, counts: await countOutcomes(deps.database, id) };
}

/** One page of the rows that came out one way. */
export function importRows(
  deps: Deps,
  id: string,
  outcome: RowOutcome,
  limit: number | null,
  offset: number,
): Promise<PreviewRow[]> {
  return selectPreviewRows(deps.database, id, outcome, limit, offset);
}

/** Chooses which rows are written: some by name, or all of one outcome. */
export const chooseRows = command(
  'chooseRows',
  async (
    deps: Deps,
    id: string,
    outcome: RowOutcome,
    names: readonly string[] | null,
    taken: boolean,
  ): Promise<true> => {
    await takeRows(deps.database, id, outcome, names, taken);
    return true;
  },
);

/** Drops an import that has not been written, with all that was brought. */
export const dropImport = command('dropImport', async (deps: Deps, id: string): Promise<true> => {
  if (await moveImport(deps.database, id, { status: 'dropped' }, ['asking', 'ready', 'failed']))
    await deleteImport(deps.database, id);
  return true;
});

/** Imports that were left and can be returned to. */
export function openImports(deps: Deps): Promise<ImportRow[]> {
  return selectOpenImports(deps.database);
}

/** Imports that were written lately: each can be looked at, and taken back. */
export function writtenImports(deps: Deps): Promise<ImportRow[]> {
  return selectWrittenImports(deps.database);
}

/** The refused rows as CSV, each with its line and reason, made so that it can be mended and brought again. */
export async function refusedRowsCsv(deps: Deps, id: string): Promise<AsyncGenerator<string> | Refusal> {
  const row = await selectImport(deps.database, id);
  if (!row) return IMPORT_UNKNOWN;
  return refusedPages(deps, row);
}

/** A few thousand rows a turn: a long list is never held as a whole. */
const ROWS_A_TURN = 2000;

async function* refusedPages(deps: Deps, { id, options }: ImportRow): AsyncGenerator<string> {
  const { columns } = options.mapping;
  const headings = columns.map((column, i) => column.heading || column.field || `column ${i + 1}`);
  const head = [...headings, 'refused because', 'line'];
  yield writeTable(head, []);
  for (let offset = 0; ; offset += ROWS_A_TURN) {
    const refused = await selectPreviewRows(deps.database, id, 'refused', ROWS_A_TURN, offset);
    if (refused.length === 0) return;
    const rows = refused.map(({ input, message, line }) => [
      ...cellsOf(input, columns.length),
      message ?? '',
      String(line),
    ]);
    yield writeRows(rows);
  }
}

function cellsOf(input: string | null, columns: number): string[] {
  const cells = JSON.parse(input ?? '[]') as string[];
  return Array.from({ length: columns }, (_, i) => cells[i] ?? '');
}
