import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { formatTermEnd } from '@/core/time';
import { dateOrderOf, readDateCell } from './dateCells';
import { decodeText } from './decodeText';
import { readMoneyCell } from './moneyCells';
import { readTable } from './readTable';
import { defuse, undefuse, writeTable } from './writeTable';

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
  const read = (cell: string, order: 'day first' | 'month first' | null = null) => {
    const date = readDateCell(cell, order);
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
    ['13.05.27', '2027-05-13'],
    ['13/05/98', '1998-05-13'],
    ['05/05/2027', '2027-05-05'],
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
  });
  test.each([
    [['05/13/2027', '06/07/2027'], 'month first'],
    [['13/05/2027', '06/07/2027'], 'day first'],
    [['05/06/2027', '06/07/2027'], 'either'],
    [['05/05/2027', '13-May-2027', ''], 'not needed'],
    [['13/05/2027', '05/13/2027'], 'contradictory'],
  ])('a column with %j is %s', (cells, found) => {
    expect(dateOrderOf(cells)).toBe(found);
  });
});

describe('amounts', () => {
  const read = (cell: string, currency = 'USD') => {
    const money = readMoneyCell(cell, currency);
    return isRefusal(money) ? money.code : `${money.minor} ${money.currency}`;
  };
  test.each([
    ['11.38', '1138 USD'],
    ['$1,200', '120000 USD'],
    ['1.200,50 €', '120050 EUR'],
    ['1,200.50', '120050 USD'],
    ['11,38', '1138 USD'],
    ['EUR 12', '1200 EUR'],
    ['12 gbp', '1200 GBP'],
    ["1'200.00", '120000 USD'],
    ['1 200,00', '120000 USD'],
    ['1,234,567', '123456700 USD'],
    ['0', '0 USD'],
    ['1.234.567', '123456700 USD'],
    ['1.200', 'money-ambiguous'],
    ['-5', 'money-negative'],
    ['(5.00)', 'money-negative'],
    ['1000000000000000000', 'money-too-much'],
    ['twelve', 'money-not-read'],
    ['12 XXQ', 'money-not-read'],
    ['11.3.8', 'money-ambiguous'],
  ])('%s: %s', (cell, expected) => {
    expect(read(cell)).toBe(expected);
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
