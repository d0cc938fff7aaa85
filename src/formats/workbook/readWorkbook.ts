import ExcelJS from 'exceljs';
import { type Refusal, refuse } from '@/core/refusal';
import { refuseSize, type Table, type TableLimits, type TableRow } from '../csv/readTable';

/** A workbook's sheet that holds anything, by its name. */
export interface Sheet {
  readonly name: string;
  readonly rows: number;
}

/** One sheet of a workbook as a table, and the sheets there are. */
export interface ReadSheet {
  readonly sheets: readonly Sheet[];
  readonly sheet: string;
  readonly table: Table;
}

/** True for the first octets of a zip archive, as which workbooks are kept (ISO/IEC 29500-2). */
export function isWorkbook(content: Uint8Array): boolean {
  return content[0] === 0x50 && content[1] === 0x4b && content[2] === 0x03 && content[3] === 0x04;
}

/** The most that the parts of a workbook may come to when they are unpacked, in octets. */
const LARGEST_UNPACKED = 400 * 1024 * 1024;
/** More columns than any list of names has. */
const MOST_COLUMNS = 500;

/**
 * Reads a sheet of a workbook (ISO/IEC 29500, .xlsx): the one that is named, else the first that holds anything. Cells come as texts
 * that read in one way only: days as the workbook's date system has them, figures as plain decimals with the currency of their
 * format, formulas as their last values.
 */
export async function readWorkbook(
  content: Uint8Array,
  wanted: string | null,
  limits: TableLimits = {},
): Promise<ReadSheet | Refusal> {
  if (unpackedSize(content) > LARGEST_UNPACKED)
    return refuse(
      'file-too-large',
      'This workbook is larger than 400 MB when it is unpacked. Split it, or save it as CSV.',
    );
  const book = new ExcelJS.Workbook();
  try {
    await book.xlsx.load(Buffer.from(content) as unknown as Parameters<typeof book.xlsx.load>[0]);
  } catch {
    return NOT_READ;
  }
  const sheets = book.worksheets.filter(({ actualRowCount }) => actualRowCount > 0);
  const sheet = sheets.find(({ name }) => name === wanted) ?? sheets[0];
  if (!sheet) return book.worksheets.length === 0 ? NOT_READ : NOTHING;
  const columns = sheet.actualColumnCount === 0 ? 0 : sheet.columnCount;
  if (columns > MOST_COLUMNS)
    return refuse(
      'too-many-columns',
      `This sheet has ${columns} columns; ${MOST_COLUMNS} are the most. Is it a list of names?`,
    );
  const tooLarge = refuseSize(sheet.actualRowCount, sheet.actualRowCount * columns, limits);
  if (tooLarge) return tooLarge;
  const rows: TableRow[] = [];
  sheet.eachRow((row, line) => {
    const cells = Array.from({ length: columns }, (_, i) => textOf(row.getCell(i + 1)));
    if (cells.some((cell) => cell.trim() !== '')) rows.push({ line, cells });
  });
  if (rows.length === 0) return NOTHING;
  return {
    sheets: sheets.map(({ name, actualRowCount }) => ({ name, rows: actualRowCount })),
    sheet: sheet.name,
    table: { delimiter: '', rows, columns },
  };
}

const NOT_READ = refuse(
  'workbook-not-read',
  'This is not a workbook that can be read. Save it as .xlsx or as CSV, and bring that.',
);
const NOTHING = refuse('nothing-to-read', 'There is nothing in this workbook. Choose one that holds names.');

/** What a cell shows, as a text that reads in one way only. */
function textOf(cell: ExcelJS.Cell): string {
  return valueText(cell.value, cell.numFmt ?? '');
}

function valueText(value: ExcelJS.CellValue, format: string): string {
  if (value === null || value === undefined) return '';
  if (typeof value === 'string') return value;
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return figureText(value, format);
  if (value instanceof Date) return dateText(value);
  if ('error' in value) return '';
  if ('richText' in value) return value.richText.map(({ text }) => text).join('');
  if ('hyperlink' in value) return typeof value.text === 'string' ? value.text : valueText(value.text as never, format);
  // A formula is never computed: what it came to when the workbook was saved counts.
  if ('result' in value) return valueText((value.result ?? null) as ExcelJS.CellValue, format);
  return '';
}

/** A sheet's day has no zone; midnight is the day alone. */
function dateText(date: Date): string {
  if (Number.isNaN(date.getTime())) return '';
  // Days are kept as fractions, so a second may lack a little.
  const text = new Date(Math.round(date.getTime() / 1000) * 1000).toISOString();
  return text.endsWith('T00:00:00.000Z') ? text.slice(0, 10) : `${text.slice(0, 10)} ${text.slice(11, 19)}`;
}

const CURRENCY = /\[\$([^\]-]*)(?:-[0-9A-F]+)?\]|"([^"]+)"|([$€£¥])/iu;

/**
 * A figure as a plain decimal. Three digits behind the point would look like thousands somewhere, so a nought is put behind them. The
 * currency that its format shows stands behind it.
 */
function figureText(value: number, format: string): string {
  if (!Number.isFinite(value)) return '';
  const plain = Number.isInteger(value) ? value.toFixed(0) : String(Number(value.toPrecision(15)));
  const decimals = plain.includes('e') ? value.toFixed(6) : plain;
  const figure = /\.\d{3}$/.test(decimals) ? `${decimals}0` : decimals;
  const mark = CURRENCY.exec(format.split(';')[0] ?? '');
  const shown = (mark?.[1] ?? mark?.[2] ?? mark?.[3] ?? '').trim();
  return shown === '' ? figure : `${figure} ${shown}`;
}

/** The sum of what the archive says its parts come to: its central directory (APPNOTE 4.3.12). */
function unpackedSize(content: Uint8Array): number {
  const octets = Buffer.from(content.buffer, content.byteOffset, content.byteLength);
  let sum = 0;
  for (let at = octets.indexOf('PK\u0001\u0002', 0, 'latin1'); at >= 0 && at + 46 <= octets.length; ) {
    sum += octets.readUInt32LE(at + 24);
    const next = at + 46 + octets.readUInt16LE(at + 28) + octets.readUInt16LE(at + 30) + octets.readUInt16LE(at + 32);
    at = next + 4 <= octets.length && octets.readUInt32LE(next) === 0x02014b50 ? next : -1;
  }
  return sum;
}
