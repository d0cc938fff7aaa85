import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { startApp, type TestApp } from './app';

let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true, practice: true });
});
afterAll(() => app.close());

test('three names are rescued under a budget, by keyboard alone', async () => {
  const { visitor, ledger } = app;
  await visitor.go('/rescue');
  await visitor.see('In danger:');
  expect(await visitor.axe()).toEqual([]);
  await visitor.tabTo('Budget, USD');
  await visitor.keys('36');
  await visitor.pressByKey('Choose the best set');
  await visitor.see('3 names chosen');
  await visitor.see('$36.00 goes as far as 3 names.');
  await visitor.pressByKey('Renew 3 names for $35.36');
  await visitor.see('By link: 3 names');
  await visitor.gone('Asking the registrars what it costs now…');
  await visitor.see('One price differs from the price list.');
  await visitor.keys(Key.TAB);
  await visitor.pressByKey('Renew 3 names for $');
  await visitor.see('A renewal cannot be refunded.');
  await visitor.keys(Key.TAB);
  await visitor.driver.wait(
    async () => (await visitor.driver.switchTo().activeElement().getText()).startsWith('Renew for'),
    5000,
  );
  await visitor.keys(Key.ENTER);
  await visitor.see('By link: 3 of 3 renewed');
  await visitor.pressByKey('Close this run');
  await visitor.see('Confirmed.');
  // One of them costs more at its registrar than in the price list, as the run has said before it was confirmed.
  const { rows } = await ledger.database.query(
    "select n.ascii, e.minor from entries e join names n on n.id = e.name_id where e.reference ~ '^(quaymark|wrackgate|fernhithe)-' order by n.ascii",
  );
  expect(rows).toEqual([
    { ascii: 'cordagewharf.org', minor: 1340 },
    { ascii: 'kelpwharf.com', minor: 1138 },
    { ascii: 'petrelpilot.com', minor: 1138 },
  ]);
});

test('a restore whose report is refused is sent again', async () => {
  const { visitor, ledger, practice } = app;
  practice?.faults.set('quaymark', 'report refused', 1);
  await visitor.go('/ledger/brinelantern.com');
  await visitor.press('Restore for $125.18…');
  await visitor.gone('Asking the registrars what it costs now…');
  await visitor.press('Restore one name for $125.18…');
  await visitor.see('A restore cannot be refunded.');
  await visitor.see('it is lost after 26 Nov');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('I certify that this is true. The registrar passes it on as my statement.');
  await visitor.press('Restore for $125.18');
  await visitor.see('The report was refused');
  expect(await visitor.axe()).toEqual([]);
  await visitor.fill('Why it is restored', 'A card had ended unnoticed, so the charge failed.');
  await visitor.press('I certify that this is true. The registrar passes it on as my statement.');
  await visitor.press('Send the report again');
  await visitor.see('By link: 1 of 1 restored');
  await visitor.press('Close this run');
  await visitor.see('Confirmed.');
  const { rows } = await ledger.database.query(
    "select e.kind, e.minor, n.observed from entries e join names n on n.id = e.name_id where n.ascii = 'brinelantern.com' and e.kind = 'restore'",
  );
  expect(rows).toEqual([{ kind: 'restore', minor: 12_518, observed: null }]);
});

test('a name is dropped with a reason, and kept after all', async () => {
  const { visitor } = app;
  await visitor.go('/ledger?q=copperbuoy');
  await visitor.pick('copperbuoy.com');
  await visitor.press('More');
  await visitor.press('Drop…');
  await visitor.see('mail at mail.copperbuoy.com');
  await visitor.choose('Why', 'The idea is given up');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Drop copperbuoy.com');
  await visitor.see('Dropped one name: The idea is given up.');
  await visitor.go('/rescue');
  await visitor.see('Being dropped: 2 names');
  await visitor.see('The idea is given up');
  await visitor.press('Keep copperbuoy.com after all');
  await visitor.see('Kept after all: one name.');
  await visitor.see('Being dropped: one name');
});

test('all names are judged: what costs more than it may bring is dropped from there', async () => {
  const { visitor } = app;
  await visitor.go('/rescue/all');
  await visitor.see('a year.');
  expect(await visitor.axe()).toEqual([]);
  const rows = await visitor.driver.executeScript<string[]>(
    "return [...document.querySelectorAll('td.verdict b')].map((one) => one.textContent)",
  );
  // What should go first, then what nobody can say, then what pays for itself.
  const order = rows.map((verdict) => (verdict === 'Drop' ? 0 : verdict === 'Undecided' ? 1 : 2));
  expect(order).toEqual([...order].sort());
  expect(order[0]).toBe(0);
  const first = await visitor.text('td.name-cell a');
  await visitor.press(`Drop ${first}`);
  await visitor.see(`Drop ${first}`);
  await visitor.keys(Key.ESCAPE);
  await visitor.press(`Choose ${first}`);
  await visitor.see('one name chosen');
});

test('a name for which nothing is asked is undecided, never to be dropped', async () => {
  const { visitor } = app;
  await visitor.go('/rescue');
  await visitor.see('nothing is asked for it');
  const told = await visitor.driver.executeScript<string[]>(
    "return [...document.querySelectorAll('td.verdict')].map((one) => one.textContent).filter((one) => one.includes('nothing is asked'))",
  );
  expect(told.length).toBeGreaterThan(0);
  for (const verdict of told) expect(verdict).toMatch(/^Undecided/);
});

test('a verdict is overruled and remembered; a fresh registration is refunded', async () => {
  const { visitor } = app;
  await visitor.go('/rescue');
  await visitor.press('Overrule the verdict on osierandoak.com');
  await visitor.choose('What is to be done', 'Keep it');
  await visitor.fill('Best offer so far, USD', '250');
  await visitor.press('Save the decision');
  await visitor.see('you decided so');
  await visitor.see('$250');
  await visitor.press('Refund marramweave.com');
  await visitor.press('Delete it and take the refund');
  await visitor.see('Refunded: marramweave.com.');
  await visitor.gone('Can be refunded');
});
