import { afterAll, beforeAll, expect, test } from 'vitest';
import { startApp, type TestApp } from './app';

let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true, practice: true });
});
afterAll(() => app.close());

test('an account is funded so that a failing charge passes, and the registrar has the money', async () => {
  const { visitor } = app;
  await visitor.go('/renewals');
  await visitor.press('Fernhithe');
  await visitor.see('3 Dec: balance $20.80 short');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Top up…');
  await visitor.see('Then every charge until 24 Nov 2027 passes');
  await visitor.fill('Amount, USD', '20.80');
  await visitor.see('instead of 3 Dec');
  await visitor.press('Top up $20.80');
  await visitor.see('$20.80 paid in at Fernhithe.');
  await visitor.gone('3 Dec: balance $20.80 short');
  const { rows } = await app.ledger.database.query("select balance_minor from accounts where label = 'Fernhithe'");
  expect(rows).toEqual([{ balance_minor: 6200 }]);
});

test('a card is replaced, with the effect seen before', async () => {
  const { visitor } = app;
  await visitor.press('Wrackgate');
  await visitor.see('blue card ended Dec 2026');
  await visitor.press('Replace blue card…');
  await visitor.fill('The new card ends', '2030-05');
  await visitor.see('do not lapse');
  await visitor.press('Replace the card');
  await visitor.see('blue card of Wrackgate is good through May 2030.');
  await visitor.gone('3 Jan 2027: blue card ended Dec 2026');
});
