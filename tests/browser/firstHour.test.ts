import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { startApp, type TestApp } from './app';

/** From an empty start to a forecast that rests on every name. */
let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: false });
});
afterAll(() => app.close());

test('an empty ledger asks three things, proposed from the browser', async () => {
  const { visitor } = app;
  // A browser in Portugal.
  await visitor.tell('Network.setUserAgentOverride', { userAgent: 'a browser', acceptLanguage: 'pt-PT' });
  await visitor.go('/');
  await visitor.see('Three questions, then your names.');
  expect(await (await visitor.field('Home currency')).getAttribute('value')).toBe('EUR');
  expect(await (await visitor.field('Time zone')).getAttribute('value')).toMatch(/\w/);
  expect(await visitor.axe()).toEqual([]);
  await visitor.fill('Home currency', 'dollars');
  await visitor.fill('Mail address', 'office@harbour.test');
  await visitor.press('Go on');
  await visitor.see('Write a currency code like USD.');
  await visitor.fill('Home currency', 'USD');
  await visitor.fill('Time zone', 'Europe/Lisbon');
  await visitor.press('Go on');
  await visitor.see('Which names do you own?');
  await visitor.see('reminders to office@harbour.test');
  // On a database of somebody's own there is no room for a demo beside it.
  await visitor.gone('Open the demo');
  expect(await visitor.axe()).toEqual([]);
});

test('a list is brought, and what is not known yet is asked for in one place', async () => {
  const { visitor } = app;
  await visitor.press('Bring your names');
  await visitor.fill('Names', 'seaholly.com 2027-01-08\nbrackenquay.net\ntarbarrel.org 2026-12-20');
  await visitor.choose('Account, where the list names none', 'A new account…');
  await visitor.fill('Label of the new account', 'Quaymark');
  await visitor.press('See what would be added');
  await visitor.press('Write 3 names');
  await visitor.see('3 names added');
  await visitor.go('/today');
  await visitor.see('Not known yet');
  await visitor.see('the forecast rests on 0 of 3 names');
  await visitor.press('one end of term');
  await visitor.see('Three names of 3 cannot be foretold yet.');
  expect(await visitor.axe()).toEqual([]);
});

test('it empties itself as things are said, and then the forecast is believed', async () => {
  const { visitor, ledger } = app;
  await visitor.fill('Term of brackenquay.net ends', '4 Mar 2027');
  await visitor.press('Save the ends');
  await visitor.gone('no end of term');
  for (const [ending, price] of [
    ['com', '11.38'],
    ['net', '13.10'],
    ['org', '12.20'],
  ])
    await visitor.fill(`A year of .${ending} at Quaymark`, price ?? '');
  await visitor.press('Save the prices');
  await visitor.gone('no renewal price');
  await visitor.press('All of them are on');
  await visitor.press('Save auto-renew');
  await visitor.gone('is not known');
  await visitor.see('charges 3 names and pays from');
  await visitor.fill('Balance at Quaymark', '20.00');
  await visitor.press('Save what they pay from');
  await visitor.see('The forecast rests on every name.');
  // The mail server is still to be said.
  await visitor.see('Reminders are to go to office@harbour.test');
  await visitor.press('Say it under Setup → Mail');
  expect(await (await visitor.field('To')).getAttribute('value')).toBe('office@harbour.test');
  await visitor.go('/today');
  // 20.00 pays for the first, and not for the second: 12.20 on 20 Dec, then 11.38.
  await visitor.see('One charge fails within 60 days');
  await visitor.gone('Not known yet');
  const { rows } = await ledger.database.query('select count(*) as n from names where setting = $1', ['on']);
  expect(rows[0]?.n).toBe(3);
});

test('all of it by keyboard: from Today to what is not known, said and gone', async () => {
  const { visitor, ledger } = app;
  await ledger.database.query("update names set term_end = null where ascii = 'seaholly.com'");
  await ledger.database.query('update revision set n = n + 1');
  await visitor.go('/today');
  const link = await visitor.see('one end of term');
  await visitor.driver.executeScript('arguments[0].focus()', link);
  await visitor.keys(Key.ENTER);
  await visitor.see('One name has no end of term');
  const field = await visitor.field('Term of seaholly.com ends');
  await visitor.driver.executeScript('arguments[0].focus()', field);
  await visitor.keys('8 Jan 2027', Key.ENTER);
  await visitor.gone('no end of term');
});

test('the ledger is emptied from the interface, and begins again without asking what is known', async () => {
  const { visitor } = app;
  await visitor.go('/setup/backup');
  await visitor.press('Empty the ledger…');
  await visitor.fill('Write 3, the number of names that are lost', '4');
  await visitor.press('Empty it');
  await visitor.see('The ledger holds 3 names. Write that number to empty it.');
  expect(await visitor.axe()).toEqual([]);
  await visitor.fill('Write 3, the number of names that are lost', '3');
  await visitor.press('Empty it');
  await visitor.see('Which names do you own?');
});
