import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { startApp, type TestApp } from './app';
import { withoutNetwork } from './network';

let app: TestApp;
const folder = mkdtempSync(join(tmpdir(), 'name-ledger-files-'));
beforeAll(async () => {
  app = await startApp({ demo: false });
});
afterAll(() => app.close());

const choose = async (name: string, content: string | Buffer) => {
  const path = join(folder, name);
  writeFileSync(path, content);
  const input = await app.visitor.driver.findElement({ css: 'input[type=file]' });
  await input.sendKeys(path);
};

const LIST = `Domain;Where;Valid until;Price\r\nseaholly.com;Quaymark;05/06/2027;11,38\r\ntarbarrel.org;Wrackgate;07/08/2027;12,00\r\nmail.kelpkiln.com;Quaymark;03/04/2027;\r\n=cmd.com;Quaymark;03/04/2027;\r\n`;

test('a file with a column to correct and dates to ask about', async () => {
  const { visitor, ledger } = app;
  await visitor.go('/ledger/add');
  await visitor.see('Choose a file…');
  await choose('list.csv', Buffer.from(`\ufeff${LIST}`, 'utf16le'));
  await visitor.see('Say whether “Valid until” writes the day, the month or the year first.');
  await visitor.choose('Read Price as', 'renewal price');
  await visitor.choose('What stands first in Valid until', 'day first: 5/6 is 5 Jun');
  await visitor.see('2 names new, 0 changed, 0 unchanged, 2 refused');
  await visitor.see('Did you mean kelpkiln.com?');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Take tarbarrel.org');
  await visitor.press('Write one name');
  await visitor.see('one name added');
  expect((await ledger.database.query('select ascii, term_end_day, term_end from names')).rows).toEqual([
    { ascii: 'seaholly.com', term_end_day: true, term_end: Date.parse('2027-06-05T00:00:00Z') },
  ]);
  expect((await ledger.database.query("select year_minor from prices where origin = 'inferred'")).rows).toEqual([
    { year_minor: 1138 },
  ]);
});

test('the same headings again: the correction is remembered, and what is there already is unchanged', async () => {
  const { visitor } = app;
  await visitor.go('/ledger/add');
  await visitor.see('Choose a file…');
  await choose('again.csv', LIST);
  await visitor.see('one name new, 0 changed, 1 unchanged, 2 refused');
  await visitor.press('Leave it');
  await visitor.see('See what would be added');
});

test('a name whose price is not known says so, and a price set under Setup shows at once', async () => {
  const { visitor } = app;
  await visitor.go('/ledger/add');
  await visitor.fill('Names', 'brackenquay.net 2026-12-20');
  await visitor.choose('Account, where the list names none', 'Quaymark');
  await visitor.press('See what would be added');
  await visitor.press('Write one name');
  await visitor.press('To the ledger');
  await visitor.see('no price');
  await visitor.go('/setup/accounts');
  await visitor.see('these are usual rules: check them');
  await visitor.click('Quaymark');
  await visitor.fill('Ending, or a name for its own price', '.net');
  await visitor.fill('A year, USD', '12.90');
  await visitor.press('Set the price');
  await visitor.see('$12.90');
  await visitor.fill('Charges, days before the end', '500');
  await visitor.press('Save the account');
  await visitor.see('An account charges 0 to 90 days before the end.');
  await visitor.fill('Charges, days before the end', '15');
  await visitor.press('Save the account');
  await visitor.see('Account saved.');
  await visitor.go('/ledger');
  await visitor.see('13.10 → ≈144.10');
});

test('back up, restore into an empty ledger, and find everything again', async () => {
  const { visitor, url } = app;
  const backup = await (await fetch(`${url}/api/v1/backup`)).text();
  await visitor.go('/setup/backup');
  await visitor.see('Restore from a file…');
  await choose('backup.json', backup);
  await visitor.see('A backup goes into an empty ledger only.');
  // The browser itself tells of the refusal (409).
  expect(await visitor.consoleErrors()).toHaveLength(1);

  const other = await startApp({ demo: false });
  await other.visitor.go('/setup/backup');
  await other.visitor.see('Restore from a file…');
  await (await other.visitor.driver.findElement({ css: 'input[type=file]' })).sendKeys(join(folder, 'backup.json'));
  await other.visitor.see('Restored 2 names.');
  await other.visitor.go('/ledger');
  await other.visitor.see('brackenquay.net');
  expect(readFileSync(join(folder, 'backup.json'), 'utf8')).toBe(
    await (await fetch(`${other.url}/api/v1/backup`)).text(),
  );
  await other.close().catch(() => undefined);
});

test('rows of a preview that cannot be fetched or have gone say so, and are fetched again', async () => {
  const { visitor, ledger } = app;
  await visitor.go('/ledger/add');
  await visitor.fill('Names', 'seaholly.com 2027-06-05');
  await visitor.press('See what would be added');
  await visitor.see('0 changed, 1 unchanged');
  await withoutNetwork(visitor, true);
  await visitor.press('Show');
  await visitor.see('The rows could not be fetched.');
  expect(await visitor.axe()).toEqual([]);
  await withoutNetwork(visitor, false);
  // As a crash of the database leaves a list.
  const { rows } = await ledger.database.query('delete from import_rows returning *');
  await visitor.press('Try again');
  await visitor.see('The rows could not be fetched.');
  await ledger.database.query('insert into import_rows select * from jsonb_populate_recordset(null::import_rows, $1)', [
    JSON.stringify(rows.map(({ term_end, ...row }) => ({ ...row, term_end: new Date(term_end) }))),
  ]);
  await visitor.press('Try again');
  await visitor.see('seaholly.com');
  // The browser itself tells of what it could not fetch.
  expect((await visitor.consoleErrors()).every((told) => told.includes('ERR_INTERNET_DISCONNECTED'))).toBe(true);
  await visitor.press('Leave it');
});

test('requests from elsewhere are refused', async () => {
  const { url } = app;
  const elsewhere = await fetch(`${url}/api/v1/backup`, { headers: { origin: 'http://evil.example' } });
  expect(elsewhere.status).toBe(403);
});

test('Back after writing does not write twice', async () => {
  const { visitor, ledger } = app;
  await visitor.go('/ledger/add');
  await visitor.fill('Names', 'thymequay.com');
  await visitor.press('See what would be added');
  await visitor.press('Write one name');
  await visitor.press('To the ledger');
  await visitor.see('thymequay.com');
  await visitor.driver.navigate().back();
  await visitor.see('Written');
  await visitor.keys(Key.F5);
  expect((await ledger.database.query("select count(*) as n from names where ascii = 'thymequay.com'")).rows[0].n).toBe(
    1,
  );
});
