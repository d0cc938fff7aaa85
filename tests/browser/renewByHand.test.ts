import { afterAll, beforeAll, expect, test } from 'vitest';
import { startApp, type TestApp } from './app';

let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: false });
});
afterAll(() => app.close());

test('three names are pasted, seen with their phase and deadline, one is renewed, and the books show it', async () => {
  const { visitor, ledger } = app;
  await visitor.go('/ledger');
  await visitor.see('The ledger is empty.');
  await visitor.press('Add names');
  await visitor.fill(
    'Names',
    'name, account, expires, auto-renew, renewal price\nkelpkiln.com, Quaymark, 2026-11-06T10:15:00Z, stalled, 11.38\ncopperbuoy.com, Quaymark, 2026-12-09, off, 11.38\nnorthsheer.com, Wrackgate, 2027-04-12, on, 11.38',
  );
  await visitor.press('See what would be added');
  await visitor.press('Write 3 names');
  await visitor.press('To the ledger');

  await visitor.see('3 names');
  await visitor.see('late until 20 Dec');
  await visitor.see('11.38 → ≈125.18');
  await visitor.see('lapses 9 Dec');

  await visitor.pick('kelpkiln.com');
  await visitor.see('one name chosen');
  await visitor.press('Renew…');
  await visitor.see('6 Nov 2027');
  await visitor.press('Next: what to do for $11.38');
  await visitor.see('It should come to $11.38');
  await visitor.fill('Charged for kelpkiln.com', '11.58');
  await visitor.fill('Reference', 'Q-4471');
  const confirm = await visitor.see('Confirm: renewed as written');
  await visitor.driver.actions().doubleClick(confirm).perform();

  await visitor.see('Renewed one name by hand');
  await visitor.see('6 Nov 2027');
  const { rows } = await ledger.database.query('select minor, quoted_minor, reference from entries');
  expect(rows).toEqual([{ minor: 1158, quoted_minor: 1138, reference: 'Q-4471' }]);
  const name = await ledger.database.query("select term_end from names where ascii = 'kelpkiln.com'");
  expect(new Date(name.rows[0].term_end).toISOString()).toBe('2027-11-06T10:15:00.000Z');

  await visitor.press('Undo');
  await visitor.see('late until 20 Dec');
  expect((await ledger.database.query('select sum(minor) as minor from entries')).rows[0].minor).toBe(0);
});
