import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { readTable, refuseSize, type Table, type TableLimits } from '../csv/readTable';
import { type FoundFields, findFields, looksLikeName, type Mapping, proposeMapping } from './columns';
import { readProse } from './prose';

/** A text or sheet brought in, as a table with a proposal for reading it. */
export interface PortfolioSource {
  readonly table: Table;
  /** Every cell of the table is looked through for it: when it is first asked for. */
  readonly mapping: Mapping;
  /** Words around pasted names that are neither names nor dates. */
  readonly leftOut: number;
}

/**
 * Takes a text as a table when its rows have columns that can be told apart, however few: headings, or a column of names beside
 * others. Anything else is names among words: a date beside a name is the end of its term.
 */
export function readSource(text: string, limits: TableLimits = {}): PortfolioSource | Refusal {
  const table = readTable(text, limits);
  if (!isRefusal(table)) {
    if (isTable(table, findFields(table))) return sourceOfTable(table);
  } else if (table.code !== 'quote-not-closed' || looksLikeTable(text)) return table;
  const { rows, words, leftOut } = readProse(text);
  const tooMany = refuseSize(words, words, limits);
  if (tooMany) return tooMany;
  if (rows.length === 0)
    return refuse('no-names', 'No names are in this text. Paste names with their endings, like seaholly.com.');
  const cells = rows.map(({ line, name, expires, registered }) => ({ line, cells: [name, expires, registered] }));
  const pasted: Table = {
    delimiter: ' ',
    rows: [{ line: 0, cells: ['name', 'expires', 'registered'] }, ...cells],
    columns: 3,
  };
  return sourceOfTable(pasted, leftOut);
}

/** A sheet of a workbook is a table whatever stands in it. */
export function sourceOfTable(table: Table, leftOut = 0): PortfolioSource {
  let proposal: Mapping | null = null;
  return {
    table,
    get mapping() {
      proposal ??= proposeMapping(table);
      return proposal;
    },
    leftOut,
  };
}

function isTable(table: Table, { columns, hasHeadings }: FoundFields): boolean {
  const hasName = columns.some(({ field }) => field === 'name');
  if (hasHeadings) return hasName || table.columns > 1;
  if (!hasName || table.columns < 2) return false;
  // Several names in one row are a list of names, not a table.
  const inRow = (cells: readonly string[]) => cells.filter((cell) => looksLikeName(cell.trim())).length;
  if (table.rows.slice(0, 50).some(({ cells }) => inRow(cells) > 1)) return false;
  // A comma stands in prose too: then another column has to be told.
  return table.delimiter !== ',' || columns.filter(({ field }) => field !== null).length > 1 || !hasBlanks(table);
}

const hasBlanks = ({ rows }: Table) => rows.some(({ cells }) => cells.some((cell) => /\S\s+\S/.test(cell)));

/** A quote that is left open is a mistake in a table, and nothing in prose. */
const looksLikeTable = (text: string) => /^[^\n]*[,;\t|][^\n]*\n/.test(text) && /(^|[,;\t|])"/m.test(text);
