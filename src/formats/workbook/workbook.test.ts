import { inflateRawSync } from 'node:zlib';
import ExcelJS from 'exceljs';
import { describe, expect, test } from 'vitest';
import { amount } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import { instant, parseTermEnd } from '@/core/time';
import { isWorkbook, readWorkbook } from './readWorkbook';
import { writeWorkbook } from './writeWorkbook';

/** A workbook with these sheets, made by the package. */
async function bookOf(
  sheets: Record<string, ExcelJS.CellValue[][]>,
  more: (book: ExcelJS.Workbook) => void = () => undefined,
) {
  const book = new ExcelJS.Workbook();
  for (const [name, rows] of Object.entries(sheets)) book.addWorksheet(name).addRows(rows);
  more(book);
  return new Uint8Array(await book.xlsx.writeBuffer());
}

const read = async (content: Uint8Array, sheet: string | null = null) => {
  const found = await readWorkbook(content, sheet);
  if (isRefusal(found)) throw new Error(found.message);
  return found;
};
const cellsOf = async (content: Uint8Array, sheet: string | null = null) =>
  (await read(content, sheet)).table.rows.map(({ cells }) => cells);

/** The text of one part of an archive (APPNOTE 4.3.7): enough to look at what was written without the package that wrote it. */
function partOf(content: Uint8Array, wanted: string): string {
  const octets = Buffer.from(content);
  let at = octets.indexOf('PK\u0001\u0002', 0, 'latin1');
  for (; at >= 0; at = octets.indexOf('PK\u0001\u0002', at + 4, 'latin1')) {
    const name = octets.toString('utf8', at + 46, at + 46 + octets.readUInt16LE(at + 28));
    if (name !== wanted) continue;
    const local = octets.readUInt32LE(at + 42);
    const start = local + 30 + octets.readUInt16LE(local + 26) + octets.readUInt16LE(local + 28);
    return inflateRawSync(octets.subarray(start, start + octets.readUInt32LE(at + 20))).toString('utf8');
  }
  throw new Error(`no part ${wanted}`);
}

/** The serial of a day: days since 1899-12-30 (ISO/IEC 29500-1 section 18.17.4.1, the 1900 date system). */
const serial = (at: number) => (at - Date.UTC(1899, 11, 30)) / 86_400_000;

describe('a workbook is read as its cells show', () => {
  test('texts, days, instants, figures, yes and no', async () => {
    const content = await bookOf({
      Names: [
        ['name', 'expires', 'price', 'auto'],
        ['kelpkiln.com', new Date(Date.UTC(2027, 4, 13)), 11.38, true],
        ['seaholly.com', new Date(Date.UTC(2027, 4, 13, 10, 15)), 1200, false],
        [{ text: 'tarbarrel.org', hyperlink: 'https://tarbarrel.org' }, null, 1.234, null],
        [{ richText: [{ text: 'bracken' }, { text: 'quay.net' }] }, '', 0.1 + 0.2, ''],
      ],
    });
    expect(isWorkbook(content)).toBe(true);
    expect(await cellsOf(content)).toEqual([
      ['name', 'expires', 'price', 'auto'],
      ['kelpkiln.com', '2027-05-13', '11.38', 'yes'],
      ['seaholly.com', '2027-05-13 10:15:00', '1200', 'no'],
      // Three digits behind the point look like thousands elsewhere.
      ['tarbarrel.org', '', '1.2340', ''],
      ['brackenquay.net', '', '0.3', ''],
    ]);
  });

  test('the currency of a format stands behind its figure', async () => {
    const content = await bookOf({ Names: [[12.5, 12.5, 12.5, 12.5]] }, (book) => {
      const row = book.getWorksheet('Names')?.getRow(1);
      for (const [i, format] of [
        '#,##0.00 "CAD"',
        '[$€-407] #,##0.00',
        '"$"#,##0.00;[Red]-"$"#,##0.00',
        '0.00',
      ].entries())
        if (row) row.getCell(i + 1).numFmt = format;
    });
    expect(await cellsOf(content)).toEqual([['12.5 CAD', '12.5 €', '12.5 $', '12.5']]);
  });

  test('a formula is its last value, an error is nothing', async () => {
    const content = await bookOf({
      Names: [
        [
          { formula: 'A2&".com"', result: 'kelpkiln.com' },
          { formula: '1/0', result: { error: '#DIV/0!' } },
          { error: '#N/A' },
          { formula: 'NOW()' },
          'x',
        ],
      ],
    });
    expect(await cellsOf(content)).toEqual([['kelpkiln.com', '', '', '', 'x']]);
  });

  test('the date system of 1904 is the workbook’s own', async () => {
    const content = await bookOf({ Names: [[new Date(Date.UTC(2027, 4, 13))]] }, (book) => {
      book.properties.date1904 = true;
    });
    // 1462 days lie between the two systems (ISO/IEC 29500-1 section 18.17.4.1).
    expect(partOf(content, 'xl/worksheets/sheet1.xml')).toContain(`<v>${serial(Date.UTC(2027, 4, 13)) - 1462}</v>`);
    expect(await cellsOf(content)).toEqual([['2027-05-13']]);
  });

  test('sheets to choose from: those that hold anything, the first one unless another is named', async () => {
    const content = await bookOf({ Empty: [], Old: [['a.com']], New: [['b.com'], ['c.com']] });
    expect((await read(content)).sheets).toEqual([
      { name: 'Old', rows: 1 },
      { name: 'New', rows: 2 },
    ]);
    expect(await cellsOf(content)).toEqual([['a.com']]);
    expect(await cellsOf(content, 'New')).toEqual([['b.com'], ['c.com']]);
  });

  test('lines are those of the sheet, empty rows left out', async () => {
    const content = await bookOf({ Names: [['a.com'], [], ['', ''], ['b.com']] });
    expect((await read(content)).table.rows.map(({ line }) => line)).toEqual([1, 4]);
  });
});

describe('what is no workbook, or too much of one, is refused in words', () => {
  test('an archive of something else', async () => {
    expect(await readWorkbook(Uint8Array.from([0x50, 0x4b, 3, 4, 1, 2, 3]), null)).toMatchObject({
      code: 'workbook-not-read',
    });
  });
  test('nothing in it', async () => {
    expect(await readWorkbook(await bookOf({ Names: [] }), null)).toMatchObject({ code: 'nothing-to-read' });
  });
  test('more rows than are taken', async () => {
    const content = await bookOf({ Names: Array.from({ length: 20 }, (_, i) => [`a${i}.com`]) });
    expect(await readWorkbook(content, null, { rows: 10 })).toMatchObject({ code: 'too-many-rows' });
  });
  test('one that says it unpacks to more than fits is not unpacked', async () => {
    const content = Buffer.from(await bookOf({ Names: [['a.com']] }));
    const at = content.indexOf('PK\u0001\u0002', 0, 'latin1');
    content.writeUInt32LE(0xfffffff0, at + 24);
    expect(await readWorkbook(content, null)).toMatchObject({ code: 'file-too-large' });
  });
});

describe('a workbook is written so that it is one', () => {
  const made = () =>
    writeWorkbook(
      'Names',
      ['Name', 'Term ends', 'Asking', 'Days'],
      [
        ['kelpkiln.com', parseTermEnd('2027-05-13'), amount(120_050, 'USD'), 40],
        ['=1+1', { at: instant('2027-05-13T10:15:00Z'), precision: 'instant' }, amount(1700, 'JPY'), null],
      ],
    );
  test('days as serials, amounts as figures (ISO/IEC 29500-1 sections 18.3.1.4 and 18.17.4)', async () => {
    const sheet = partOf(await made(), 'xl/worksheets/sheet1.xml');
    expect(sheet).toContain(`<v>${serial(Date.UTC(2027, 4, 13))}</v>`);
    expect(sheet).toContain('<v>1200.5</v>');
    expect(sheet).toContain('<v>1700</v>');
    // A text that looks like a formula stays a text.
    expect(sheet).not.toContain('<f>');
  });
  test('and is read back with its currencies', async () => {
    expect(await cellsOf(await made())).toEqual([
      ['Name', 'Term ends', 'Asking', 'Days'],
      ['kelpkiln.com', '2027-05-13', '1200.5 USD', '40'],
      ['=1+1', '2027-05-13 10:15:00', '1700 JPY', ''],
    ]);
  });
});
