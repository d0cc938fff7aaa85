import Papa from 'papaparse';

/** What a spreadsheet may take for the begin of a formula, also in the full-width letters that some read alike. */
const FORMULA = /^[=+\-@\t\r＝＋－＠]/;
const PLAIN_NUMBER = /^-?\d+(\.\d+)?$/;

/** A cell that a spreadsheet would take for a formula gets an apostrophe before it; plain numbers stay numbers. */
export function defuse(cell: string): string {
  return FORMULA.test(cell) && !PLAIN_NUMBER.test(cell) ? `'${cell}` : cell;
}

/** Takes back what `defuse` did. */
export function undefuse(cell: string): string {
  return cell.startsWith("'") && FORMULA.test(cell.slice(1)) ? cell.slice(1) : cell;
}

/** A cell that needs a look: it may be taken for a formula, or has to be quoted. Of a long table most do not. */
const NEEDS_LOOK = /[",\r\n\ufeff]|^[\s=+\-@＝＋－＠]|\s$/;

const written = (cell: string) => (cell === '' || !NEEDS_LOOK.test(cell) ? cell : Papa.unparse([[defuse(cell)]]));

/** A column of things as they are: how a cell of it is written, and whether that never needs quotes or an apostrophe (days, words of our own). */
export interface WrittenColumn<Row> {
  readonly cell: (row: Row) => string;
  readonly isPlain: boolean;
}

/** Rows of a table that is written piece by piece, behind its headings: RFC 4180, every cell defused that may need it. */
export function writeRowsOf<Row>(rows: readonly Row[], columns: readonly WrittenColumn<Row>[]): string {
  // Joined, not added up: a text of a million pieces that were added one by one takes twice as long to read.
  const lineOf = (row: Row) =>
    `${columns.map(({ cell, isPlain }) => (isPlain ? cell(row) : written(cell(row)))).join(',')}\r\n`;
  return rows.map(lineOf).join('');
}

/** The same of cells that are written already. */
export const writeRows = (rows: readonly (readonly string[])[]): string =>
  rows.map((row) => `${row.map(written).join(',')}\r\n`).join('');

/** Writes a table as CSV (RFC 4180: comma, CRLF, quotes where needed), every cell defused. */
export function writeTable(headings: readonly string[], rows: readonly (readonly string[])[]): string {
  return writeRows([headings, ...rows]);
}
