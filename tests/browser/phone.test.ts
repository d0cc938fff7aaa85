import { afterAll, beforeAll, expect, test } from 'vitest';
import { startApp, type TestApp } from './app';

/** On a telephone: what a person does there, with the thumb. */
let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true, practice: true, width: 390, height: 800 });
});
afterAll(() => app.close());

/** Everything of a kind that is in sight and smaller than a target may be, by what it says. */
const tooSmall = (css: string, least: number) =>
  app.visitor.driver.executeScript<string[]>(
    `return [...document.querySelectorAll(arguments[0])].filter((one) => one.checkVisibility()).flatMap((one) => {
       // What is touched of a check box is its label.
       const { width, height } = (one.closest('label') ?? one).getBoundingClientRect();
       return height + 0.5 < arguments[1] || width < 24 ? [(one.getAttribute('aria-label') || one.textContent) + ' ' + Math.round(width) + 'x' + Math.round(height)] : [];
     })`,
    css,
    least,
  );

test('the places lie behind one button, and close again', async () => {
  const { visitor } = app;
  await visitor.go('/today');
  await visitor.see('would save them.');
  await visitor.press('Places');
  await visitor.press('Rescue');
  await visitor.see('In danger:');
  expect(await visitor.driver.executeScript("return document.querySelector('#places').checkVisibility()")).toBe(false);
});

test('Today and Rescue have what can be done in sight, in targets for a thumb', async () => {
  const { visitor } = app;
  for (const path of ['/today', '/rescue']) {
    await visitor.go(path);
    await visitor.see('withycellar.com');
    const act = await visitor.driver.findElement({ css: 'td.acts button, td.acts a' });
    const box = await visitor.driver.executeScript<{ right: number; left: number }>(
      'return arguments[0].getBoundingClientRect()',
      act,
    );
    expect(box.left, path).toBeGreaterThanOrEqual(0);
    expect(box.right, path).toBeLessThanOrEqual(390);
    expect(await tooSmall('td.acts button, td.acts a', 44), path).toEqual([]);
    expect(await tooSmall('button, a[href], input:not([type=hidden])', 12), path).toEqual([]);
  }
});

test('a name of the ledger is two lines: its outcome and its strip are in sight, and a touch opens it', async () => {
  const { visitor } = app;
  await visitor.go('/ledger');
  await visitor.see('restore by 26 Nov');
  const seen = await visitor.driver.executeScript<{ strip: number; outcome: number; height: number }>(`
    const row = document.querySelector('[role=row][aria-rowindex="4"]');
    const right = (one) => one.getBoundingClientRect().right;
    return { strip: right(row.querySelector('svg')), outcome: right(row.querySelector('[data-column="1"]')), height: row.getBoundingClientRect().height }`);
  expect(seen.strip).toBeLessThanOrEqual(390);
  expect(seen.outcome).toBeLessThanOrEqual(390);
  expect(seen.height).toBe(56);
  await visitor.click('brinelantern.com');
  await visitor.see('What the ledger knows');
});

test('an offer is answered from a telephone: what stands against it, a counter, and it is on the table', async () => {
  const { visitor, ledger } = app;
  await visitor.go('/selling');
  await visitor.see('Offers to answer: ');
  await visitor.press('tideloft.com');
  await visitor.see('of what is asked');
  await visitor.press('Decline…');
  const dialog = await visitor.driver.findElement({ css: '[role=dialog]' });
  const foot = await visitor.driver.executeScript<number>(
    "return [...arguments[0].querySelectorAll('button')].at(-1).getBoundingClientRect().bottom",
    dialog,
  );
  // What a dialog can do stays in sight.
  expect(foot).toBeLessThanOrEqual(800);
  await visitor.press('Leave it open');
  await visitor.fill('Counter with, in USD', '5,900');
  await visitor.press('Counter');
  await visitor.see('The buyer has your figure');
  const { rows } = await ledger.database.query(
    "select f.minor from figures f join offer_threads t on t.id = f.thread_id join names n on n.id = t.name_id where n.ascii = 'tideloft.com' and f.by = 'owner'",
  );
  expect(rows).toEqual([{ minor: 590_000 }]);
  await visitor.go('/selling/names/tideloft.com');
  await visitor.see('$5,900');
});

test('a name is priced and listed from a telephone', async () => {
  const { visitor, ledger } = app;
  const { rows } = await ledger.database.query<{ id: number }>("select id from names where ascii = 'copperbuoy.com'");
  await visitor.go(`/selling/price?names=${rows[0]?.id}`);
  await visitor.fill('asking of copperbuoy.com', '1,450');
  await visitor.press('List one name at Cordage Hall…');
  await visitor.see('a sale binds');
  await visitor.press('List them');
  await visitor.see('Cordage Hall: ');
});

test('the office sets where records are asked for, and is told what is wrong', async () => {
  const { visitor, ledger } = app;
  await visitor.go('/setup/records');
  await visitor.see('Registration records');
  await visitor.fill('RDAP bootstrap file (RFC 9224)', '{"no":"file"}');
  await visitor.press('Save the servers');
  await visitor.see('This is no bootstrap file of RFC 9224.');
  await visitor.fill(
    'RDAP bootstrap file (RFC 9224)',
    '{"version":"1.0","publication":"2026-11-20T00:00:00Z","services":[]}',
  );
  await visitor.fill('Name server to ask', '127.0.0.1:5353');
  await visitor.press('Save the servers');
  await visitor.see('Saved.');
  const { rows } = await ledger.database.query("select value->>'dns' as dns from settings where key = 'records'");
  expect(rows).toEqual([{ dns: '127.0.0.1:5353' }]);
});
