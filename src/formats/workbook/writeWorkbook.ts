import ExcelJS from 'exceljs';
import { type Amount, currencyDigits } from '@/core/money';
import type { TermEnd } from '@/core/time';

/** What a cell of a workbook can hold. */
export type WorkbookCell = string | number | Amount | TermEnd | null;

const isAmount = (cell: object): cell is Amount => 'minor' in cell;

/** Writes one sheet as a workbook (ISO/IEC 29500, .xlsx): days are days, amounts are figures with their currency in the format. */
export async function writeWorkbook(
  name: string,
  headings: readonly string[],
  rows: readonly (readonly WorkbookCell[])[],
): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet(name, { views: [{ state: 'frozen', ySplit: 1 }] });
  sheet.addRow([...headings]).font = { bold: true };
  for (const cells of rows) {
    const row = sheet.addRow(cells.map(cellValue));
    for (const [i, cell] of cells.entries()) {
      const format = formatOf(cell);
      if (format) row.getCell(i + 1).numFmt = format;
    }
  }
  return new Uint8Array(await book.xlsx.writeBuffer());
}

function cellValue(cell: WorkbookCell): string | number | Date | null {
  if (cell === null || typeof cell !== 'object') return cell;
  return isAmount(cell) ? cell.minor / 10 ** currencyDigits(cell.currency) : new Date(cell.at);
}

function formatOf(cell: WorkbookCell): string | null {
  if (cell === null || typeof cell !== 'object') return null;
  if (!isAmount(cell)) return cell.precision === 'day' ? 'yyyy-mm-dd' : 'yyyy-mm-dd hh:mm:ss';
  const digits = currencyDigits(cell.currency);
  return `#,##0${digits === 0 ? '' : `.${'0'.repeat(digits)}`} "${cell.currency}"`;
}
