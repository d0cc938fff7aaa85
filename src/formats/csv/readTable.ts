import Papa from 'papaparse';
import { type Refusal, refuse } from '@/core/refusal';

/** One row of a table with the line of the file (from 1) on which it begins. */
export interface TableRow {
  readonly line: number;
  readonly cells: readonly string[];
}

export interface Table {
  readonly delimiter: string;
  readonly rows: readonly TableRow[];
  readonly columns: number;
}

/** The most that is read of a table; a larger one is refused, never cut. */
export interface TableLimits {
  readonly rows?: number;
  readonly cells?: number;
}

/** Why a table of so many rows and cells is refused; `null` when it is not. */
export function refuseSize(rows: number, cells: number, limits: TableLimits): Refusal | null {
  const most = limits.rows ?? Number.POSITIVE_INFINITY;
  if (rows > most)
    return refuse(
      'too-many-rows',
      `This holds ${rows.toLocaleString('en')} rows or words; ${most.toLocaleString('en')} are the most. Is it a list of names? Then split it, and bring the parts one after the other.`,
    );
  if (cells > (limits.cells ?? Number.POSITIVE_INFINITY))
    return refuse('too-many-cells', 'This table has too many cells. Export fewer columns, or split it.');
  return null;
}

/** More columns than any list of names has; a wider file is something else. */
const MOST_COLUMNS = 500;

/**
 * Reads delimited text (RFC 4180 and its relatives): comma, semicolon, tab or pipe, recognised; quotes; CRLF or LF.
 * Empty rows are left out. Refused: a quote that never closes, more than 500 columns, no rows at all.
 */
export function readTable(text: string, limits: TableLimits = {}): Table | Refusal {
  const parsed = Papa.parse<string[]>(text, { delimiter: delimiterOf(text), skipEmptyLines: false });
  const unclosed = parsed.errors.find((error) => error.code === 'MissingQuotes');
  if (unclosed) {
    const line = lineOfRow(parsed.data, unclosed.row ?? 0);
    return refuse(
      'quote-not-closed',
      `A quote that opens on line ${line} never closes. Close it, or take it out, and bring the file again.`,
    );
  }
  const columns = parsed.data.reduce((most, row) => Math.max(most, row.length), 0);
  if (columns > MOST_COLUMNS) {
    return refuse(
      'too-many-columns',
      `This file has ${columns} columns; ${MOST_COLUMNS} are the most. Is it a list of names?`,
    );
  }
  const tooLong = refuseSize(
    parsed.data.length,
    parsed.data.reduce((sum, row) => sum + row.length, 0),
    limits,
  );
  if (tooLong) return tooLong;
  const rows: TableRow[] = [];
  // Where every line feed ends a row, only a quoted cell goes over several lines.
  const hasBreaks = parsed.meta.linebreak !== '\n' || text.includes('"');
  let line = 1;
  for (const cells of parsed.data) {
    if (cells.some((cell) => cell.trim() !== '')) rows.push({ line, cells });
    line += 1 + (hasBreaks ? breaksWithin(cells) : 0);
  }
  if (rows.length === 0)
    return refuse('nothing-to-read', 'There is nothing to read here. Paste names, or choose a file that holds them.');
  return { delimiter: parsed.meta.delimiter, rows, columns };
}

const DELIMITERS = ['\t', ';', '|', ','];
/** So much of a text shows its delimiter. */
const LOOKED_AT = 65_536;
const ROWS_LOOKED_AT = 50;

/**
 * The delimiter by which most rows have the same number of cells, two or more: however few columns and rows there are. Of several,
 * the one that prose and amounts hold least.
 */
function delimiterOf(text: string): string {
  const begin = text.slice(0, LOOKED_AT);
  let best = { delimiter: ',', share: 0 };
  for (const delimiter of DELIMITERS) {
    if (!begin.includes(delimiter)) continue;
    const { data } = Papa.parse<string[]>(begin, { delimiter, preview: ROWS_LOOKED_AT, skipEmptyLines: 'greedy' });
    const counts = new Map<number, number>();
    for (const row of data) counts.set(row.length, (counts.get(row.length) ?? 0) + 1);
    const most = Math.max(0, ...[...counts].filter(([cells]) => cells > 1).map(([, rows]) => rows));
    const share = most / Math.max(1, data.length);
    if (share > best.share) best = { delimiter, share };
  }
  return best.delimiter;
}

function breaksWithin(cells: readonly string[]): number {
  let breaks = 0;
  for (const cell of cells) if (cell.includes('\n')) breaks += cell.split('\n').length - 1;
  return breaks;
}

function lineOfRow(rows: readonly (readonly string[])[], row: number): number {
  return rows.slice(0, row).reduce((line, cells) => line + 1 + breaksWithin(cells), 1);
}
