import ExcelJS from 'exceljs';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { upsertSettings } from '@/database/settings';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { mendRow } from '@/usecases/imports/mendRow';
import { chooseRows, importRows, importSummary, writtenImports } from '@/usecases/imports/preview';
import { beginImport, readImport } from '@/usecases/imports/readImport';
import { writeImport } from '@/usecases/imports/writeImport';
import { exportXlsx } from '@/usecases/names/export';
import { nameOn } from '@/usecases/names/one';
import { undo } from '@/usecases/names/undo';
import { emptyLedger, type TestLedger } from './ledger';

let ledger: TestLedger;
beforeEach(async () => {
  ledger = await emptyLedger();
});
afterEach(() => ledger.close());

const bytes = (text: string) => new TextEncoder().encode(text);
/** Takes a list in and reads it as proposed. Answers its id. */
async function preview(content: string | Uint8Array, accountLabel: string | null = null): Promise<string> {
  const begun = await beginImport(ledger, {
    content: typeof content === 'string' ? bytes(content) : content,
    source: 'list',
    accountLabel,
  });
  if (isRefusal(begun)) throw new Error(begun.message);
  const read = await readImport(ledger, begun.id, begun.options);
  if (isRefusal(read)) throw new Error(read.message);
  return begun.id;
}
const summary = async (id: string) => {
  const found = await importSummary(ledger, id);
  if (isRefusal(found)) throw new Error(found.message);
  return found;
};
const accountOf = async (ascii: string) => {
  const found = await nameOn(ledger, ascii, new URLSearchParams());
  return isRefusal(found) ? found.code : found.account;
};
const atOnce = (text: string, more: object = {}) =>
  importAtOnce(ledger, {
    content: bytes(text),
    account: null,
    dateOrder: null,
    fullList: false,
    allowPrivateEndings: false,
    dryRun: false,
    ...more,
  });

describe('a name that two lists put at two registrars', () => {
  const WRACKGATE = 'name,account,expires\nkelpkiln.com,Wrackgate,2027-01-01\nseaholly.com,Wrackgate,2027-01-01';
  beforeEach(async () => {
    await writeImport(ledger, await preview('name,account,expires\nkelpkiln.com,Quaymark,2027-01-01'));
  });

  test('is a question: left where it is unless somebody says that it moved', async () => {
    const id = await preview(WRACKGATE);
    expect((await summary(id)).counts).toMatchObject({
      new: { rows: 1 },
      changed: { rows: 0 },
      conflict: { rows: 1, taken: 0 },
    });
    expect(await importRows(ledger, id, 'conflict', null, 0)).toMatchObject([
      { ascii: 'kelpkiln.com', before: { account: 'Quaymark' }, after: { account: 'Wrackgate' } },
    ]);
    await writeImport(ledger, id);
    expect([await accountOf('kelpkiln.com'), await accountOf('seaholly.com')]).toEqual(['Quaymark', 'Wrackgate']);
  });

  test('moves when it is taken', async () => {
    const id = await preview(WRACKGATE);
    await chooseRows(ledger, id, 'conflict', ['kelpkiln.com'], true);
    expect(await writeImport(ledger, id)).toMatchObject({ added: 1, changed: 1 });
    expect(await accountOf('kelpkiln.com')).toBe('Wrackgate');
  });

  test('another program says so too', async () => {
    expect(await atOnce(WRACKGATE)).toMatchObject({ new: 1, changed: 0, conflicts: 1 });
    expect(await accountOf('kelpkiln.com')).toBe('Quaymark');
    expect(await atOnce(WRACKGATE, { takeMoves: true })).toMatchObject({ conflicts: 1 });
    expect(await accountOf('kelpkiln.com')).toBe('Wrackgate');
  });

  test('one whose account nobody had said is put where the list says', async () => {
    await atOnce('tarbarrel.org');
    expect(await accountOf('tarbarrel.org')).toBe('No account yet');
    expect(await atOnce('name,account\ntarbarrel.org,Wrackgate')).toMatchObject({ changed: 1, conflicts: 0 });
    expect(await accountOf('tarbarrel.org')).toBe('Wrackgate');
  });
});

describe('a refused row is mended where it stands', () => {
  const LIST = 'name,expires\nmail.seaholly.com,2027-01-01\nkelpkiln.com,2027-01-01\nkelpkiln.com,2028-01-01';

  test('with a cell written anew', async () => {
    const id = await preview(LIST);
    expect(
      await mendRow(ledger, id, { line: 2, cells: ['still.mail.seaholly.com', ''], isInstead: false }),
    ).toMatchObject({ code: 'name-is-host' });
    expect(
      await mendRow(ledger, id, { line: 2, cells: ['seaholly.com', '2027-01-01'], isInstead: false }),
    ).toMatchObject({ status: 'ready' });
    expect((await summary(id)).counts).toMatchObject({ new: { rows: 2 }, refused: { rows: 1 } });
    expect(await writeImport(ledger, id)).toMatchObject({ added: 2 });
  });

  test('the other of two rows of one name is taken instead', async () => {
    const id = await preview(LIST);
    const row = { line: 4, cells: ['kelpkiln.com', '2028-01-01'] };
    expect(await mendRow(ledger, id, { ...row, isInstead: false })).toMatchObject({
      code: 'name-twice',
      message: expect.stringContaining('there with 1 Jan 2027, here with 1 Jan 2028'),
    });
    await mendRow(ledger, id, { ...row, isInstead: true });
    await writeImport(ledger, id);
    expect(await nameOn(ledger, 'kelpkiln.com', new URLSearchParams())).toMatchObject({ expiresOn: '2028-01-01' });
  });

  test('what was chosen of other rows stays chosen', async () => {
    await atOnce('name,account\ntarbarrel.org,Quaymark');
    const id = await preview('name,account\ntarbarrel.org,Wrackgate\nmail.seaholly.com,Wrackgate');
    await chooseRows(ledger, id, 'conflict', null, true);
    await mendRow(ledger, id, { line: 3, cells: ['seaholly.com', 'Wrackgate'], isInstead: false });
    expect((await summary(id)).counts).toMatchObject({ conflict: { taken: 1 }, new: { rows: 1 } });
  });
});

test('a new account is named on the preview, and made when the list is written', async () => {
  const begun = await beginImport(ledger, { content: bytes('seaholly.com'), source: 'pasted' });
  if (isRefusal(begun)) throw new Error(begun.message);
  await readImport(ledger, begun.id, { ...begun.options, accountLabel: 'Larkhythe' });
  const accounts = async () => (await ledger.database.query('select label from accounts')).rows;
  expect(await accounts()).toEqual([]);
  await writeImport(ledger, begun.id);
  expect(await accounts()).toEqual([{ label: 'Larkhythe' }]);
  expect(await accountOf('seaholly.com')).toBe('Larkhythe');
});

test('an import is taken back from its page, and says that it was', async () => {
  const id = await preview('seaholly.com\nkelpkiln.com', 'Quaymark');
  await writeImport(ledger, id);
  expect((await summary(id)).row).toMatchObject({ undone: false, options: { written: { added: 2 } } });
  expect(await writtenImports(ledger)).toMatchObject([{ id, undone: false }]);
  await undo(ledger, (await summary(id)).row.batchId as number);
  expect((await summary(id)).row).toMatchObject({ status: 'done', undone: true });
  expect(await accountOf('seaholly.com')).toBe('name-not-in-ledger');
});

describe('amounts that can be read two ways', () => {
  const LIST = 'name;asking\nkelpkiln.com;1.200\nseaholly.com;2.400';
  const asking = async (ascii: string) => {
    const found = await nameOn(ledger, ascii, new URLSearchParams());
    return isRefusal(found) ? found.code : found.asking?.amount;
  };
  test('are asked about once for the column', async () => {
    expect(await atOnce(LIST)).toMatchObject({ code: 'amounts-ambiguous', field: 'decimalMark' });
    await atOnce(LIST, { decimalMark: 'comma' });
    expect(await asking('kelpkiln.com')).toBe('1200.00');
  });
  test('are decided by how the office writes', async () => {
    await upsertSettings(ledger.database, { numberStyle: '1.234,50' });
    await atOnce(LIST);
    expect(await asking('seaholly.com')).toBe('2400.00');
  });
  test('a mark that is none is refused', async () => {
    expect(await atOnce(LIST, { decimalMark: 'dot' })).toMatchObject({ code: 'query-invalid' });
    expect(await atOnce(LIST, { dateOrder: 'week' })).toMatchObject({ code: 'query-invalid' });
  });
});

describe('workbooks go through the same preview', () => {
  async function book() {
    const made = new ExcelJS.Workbook();
    made.addWorksheet('Read me').addRow(['Names of the harbour office']);
    made.addWorksheet('Names').addRows([
      ['Domain', 'Expires', 'Asking'],
      ['kelpkiln.com', new Date(Date.UTC(2027, 4, 13)), 1200.5],
      ['seaholly.com', new Date(Date.UTC(2028, 0, 31)), 950],
    ]);
    return new Uint8Array(await made.xlsx.writeBuffer());
  }

  test('the sheet is chosen, its days and figures are exact', async () => {
    const begun = await beginImport(ledger, { content: await book(), source: 'names.xlsx', accountLabel: 'Quaymark' });
    if (isRefusal(begun)) throw new Error(begun.message);
    expect(begun.options).toMatchObject({
      sheet: 'Read me',
      sheets: [{ name: 'Read me' }, { name: 'Names', rows: 3 }],
    });
    expect(await readImport(ledger, begun.id, begun.options)).toMatchObject({ code: 'no-name-column' });
    expect(await readImport(ledger, begun.id, { ...begun.options, sheet: 'Names' })).toMatchObject({ status: 'ready' });
    await writeImport(ledger, begun.id);
    expect(await nameOn(ledger, 'kelpkiln.com', new URLSearchParams())).toMatchObject({
      expiresOn: '2027-05-13',
      asking: { amount: '1200.50', currency: 'USD' },
    });
  });

  test('what is exported as a workbook comes in again without a change', async () => {
    await atOnce(
      'name,account,expires,registered,asking,renewal price,auto,notes\nkelpkiln.com,Quaymark,2027-05-13T10:15:00Z,2019-05-13,1200.50 EUR,11.38,on,=1+1\nseaholly.com,Quaymark,2028-01-31,,,11.38,off,',
    );
    const file = await exportXlsx(
      ledger,
      new URLSearchParams({ columns: 'name,account,termEnd,registered,asking,perYear,auto,notes' }),
    );
    if (isRefusal(file)) throw new Error(file.message);
    const again = await importAtOnce(ledger, {
      content: file,
      account: null,
      dateOrder: null,
      fullList: false,
      allowPrivateEndings: false,
      dryRun: false,
    });
    expect(again).toMatchObject({ new: 0, changed: 0, unchanged: 2, notes: [] });
  });
});
