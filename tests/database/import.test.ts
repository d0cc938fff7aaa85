import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { addDays } from '@/core/time';
import { dropOldImports } from '@/usecases/imports/cleanUp';
import { type ImportResult, importAtOnce } from '@/usecases/imports/importAtOnce';
import { chooseRows, importRows, refusedRowsCsv } from '@/usecases/imports/preview';
import { beginImport, readImport } from '@/usecases/imports/readImport';
import { writeImport } from '@/usecases/imports/writeImport';
import { nameDetail } from '@/usecases/names/detail';
import { exportCsv } from '@/usecases/names/export';
import { nameOn } from '@/usecases/names/one';
import { undo } from '@/usecases/names/undo';
import { emptyLedger, type TestLedger, TODAY } from './ledger';

let ledger: TestLedger;
beforeAll(async () => {
  ledger = await emptyLedger();
});
afterAll(() => ledger.close());

const bring = async (text: string | Uint8Array, more: Partial<Parameters<typeof importAtOnce>[1]> = {}) =>
  importAtOnce(ledger, {
    content: typeof text === 'string' ? new TextEncoder().encode(text) : text,
    account: null,
    dateOrder: null,
    fullList: false,
    allowPrivateEndings: false,
    dryRun: false,
    ...more,
  });
const counts = (result: ImportResult | { code: string }) =>
  'new' in result ? [result.new, result.changed, result.unchanged, result.missing, result.refused.length] : result.code;
const name = async (ascii: string) => nameOn(ledger, ascii, new URLSearchParams());
const count = async (table: string) =>
  (await ledger.database.query(`select count(*) as n from ${table}`)).rows[0].n as number;

const LIST = `Domain,Account,Registered,Expires,Auto-renew,Renewal price,Currency,Asking,Tags,Price paid
kelpkiln.com,Quaymark,2019-11-06T10:15:00Z,2026-11-06T10:15:00Z,stalled,11.38,USD,3800,"craft, fire",640
copperbuoy.com,Quaymark,2022-12-09,9 Dec 2026,off,11.38,USD,2750,coast,
windroseyard.com,quaymark,2020-01-03,2027-01-03,no,62.00,USD,,,
plumbline.uk,Larkhythe,2022-01-08,2027-01-08,on,8.40,GBP,,,`;

describe('a list comes in', () => {
  test('new names, their accounts, prices paid and renewal prices', async () => {
    expect(counts(await bring(LIST))).toEqual([4, 0, 0, 0, 0]);
    expect((await ledger.database.query('select label, rules_known from accounts order by label')).rows).toEqual([
      { label: 'Larkhythe', rules_known: false },
      { label: 'Quaymark', rules_known: false },
    ]);
    expect(await name('kelpkiln.com')).toMatchObject({
      account: 'Quaymark',
      registeredAt: '2019-11-06T10:15:00Z',
      expiresAt: '2026-11-06T10:15:00Z',
      phase: 'late',
      tags: ['craft', 'fire'],
      autoRenew: { setting: 'stalled', standing: 'believed' },
      spent: [{ amount: '640.00', currency: 'USD' }],
      marks: {
        termEnd: '2026-11-06T10:15:00Z',
        deletion: '2026-12-21T10:15:00Z',
        redemptionEnds: '2027-01-20T10:15:00Z',
        release: '2027-01-25T10:15:00Z',
      },
      deadline: {
        at: '2026-12-21T10:15:00Z',
        kind: 'restore',
        now: { amount: '11.38', currency: 'USD' },
        then: { amount: '125.18', currency: 'USD' },
      },
    });
  });

  test('the price most names carry is the ending’s, another is the name’s own; both are marked as inferred', async () => {
    const { rows } = await ledger.database.query(
      'select ending, name_id is not null as own, year_minor, origin from prices order by ending, own',
    );
    expect(rows).toEqual([
      { ending: 'com', own: false, year_minor: 1138, origin: 'inferred' },
      { ending: 'com', own: true, year_minor: 6200, origin: 'inferred' },
      { ending: 'uk', own: false, year_minor: 840, origin: 'inferred' },
    ]);
  });

  test('the same file again changes nothing', async () => {
    const before = [await count('changes'), await count('entries'), await count('prices')];
    expect(counts(await bring(LIST))).toEqual([0, 0, 4, 0, 0]);
    expect([await count('changes'), await count('entries'), await count('prices')]).toEqual(before);
  });

  test('a dry run writes nothing', async () => {
    expect(counts(await bring('name,account\nnewone.com,Nowhere', { dryRun: true }))).toEqual([1, 0, 0, 0, 0]);
    expect(await name('newone.com')).toMatchObject({ code: 'name-not-in-ledger' });
    expect(await count('accounts')).toBe(2);
  });

  test('what changed is changed field by field, with the history of both', async () => {
    expect(
      counts(
        await bring('name,expires,asking\nkelpkiln.com,2027-11-06T10:15:00Z,3800\ncopperbuoy.com,9 Dec 2026,2500'),
      ),
    ).toEqual([0, 2, 0, 0, 0]);
    const { rows } = await ledger.database.query(
      `select c.before, c.after, c.evidence from changes c join names n on n.id = c.name_id where n.ascii = 'copperbuoy.com' order by c.id desc limit 1`,
    );
    expect(rows).toEqual([{ before: { asking_minor: 275_000 }, after: { asking_minor: 250_000 }, evidence: 'line 3' }]);
  });

  test('a date that only repeats a known instant, without its time, changes nothing', async () => {
    expect(counts(await bring('name,expires,registered\nkelpkiln.com,2027-11-06,6 Nov 2019'))).toEqual([0, 0, 1, 0, 0]);
    expect(counts(await bring('name,expires\nkelpkiln.com,2027-11-09', { dryRun: true }))).toEqual([0, 1, 0, 0, 0]);
  });

  test('a name that another list has brought meanwhile was paid for once: what was previewed puts it right', async () => {
    const begun = await beginImport(ledger, {
      content: Buffer.from('name,price paid\nsternpostlane.com,70'),
      source: 'pasted',
    });
    if (isRefusal(begun)) throw new Error(begun.message);
    await readImport(ledger, begun.id, begun.options);
    expect(counts(await bring('name,price paid\nsternpostlane.com,50'))).toEqual([1, 0, 0, 0, 0]);
    await writeImport(ledger, begun.id);
    expect(await name('sternpostlane.com')).toMatchObject({ spent: [{ amount: '70.00', currency: 'USD' }] });
    await ledger.database.query("delete from names where ascii = 'sternpostlane.com'");
  });

  test('a different price paid is put right by a counter-entry, never by a change', async () => {
    await bring('name,price paid\nkelpkiln.com,650');
    const { rows } = await ledger.database.query(
      "select minor, corrects is not null as counter from entries e join names n on n.id = e.name_id where n.ascii = 'kelpkiln.com' order by e.id",
    );
    expect(rows).toEqual([
      { minor: 64_000, counter: false },
      { minor: -64_000, counter: true },
      { minor: 65_000, counter: false },
    ]);
    await expect(ledger.database.query('update entries set minor = 1')).rejects.toThrow(/append-only/);
  });

  test('names missing from a full list are offered as no longer there, and taken only when chosen', async () => {
    const begun = await beginImport(ledger, {
      content: new TextEncoder().encode('kelpkiln.com\ncopperbuoy.com'),
      source: 'list.txt',
      accountLabel: 'Quaymark',
    });
    if (isRefusal(begun)) throw new Error(begun.message);
    await readImport(ledger, begun.id, { ...begun.options, fullList: true });
    expect((await importRows(ledger, begun.id, 'missing', null, 0)).map((row) => [row.ascii, row.taken])).toEqual([
      ['windroseyard.com', false],
    ]);
    await chooseRows(ledger, begun.id, 'missing', ['windroseyard.com'], true);
    expect(await writeImport(ledger, begun.id)).toMatchObject({ added: 0, changed: 0, gone: 1 });
    expect(await name('windroseyard.com')).toMatchObject({ code: 'name-not-in-ledger' });
    expect(counts(await bring('windroseyard.com'))).toEqual([0, 1, 0, 0, 0]);
    expect(await name('windroseyard.com')).toMatchObject({ name: 'windroseyard.com' });
  });
});

describe('rows that cannot be taken are told with their line and reason', () => {
  const BAD =
    'name,expires,asking\nmail.seaholly.com,2027-01-01,\nseaholly.com,30 Feb 2027,\ntarbarrel.org,2027-01-01,-5\ntarbarrel.org,2027-01-01,\nTARBARREL.org.,2028-01-01,\n<b>x</b>.com,2027-01-01,';

  test('and the rest is written', async () => {
    const result = await bring(BAD);
    if (isRefusal(result)) throw new Error(result.message);
    expect(result.new).toBe(2);
    expect(result.refused.map(({ line, code }) => [line, code])).toEqual([
      [2, 'name-is-host'],
      [5, 'name-twice'],
      [6, 'name-twice'],
      [7, 'name-bad-letter'],
    ]);
    expect(result.refused.map(({ message }) => message)).toContain(
      'This name stands on line 4 already, there with 1 Jan 2027, here with 1 Jan 2028. Line 4 counts, unless you take this one.',
    );
    // A bad cell loses that cell, and is told.
    expect(result.notes.map(({ line, name: of }) => [line, of])).toEqual([
      [3, 'seaholly.com'],
      [4, 'tarbarrel.org'],
    ]);
  });

  test('the refused rows can be downloaded, mended and fed back', async () => {
    const begun = await beginImport(ledger, { content: new TextEncoder().encode(BAD), source: 'bad.csv' });
    if (isRefusal(begun)) throw new Error(begun.message);
    await readImport(ledger, begun.id, begun.options);
    const pages = await refusedRowsCsv(ledger, begun.id);
    if (isRefusal(pages)) throw new Error(pages.message);
    let csv = '';
    for await (const page of pages) csv += page;
    expect(csv.split('\r\n')[0]).toBe('name,expires,asking,refused because,line');
    const mended = csv.replace('mail.seaholly.com', 'brackenquay.com').replace('<b>x</b>.com', 'x.com');
    const result = await bring(mended);
    if (isRefusal(result)) throw new Error(result.message);
    expect([result.new, result.changed, result.refused.length]).toEqual([2, 0, 1]);
  });

  test('an ambiguous date column is asked about, never guessed', async () => {
    const text = 'name,expires\nhalyardbell.com,05/06/2027\noakumbell.com,07/08/2027';
    expect(await bring(text)).toMatchObject({ code: 'dates-ambiguous', message: expect.stringContaining('expires') });
    expect(counts(await bring(text, { dateOrder: 'day', dryRun: true }))).toEqual([2, 0, 0, 0, 0]);
    await bring(text, { dateOrder: 'month' });
    expect(await name('halyardbell.com')).toMatchObject({ expiresAt: '2027-05-06T00:00:00Z', expiresOn: '2027-05-06' });
  });

  test.each([
    ['an unclosed quote', 'name,notes\na.com,"x\nb.com,y', 'quote-not-closed'],
    ['no names', ' \n', 'nothing-to-read'],
    ['a million columns', `${'a.com,'.repeat(1_000_000)}\n`, 'too-many-columns'],
    ['100 MB', new Uint8Array(100 * 1024 * 1024), 'file-too-large'],
    ['no column of names', 'expires,asking\n2027-01-01,5', 'no-name-column'],
  ])('%s: nothing is written', async (_what, content, code) => {
    const before = await count('names');
    expect(counts(await bring(content))).toBe(code);
    expect(await count('names')).toBe(before);
  });

  test('SQL and HTML in every text stay text', async () => {
    const nasty = `'; drop table names; --<script>alert(1)</script>`;
    await bring(`name,account,tags,notes\nfoghornmill.com,"${nasty}","${nasty}","${nasty}"`);
    expect(await name('foghornmill.com')).toMatchObject({ account: nasty, notes: nasty });
  });
});

test('UTF-16 with a mark, semicolons and CRLF', async () => {
  const text = '\ufeffDomäne;Ablaufdatum;Notes\r\nmöwenspeicher.de;13.05.2027;Krähe\r\n';
  expect(counts(await bring(Buffer.from(text, 'utf16le')))).toEqual([1, 0, 0, 0, 0]);
  expect(await name('möwenspeicher.de')).toMatchObject({
    name: 'xn--mwenspeicher-4ib.de',
    unicode: 'möwenspeicher.de',
    notes: 'Krähe',
    ending: 'de',
  });
});

test('an import that breaks in the middle writes nothing, and can be tried again', async () => {
  const begun = await beginImport(ledger, {
    content: new TextEncoder().encode('thymequay.com\nthymemill.com'),
    source: 'list.txt',
    accountLabel: 'Quaymark',
  });
  if (isRefusal(begun)) throw new Error(begun.message);
  await readImport(ledger, begun.id, begun.options);
  await ledger.database.query('alter table names add constraint broken check (added_batch < 0) not valid');
  await expect(writeImport(ledger, begun.id)).rejects.toThrow();
  await ledger.database.query('alter table names drop constraint broken');
  expect(await name('thymequay.com')).toMatchObject({ code: 'name-not-in-ledger' });
  expect(await writeImport(ledger, begun.id)).toMatchObject({ added: 2 });
  expect(await writeImport(ledger, begun.id)).toMatchObject({ code: 'import-not-ready' });
});

test('export → import into an empty ledger → export is equal', async () => {
  const query = new URLSearchParams({
    columns: 'name,account,termEnd,registered,auto,asking,purpose,tags,lock,privacy,notes,perYear',
    sort: 'name',
  });
  const first = await exportCsv(ledger, query);
  if (typeof first !== 'string') throw new Error(first.message);
  const other = await emptyLedger();
  const brought = await importAtOnce(other, {
    content: Buffer.from(first),
    account: null,
    dateOrder: null,
    fullList: false,
    allowPrivateEndings: false,
    dryRun: false,
  });
  expect(brought).toMatchObject({ refused: [] });
  expect(await exportCsv(other, query)).toBe(first);
  await other.close();
});

test('an import is taken back: what it changed is as before, what it added leaves the views and stays in the books', async () => {
  const own = await emptyLedger();
  const list = (text: string) =>
    importAtOnce(own, {
      content: Buffer.from(text),
      account: 'Wrackgate',
      dateOrder: null,
      fullList: false,
      allowPrivateEndings: false,
      dryRun: false,
    });
  await list('name,expires,notes\nfoghornmill.com,2027-01-05,first');
  await list('name,expires,notes,price paid\nfoghornmill.com,2028-01-05,second,\nthymequay.com,2027-03-01,,640');
  const { rows } = await own.database.query('select max(id) as id from batches');
  expect(await undo(own, rows[0].id)).toMatchObject({ changed: 2 });
  const query = new URLSearchParams();
  expect(await nameOn(own, 'foghornmill.com', query)).toMatchObject({ expiresOn: '2027-01-05', notes: 'first' });
  expect(await nameOn(own, 'thymequay.com', query)).toMatchObject({ code: 'name-not-in-ledger' });
  expect((await own.database.query('select sum(minor) as paid, count(*) as n from entries')).rows).toEqual([
    { paid: 0, n: 2 },
  ]);
  expect(await undo(own, rows[0].id)).toMatchObject({ code: 'undo-done' });
  const detail = await nameDetail(own, 'foghornmill.com');
  if (isRefusal(detail)) throw new Error(detail.message);
  expect(detail.history.map((line) => [line.summary, line.before?.notes ?? null, line.after.notes])).toEqual([
    ['Taken back: Brought in from another program', 'second', 'first'],
    ['Brought in from another program', 'first', 'second'],
    ['Brought in from another program', null, 'first'],
  ]);
  await own.close();
});

test('a list that was brought in is deleted after a week, with its text and rows; what it wrote stays', async () => {
  const own = await emptyLedger();
  const list = { account: 'Bollard', dateOrder: null, fullList: false, allowPrivateEndings: false };
  await importAtOnce(own, { ...list, content: Buffer.from('seaholly.com'), dryRun: false });
  const begun = await beginImport(own, { content: Buffer.from('tarbarrel.com'), source: 'left open' });
  if (isRefusal(begun)) throw new Error(begun.message);
  const kept = async () =>
    (
      await own.database.query(
        'select (select count(*) from imports) as imports, (select count(*) from import_rows) as rows',
      )
    ).rows[0];
  expect(await dropOldImports(own)).toBe(0);
  expect(await kept()).toEqual({ imports: 2, rows: 1 });
  // A trial leaves nothing behind at all.
  await importAtOnce(own, { ...list, content: Buffer.from('kelpkiln.com'), dryRun: true });
  expect(await kept()).toEqual({ imports: 2, rows: 1 });
  own.setClock(addDays(TODAY, 8));
  expect(await dropOldImports(own)).toBe(2);
  expect(await kept()).toEqual({ imports: 0, rows: 0 });
  expect((await own.database.query('select ascii from names')).rows).toEqual([{ ascii: 'seaholly.com' }]);
  await own.close();
});
