import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { type DateOrder, DateOrders, formatTermEnd, readDate } from '@/core/time';
import { decodeText } from './decodeText';
import { areNumbersOpen, numbersOf, styleOfColumn } from './numberCells';
import { readTable } from './readTable';
import { defuse, undefuse, writeRows, writeRowsOf, writeTable } from './writeTable';

describe('the encoding of a file is found', () => {
  const text = 'name,notes\nmöwenkai.de,Krähe und Möwe\n';
  const utf16 = (bigEndian: boolean, mark: boolean) => {
    const bytes = Buffer.from((mark ? '\ufeff' : '') + text, 'utf16le');
    return bigEndian ? bytes.swap16() : bytes;
  };
  test.each([
    ['UTF-8', Buffer.from(text)],
    ['UTF-8', Buffer.from(`\ufeff${text}`)],
    ['UTF-16LE', utf16(false, true)],
    ['UTF-16LE', utf16(false, false)],
    ['UTF-16BE', utf16(true, true)],
    ['UTF-16BE', utf16(true, false)],
    ['Latin-1', Buffer.from(text, 'latin1')],
  ])('%s', (encoding, bytes) => {
    expect(decodeText(bytes)).toEqual({ text, encoding });
  });
  test('a file of Windows-1252 keeps its euro, dashes and quotes (WHATWG Encoding, index windows-1252)', () => {
    const bytes = Uint8Array.from([
      0x31, 0x32, 0x2c, 0x35, 0x30, 0x20, 0x80, 0x20, 0x96, 0x20, 0x93, 0x8a, 0x94, 0x20, 0xe9,
    ]);
    expect(decodeText(bytes)).toEqual({ text: '12,50 € – “Š” é', encoding: 'Latin-1' });
  });
});

describe('tables of any delimiter are read with their lines', () => {
  test.each([',', ';', '\t', '|'])('%j', (delimiter) => {
    const table = readTable(
      [
        ['name', 'notes'],
        ['a.com', `"one${delimiter}\ntwo"`],
        ['b.com', 'x'],
      ]
        .map((cells) => cells.join(delimiter))
        .join('\r\n'),
    );
    if (isRefusal(table)) throw new Error(table.message);
    expect(table.rows.map((row) => row.line)).toEqual([1, 2, 4]);
    expect(table.rows[1]?.cells[1]).toBe(`one${delimiter}\ntwo`);
  });
  test.each(['\t', ';', '|'])('two columns and one row are enough: %j', (delimiter) => {
    for (const lines of [
      ['kelpkiln.com', '1,200.50'],
      ['name', 'price', 'kelpkiln.com', '12,50'],
      ['a.com', '2', '', ''],
    ]) {
      const text = Array.from({ length: lines.length / 2 }, (_, i) =>
        lines.slice(2 * i, 2 * i + 2).join(delimiter),
      ).join('\n');
      expect(readTable(`${text}\n`), text).toMatchObject({ delimiter, columns: 2 });
    }
  });
  test('a quote that never closes is refused with its line', () => {
    expect(readTable('name,notes\na.com,fine\nb.com,"never\nc.com,x')).toMatchObject({
      code: 'quote-not-closed',
      message: expect.stringContaining('line 3'),
    });
  });
  test('a million columns are refused', () => {
    expect(readTable(`${'x,'.repeat(1_000_000)}x\n`)).toMatchObject({ code: 'too-many-columns' });
  });
  test('nothing at all is refused', () => {
    expect(readTable(' \n\n , , \n')).toMatchObject({ code: 'nothing-to-read' });
  });
});

describe('dates', () => {
  const read = (cell: string, order: DateOrder | null = null) => {
    const date = readDate(cell, order);
    return isRefusal(date) ? date.code : formatTermEnd(date);
  };
  test.each([
    ['2027-05-13', '2027-05-13'],
    ['2027/5/13', '2027-05-13'],
    ['20270513', '2027-05-13'],
    ['13-May-2027', '2027-05-13'],
    ['13 May 2027', '2027-05-13'],
    ['Thu, 13 May 2027 10:15:00 GMT', '2027-05-13T10:15:00Z'],
    ['May 13, 2027', '2027-05-13'],
    ['05/13/2027', '2027-05-13'],
    ['13.05.2027', '2027-05-13'],
    ['13/05/98', '1998-05-13'],
    ['05/05/2027', '2027-05-05'],
    ['13. Mai 2027', '2027-05-13'],
    ['13 mai 2027', '2027-05-13'],
    ['13 de mayo de 2027', '2027-05-13'],
    ['13 maj 2027', '2027-05-13'],
    ['13 maggio 2027', '2027-05-13'],
    ['13 mei 2027', '2027-05-13'],
    ['13 de maio de 2027', '2027-05-13'],
    ['13 maja 2027', '2027-05-13'],
    ['13 Mayıs 2027', '2027-05-13'],
    ['2027年5月13日', '2027-05-13'],
    ['2027-05-13T10:15:00Z', '2027-05-13T10:15:00Z'],
    ['2027-05-13T10:15:00.250+02:00', '2027-05-13T08:15:00.250Z'],
    ['2027-05-13 10:15:00 UTC', '2027-05-13T10:15:00Z'],
    ['2027-05-13 10:15', '2027-05-13T10:15:00Z'],
    ['05/13/2027 1:05 PM', '2027-05-13T13:05:00Z'],
    ['13-May-2027 12:00 AM -0500', '2027-05-13T05:00:00Z'],
  ])('%s is %s', (cell, expected) => {
    expect(read(cell)).toBe(expected);
  });
  test.each([
    ['05/06/2027', 'date-ambiguous'],
    ['27-05-13', 'date-ambiguous'],
    ['28-01-31', 'date-ambiguous'],
    ['13.05.27', 'date-ambiguous'],
    ['30 Feb 2027', 'date-does-not-exist'],
    ['2027-02-30', 'date-does-not-exist'],
    ['29.02.2027', 'date-does-not-exist'],
    ['1969-12-31', 'date-out-of-range'],
    ['9999-12-31', 'date-out-of-range'],
    ['2027-05-13 25:00', 'date-does-not-exist'],
    ['2027-05-13 10:15 PST', 'zone-not-read'],
    ['soon', 'date-not-read'],
    ['13 Smarch 2027', 'date-not-read'],
  ])('%s is refused: %s', (cell, code) => {
    expect(read(cell)).toBe(code);
  });
  test('the order decides what can be read two ways, and nothing else', () => {
    expect(read('05/06/2027', 'day first')).toBe('2027-06-05');
    expect(read('05/06/2027', 'month first')).toBe('2027-05-06');
    expect(read('13/05/2027', 'month first')).toBe('date-does-not-exist');
    expect(read('27-05-13', 'year first')).toBe('2027-05-13');
    expect(read('27-05-13', 'day first')).toBe('2013-05-27');
    expect(read('28-01-31', 'year first')).toBe('2028-01-31');
  });
  test.each([
    [['05/13/2027', '06/07/2027'], 'month first'],
    [['13/05/2027', '06/07/2027'], 'day first'],
    [['05/06/2027', '06/07/2027'], 'either'],
    [['05/05/2027', '13-May-2027', ''], 'not needed'],
    [['13/05/2027', '05/13/2027'], 'contradictory'],
    [['27-05-13', '28-01-31'], 'either'],
    [['27-05-13', '27-12-32'], 'day first'],
    [['27-05-13', '99-05-13'], 'year first'],
    [['13-05-27', '31-12-99'], 'day first'],
  ])('a column with %j is %s', (cells, found) => {
    const orders = new DateOrders();
    for (const cell of [...cells, ...cells]) orders.look(cell);
    expect(orders.found).toBe(found);
  });
});

describe('a column of amounts shows how it is written, or the office does', () => {
  test.each([
    [['12,50', '1.200', '7'], 'comma'],
    [['12.50', '1,200'], 'point'],
    [['$1,234.50'], 'point'],
    [['1.234,50 €'], 'comma'],
    [['1.200', '2.400 EUR'], 'open point'],
    [['1,200'], 'open comma'],
    [['1.200', '1,200'], 'open both'],
    [['1200', '7', '', 'n/a'], 'not needed'],
    [['0,990'], 'not needed'],
    [['12.50', '12,50'], 'not needed'],
  ] as const)('%j: %s', (cells, found) => {
    expect(numbersOf(cells)).toBe(found);
  });
  test.each([
    ['open point', '1,234.50', true],
    ['open point', '1.234,50', false],
    ['open comma', '1,234.50', false],
    ['open comma', '1.234,50', true],
    ['open comma', '1 234,50', true],
    ['open both', '1,234.50', true],
    ['comma', '1,234.50', false],
  ] as const)('%s where the office writes %s: asked %s', (found, office, asked) => {
    expect(areNumbersOpen(found, office)).toBe(asked);
  });
  test('what the cells show outranks what the office writes', () => {
    expect(styleOfColumn('comma', '1,234.50')).toBe('1.234,50');
    expect(styleOfColumn('comma', '1 234,50')).toBe('1 234,50');
    expect(styleOfColumn('point', '1.234,50')).toBe('1,234.50');
    expect(styleOfColumn('not needed', '1’234.50')).toBe('1’234.50');
  });
});

describe('cells that a spreadsheet would run are defused', () => {
  test.each(['=1+1', '+cmd', '-cmd', '@sum', '\t=1', '＝1+1', '＠sum', '=HYPERLINK("x")'])('%j', (cell) => {
    expect(defuse(cell)).toBe(`'${cell}`);
    expect(undefuse(defuse(cell))).toBe(cell);
  });
  test('plain numbers stay numbers', () => {
    expect([defuse('-71'), defuse('11.38'), defuse("'quoted'")]).toEqual(['-71', '11.38', "'quoted'"]);
  });
  /** Against Papa Parse, which quotes by RFC 4180: its own rules for every cell, and ours for those that need a look. */
  test('rows are written as the package writes them, cell by cell', () => {
    const letters = ['a', 'ö', ',', '"', '\n', '\r', '=', '＝', '-', ';', ' ', '\t', '1', '.', '\ufeff', '\u00a0'];
    const cell = fc.string({ unit: fc.constantFrom(...letters), maxLength: 6 });
    fc.assert(
      fc.property(fc.array(fc.array(cell, { minLength: 2, maxLength: 5 }), { minLength: 1, maxLength: 6 }), (rows) => {
        const whole = Papa.unparse(
          rows.map((row) => row.map(defuse)),
          { newline: '\r\n' },
        );
        expect(writeRows(rows)).toBe(`${whole}\r\n`);
      }),
      { numRuns: 1000 },
    );
  });
  test('columns of which a cell may need a look are written as the rows are; those that never do as they are', () => {
    const cell = fc.string({ unit: fc.constantFrom('a', ',', '"', '\n', '=', '-', ' '), maxLength: 5 });
    const plain = fc.stringMatching(/^[a-z0-9.]{1,6}$/);
    fc.assert(
      fc.property(fc.array(fc.tuple(plain, cell, plain), { maxLength: 6 }), (rows) => {
        const columns = [0, 1, 2].map((at) => ({ isPlain: at !== 1, cell: (row: readonly string[]) => row[at] ?? '' }));
        expect(writeRowsOf(rows, columns)).toBe(writeRows(rows));
      }),
      { numRuns: 500 },
    );
  });
  test('a table in pieces has no empty line after its headings, which are defused too', () => {
    expect(writeTable(['=name', 'ends'], []) + writeRows([['a.com', '2027']])).toBe("'=name,ends\r\na.com,2027\r\n");
    expect(writeRows([])).toBe('');
  });
  test('a table reads back as it was written (RFC 4180)', () => {
    const cell = fc.string({ unit: fc.constantFrom('a', 'ö', ',', '"', '\n', '=', '-', ';', ' ', '1'), maxLength: 8 });
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 8 }), (rows) => {
        const text = writeTable(['one', 'two'], rows);
        const read = Papa.parse<string[]>(text.slice(0, -2), { delimiter: ',', newline: '\r\n' }).data.slice(1);
        expect(read.map((cells) => cells.map(undefuse))).toEqual(rows.map((cells) => cells.map(undefuse)));
      }),
    );
  });
});

test('a line feed within a line of another end counts, quoted or not: what is told of a row names its line', () => {
  const table = readTable('name,notes\r\na.com,one\r\nb.com,two\nof it\r\nc.com,three\r\n');
  if (isRefusal(table)) throw new Error(table.message);
  expect(table.rows.map(({ line, cells }) => [line, cells[0]])).toEqual([
    [1, 'name'],
    [2, 'a.com'],
    [3, 'b.com'],
    [5, 'c.com'],
  ]);
});
