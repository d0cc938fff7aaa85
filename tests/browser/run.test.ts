import { afterAll, beforeAll, expect, test } from 'vitest';
import { startApp, type TestApp } from './app';

let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true, practice: true });
});
afterAll(() => app.close());

test('a run is put together, carried out with one failure, and only that one is tried again', async () => {
  const { visitor, ledger } = app;
  // Fernhithe's balance holds one of these, not both; Quaymark's holds its own.
  await visitor.go('/ledger?q=larchhearth');
  await visitor.see('larchhearth.io');
  await visitor.pick('larchhearth.com');
  await visitor.pick('larchhearth.io');
  await visitor.see('2 names chosen');
  await visitor.press('Renew…');
  await visitor.see('By link: 2 names');
  expect(await visitor.axe()).toEqual([]);
  await visitor.click('Longer now or yearly?');
  // Without a history of prices the rise is for the person to say.
  await visitor.see('no older price is known: write what you expect');
  await visitor.fill('Prices rise by, percent a year', '4');
  await visitor.see('5 years now are cheaper by');
  await visitor.press('Renew 2 names for $59.38…');
  await visitor.see('A renewal cannot be refunded.');
  await visitor.see('If nothing is done: one name');
  await visitor.press('Renew for $59.38');
  await visitor.see('By link: 1 of 2 renewed, 1 refused');
  await visitor.see('Not paid: balance too small.');
  expect(await visitor.axe()).toEqual([]);

  await visitor.see('Fernhithe did not pay for want of money.');
  await visitor.press('Top up Fernhithe');
  await visitor.fill('Amount, USD', '100');
  await visitor.press('Top up $100.00');
  await visitor.see('$100.00 paid in at Fernhithe.');

  await visitor.go('/renewals');
  await visitor.see('Runs that are not settled');
  await visitor.press('24 Nov');
  await visitor.press('Try again one name for $48.00…');
  await visitor.press('Renew for $48.00');
  await visitor.see('By link: 2 of 2 renewed');
  await visitor.press('Close this run');
  await visitor.see('Confirmed.');
  await visitor.see('This run as CSV');
  const { rows } = await ledger.database.query(
    "select n.ascii, e.minor from entries e join names n on n.id = e.name_id where n.ascii like 'larchhearth.%' and e.on_day = '2026-11-24' order by n.ascii",
  );
  expect(rows).toEqual([
    { ascii: 'larchhearth.com', minor: 1138 },
    { ascii: 'larchhearth.io', minor: 4800 },
  ]);
});

test('auto-renew is switched by link, and confirmed by the registrar’s answer', async () => {
  const { visitor, ledger } = app;
  await visitor.go('/ledger?q=copperbuoy');
  await visitor.pick('copperbuoy.com');
  await visitor.press('Auto-renew…');
  await visitor.see('the program switches it there itself');
  await visitor.press('Switch it on');
  await visitor.driver.wait(async () => {
    const { rows } = await ledger.database.query("select setting, standing from names where ascii = 'copperbuoy.com'");
    return rows[0].setting === 'on' && rows[0].standing === 'confirmed';
  }, 10_000);
});
