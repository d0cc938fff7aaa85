import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { startApp, type TestApp } from './app';

let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true });
});
afterAll(() => app.close());

test('a name’s page says where it stands, what each day costs, and what has been spent', async () => {
  const { visitor } = app;
  await visitor.go('/ledger/kelpkiln.com');
  await visitor.see('Past its term for 18 days.');
  await visitor.see('Late renewal $11.38 until 20 Dec, then restore and a year $125.18.');
  await visitor.see('20 Dec last day to renew late');
  expect(await visitor.axe()).toEqual([]);

  const strip = await visitor.driver.findElement({ css: '[role=slider][aria-label^="A day"]' });
  await visitor.driver.executeScript('arguments[0].focus()', strip);
  await visitor.keys(Key.PAGE_UP);
  await visitor.see('24 Dec: redemption, restore by 19 Jan 2027, $125.18 to keep it');

  await visitor.press('Add an entry…');
  await visitor.fill('Amount spent', '12.50');
  await visitor.fill('Reference', 'L-9');
  await visitor.press('Enter it');
  await visitor.see('L-9');
  await visitor.press('Take back renewal of 24 Nov 2026');
  await visitor.see('A counter-entry of −$12.50 is written');
  await visitor.press('Take it back');
  await visitor.see('(taken back)');
  const { rows } = await app.ledger.database.query(
    "select sum(minor) as sum, count(*) as n from entries where on_day = '2026-11-24'",
  );
  expect(rows[0]).toEqual({ sum: 0, n: 2 });
});

test('auto-renew by hand is asked first, and confirmed by what was seen', async () => {
  const { visitor } = app;
  await visitor.go('/ledger/copperbuoy.com');
  await visitor.press('Auto-renew…');
  await visitor.see('Log in to Quaymark Names BV and switch auto-renew on');
  await visitor.press('Requested, confirm later');
  await visitor.see('requested: on');
  await visitor.click('Renewals');
  await visitor.see('copperbuoy.com');
  await visitor.go('/ledger/copperbuoy.com');
  await visitor.press('Auto-renew…');
  await visitor.fill('What you saw (evidence)', 'list at the registrar');
  await visitor.press('It is on now: confirm');
  await visitor.see('confirmed since 24 Nov: list at the registrar');
  await visitor.see('Asked for auto-renew on on one name');
});

test('whether a name can be transferred, from when, and what stands against it', async () => {
  const { visitor } = app;
  await visitor.go('/ledger/kelpkiln.com');
  await visitor.see('It cannot be transferred: past its term, renew it first.');
  await visitor.go('/ledger/tidewick.com');
  await visitor.see('13 Jan 2027 best day to transfer');
  await visitor.see('Take the lock off first.');
  await visitor.see('the lock is on');
  await visitor.see('No account is cheaper for it over 5 years.');
  expect(await visitor.axe()).toEqual([]);
});

test('looking ahead on a name’s page disables what would act', async () => {
  const { visitor } = app;
  await visitor.go('/ledger/osierandoak.com');
  await visitor.see('In redemption.');
  await visitor.driver.executeScript('document.activeElement.blur()');
  for (let i = 0; i < 4; i += 1) await visitor.keys(']');
  await visitor.see('As of 22 Dec 2026, if nothing is done.');
  await visitor.see('Available to anyone since');
  const edit = await visitor.see('Edit…');
  expect(await edit.getAttribute('data-disabled')).toBe('true');
});

test('a name that is not in the ledger, and a page that is not there', async () => {
  const { visitor } = app;
  await visitor.go('/ledger/nosuchname.com');
  await visitor.see('nosuchname.com is not in the ledger.');
  await visitor.go('/ledger/mail.kelpkiln.com');
  await visitor.see('Did you mean kelpkiln.com?');
});

test('facts are edited where they are read, each with its evidence, by keyboard alone', async () => {
  const { visitor, ledger } = app;
  await visitor.go('/ledger/copperbuoy.com');
  await visitor.see('What the ledger knows');
  const pencil = await visitor.driver.findElement({ css: 'button[aria-label="Edit term ends"]' });
  await visitor.driver.executeScript('arguments[0].focus()', pencil);
  await visitor.keys(Key.ENTER);
  await visitor.keys(Key.chord(Key.CONTROL, 'a'), '11 Dec 2026', Key.ENTER);
  await visitor.see('Set dates on one name.');
  const pencilOfAsking = await visitor.driver.findElement({ css: 'button[aria-label="Edit asking"]' });
  await visitor.driver.executeScript('arguments[0].focus()', pencilOfAsking);
  await visitor.keys(Key.ENTER);
  await visitor.keys(Key.chord(Key.CONTROL, 'a'), '1250', Key.ENTER);
  await visitor.see('Set asking price on one name.');
  await visitor.press('Edit lock');
  await visitor.choose('lock', 'off');
  await visitor.fill('Where you saw it', 'the panel at 10:40');
  await visitor.press('Save');
  await visitor.see('Confirmed lock off on one name.');
  expect(await visitor.axe()).toEqual([]);
  const { rows } = await ledger.database.query(
    "select term_end, asking_minor, lock from names where ascii = 'copperbuoy.com'",
  );
  expect(rows).toEqual([{ term_end: Date.parse('2026-12-11T00:00:00Z'), asking_minor: 125_000, lock: false }]);
  const { rows: evidence } = await ledger.database.query(
    "select distinct c.evidence from changes c join names n on n.id = c.name_id where n.ascii = 'copperbuoy.com' and c.evidence is not null order by 1",
  );
  expect(evidence.map((one) => one.evidence)).toContain('the panel at 10:40');
});
