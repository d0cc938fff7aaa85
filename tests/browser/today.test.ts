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
  await visitor.see('would save them.');
  await visitor.see('charge fails 3 Dec');
  expect(await visitor.axe()).toEqual([]);

  await visitor.go('/setup/practice');
  await visitor.see('24 Nov 2026');
  await visitor.see('Mails to holders that wait to be confirmed');
  await visitor.press('Let a day pass');
  await visitor.see('25 Nov 2026');
  await visitor.go('/today');
  await visitor.see('Stops working until the holder’s mail is confirmed: 1');
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

test('the link in a mail shows what it was about, and the button on it says that it was seen', async () => {
  const { visitor, ledger } = app;
  const token = '1b4e28ba-2fa1-41d2-883f-0016d3cca427';
  await ledger.database.query(
    `insert into reminders (name_id, step_at, kind, stage, first_at, last_at, token, expires_at)
     select id, '2028-01-01', 'deadline', 7, now(), now(), $1, '2029-01-20' from names where ascii = 'copperbuoy.com'`,
    [token],
  );
  const seen = async () =>
    (await ledger.database.query('select acknowledged_at is not null as seen from reminders where token = $1', [token]))
      .rows[0]?.seen;
  await visitor.go(`/today/seen/${token}`);
  await visitor.see('A mail told you of copperbuoy.com.');
  expect(await seen()).toBe(false);
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('I have seen it');
  await visitor.see('Noted: you have seen what was told of copperbuoy.com.');
  expect(await seen()).toBe(true);
});

test('what is down or fails is said on its place, and goes by itself', async () => {
  const { visitor, ledger } = app;
  await ledger.database.query(
    "insert into job_results (job, failed_at, problem) values ('check-records', now(), 'the registry was away')",
  );
  await visitor.go('/record');
  await visitor.see('Records could not be checked (just now): the registry was away');
  expect(await visitor.axe()).toEqual([]);
  await ledger.database.query("update job_results set problem = null, done_at = now() where job = 'check-records'");
  await visitor.gone('Records could not be checked');
});

test('a page asks for no other page until somebody points at its link', async () => {
  const { visitor } = app;
  const asked = () =>
    visitor.driver.executeScript<string[]>(
      'return performance.getEntriesByType("resource").map((one) => one.name).filter((name) => name.includes("_rsc="))',
    );
  await visitor.go('/selling');
  await visitor.see('to be answered');
  await visitor.driver.sleep(1000);
  expect(await asked()).toEqual([]);
  const link = await visitor.driver.findElement({ css: 'nav[aria-label=Places] a[href="/rescue"]' });
  await visitor.driver.actions().move({ origin: link }).perform();
  await visitor.driver.wait(async () => (await asked()).length > 0, 10_000, 'what is pointed at is not fetched');
  expect((await asked()).every((name) => new URL(name).pathname === '/rescue')).toBe(true);
});

test('a browser that asks for the icon by the name it has everywhere is given it', async () => {
  const answer = await fetch(`${app.url}/favicon.ico`);
  expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'image/svg+xml']);
});
