import { afterAll, beforeAll, expect, test } from 'vitest';
import { startApp, type TestApp } from './app';

let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true, practice: true });
});
afterAll(() => app.close());

test('thirty days pass in the practice world, and Today shows what they brought', async () => {
  const { visitor } = app;
  await visitor.go('/');
  await visitor.see('If nothing is done in the next 30 days:');
  await visitor.see('charge fails 3 Dec');
  expect(await visitor.axe()).toEqual([]);

  await visitor.go('/setup/practice');
  await visitor.see('24 Nov 2026');
  await visitor.see('Mails to holders that wait to be confirmed');
  await visitor.press('Let a day pass');
  await visitor.see('25 Nov 2026');
  await visitor.go('/today');
  await visitor.see('The holder’s mail has to be confirmed: one name');
  await visitor.press('The mail of marramweave.com is confirmed');
  await visitor.gone('stops working 7 Dec');
  await visitor.go('/setup/practice');
  await visitor.press('30 days');
  await visitor.see('Letting days pass');
  await visitor.driver.wait(
    async () => (await visitor.text('main h2').catch(() => '')) === '25 Dec 2026',
    60_000,
    'thirty days did not pass',
  );
  await visitor.see('Mails that came to the practice mail server');

  await visitor.go('/today');
  await visitor.see('Stalled: the last charge failed');
  await visitor.gone('charge fails 3 Dec');
  const { rows } = await app.ledger.database.query(
    "select count(*) filter (where kind = 'charged') > 0 as charged, count(*) filter (where kind = 'charge-failed') > 0 as failed from registrar_messages",
  );
  expect(rows).toEqual([{ charged: true, failed: true }]);
});

test('an account is read by its link: what differs goes through the same preview as a list', async () => {
  const { visitor } = app;
  await visitor.go('/setup/accounts');
  await visitor.press('Quaymark');
  await visitor.press('Test it');
  await visitor.see('Quaymark Names BV answers. The link works.');
  await visitor.press('Read the whole account…');
  await visitor.see('changed');
  await visitor.see('auto-renew');
  await visitor.see('no longer there');
});

test('a wrong password is told in words, and never shown', async () => {
  const { visitor } = app;
  await visitor.go('/setup/accounts');
  await visitor.press('Bollard');
  await visitor.fill('Password', 'wrong-password');
  await visitor.press('Save the link');
  await visitor.see('Link saved.');
  await visitor.press('Test it');
  await visitor.see('The registrar refused the login');
  expect(await (await visitor.field('Password')).getAttribute('value')).toBe('');
  expect(await visitor.driver.getPageSource()).not.toContain('wrong-password');
});
