import { isRefusal, type Refusal } from '@/core/refusal';
import type { ImportOptions } from '@/database/imports';
import { decodeText } from '@/formats/csv/decodeText';
import { type PortfolioSource, readSource, sourceOfTable } from '@/formats/portfolio/readSource';
import { isWorkbook, readWorkbook } from '@/formats/workbook/readWorkbook';
import { MOST_CELLS, MOST_ROWS } from '../limits';

/** What was brought, as a table: the one place where a list's octets become rows. */
export interface BroughtSource {
  readonly source: PortfolioSource;
  readonly sheet: string | null;
  readonly sheets: ImportOptions['sheets'];
}

/** Reads what was brought: a workbook’s sheet, or text in whatever encoding. Refused: what is no table, or too large a one. */
export async function sourceOf(content: Uint8Array, sheet: string | null): Promise<BroughtSource | Refusal> {
  const limits = { rows: MOST_ROWS, cells: MOST_CELLS };
  if (!isWorkbook(content)) {
    const source = readSource(decodeText(content).text, limits);
    return isRefusal(source) ? source : { source, sheet: null, sheets: [] };
  }
  const read = await readWorkbook(content, sheet, limits);
  return isRefusal(read) ? read : { source: sourceOfTable(read.table), sheet: read.sheet, sheets: read.sheets };
}
