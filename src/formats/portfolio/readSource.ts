import { type PastedName, splitNames } from '@/core/names';
import { isRefusal, type Refusal } from '@/core/refusal';
import { looksLikeDate } from '../csv/dateCells';
import { readTable, refuseSize, type Table, type TableLimits } from '../csv/readTable';
import { type Mapping, proposeMapping } from './columns';

/** A text brought in, as a table with a proposal for reading it. */
export interface PortfolioSource {
  readonly table: Table;
  readonly mapping: Mapping;
}

/**
 * Takes a text as a table when its rows have columns that can be told apart (headings, or names beside dates), else as
 * names separated by anything. A date pasted behind a name on its line is the end of that name's term.
 */
export function readSource(text: string, limits: TableLimits = {}): PortfolioSource | Refusal {
  const table = readTable(text, limits);
  if (isRefusal(table)) return table;
  const mapping = proposeMapping(table);
  const fields = mapping.columns.filter((column) => column.field !== null).length;
  const hasName = mapping.columns.some((column) => column.field === 'name');
  const isTable = (hasName && fields > 1) || (mapping.hasHeadings && (hasName || table.columns > 1));
  if (isTable) return { table, mapping };
  const pieces = splitNames(text);
  const tooMany = refuseSize(pieces.length, pieces.length, limits);
  if (tooMany) return tooMany;
  const pasted = tableOfNames(pieces);
  return { table: pasted, mapping: proposeMapping(pasted) };
}

/** One row for each pasted name, with the date that followed it, if any. */
function tableOfNames(pieces: readonly PastedName[]): Table {
  const rows: { line: number; cells: string[] }[] = [];
  for (const { line, text } of pieces) {
    const last = rows.at(-1);
    if (looksLikeDate(text) && last?.line === line && last.cells[1] === '') last.cells[1] = text;
    else rows.push({ line, cells: [text, ''] });
  }
  return { delimiter: ' ', rows: [{ line: 0, cells: ['name', 'expires'] }, ...rows], columns: 2 };
}
