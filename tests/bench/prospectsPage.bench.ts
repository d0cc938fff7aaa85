import { afterAll, beforeAll, expect, test } from 'vitest';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { startApp, type TestApp } from '../browser/app';
import { tabBytes } from '../browser/memory';
import { line, portfolioCsv } from './portfolio';

/** How many names the ledger has: `NAMES=250000` for the largest. */
const NAMES = Number(process.env.NAMES ?? 50_000);
const SAID = NAMES.toLocaleString('en');
const report: string[] = [];
let app: TestApp;

beforeAll(async () => {
  app = await startApp({ demo: false });
  await importAtOnce(app.ledger, {
    content: Buffer.from(portfolioCsv(NAMES)),
    account: null,
    dateOrder: null,
    fullList: false,
    allowPrivateEndings: false,
    dryRun: false,
  });
}, 120_000);
afterAll(async () => {
  await app.close();
  console.log(`\n${report.join('\n')}\n`);
});

/** How long something takes to be seen, in milliseconds. */
async function until(work: () => Promise<unknown>, seen: () => Promise<unknown>): Promise<number> {
  await work();
  const begun = performance.now();
  await seen();
  return performance.now() - begun;
}

test('the outlook, its assumptions and the names in the browser, beside a page without the ledger', async () => {
  const { visitor } = app;
  const floor = await until(
    () => visitor.go('/setup/money'),
    () => visitor.see('Home currency'),
  );
  const told = (what: string, ms: number) =>
    report.push(line(`${SAID} names: ${what}`, ms, 'a page without the ledger', floor));
  const drawn = () =>
    visitor.driver.wait(
      () => visitor.driver.executeScript<boolean>('return document.querySelector("canvas") !== null'),
      60_000,
    );
  await visitor.go('/prospects');
  await visitor.see('Assumptions');
  if ((await visitor.text('main h2')).startsWith('There is no outlook yet'))
    await visitor.fill('What stands in for an unknown price, USD', '14').catch(() => undefined);
  if ((await visitor.text('main h2')).startsWith('There is no outlook yet'))
    await visitor.fill('What stands in for an unknown balance, USD', '90000').catch(() => undefined);
  await drawn();
  told('the first picture of an assumption that is moved', await moved());
  told(
    'every name judged and ranked, on screen',
    await until(
      () => visitor.press('Names worth another year'),
      () => visitor.see('next'),
    ),
  );
  report.push(`${SAID} names: the tab ${Math.round((await tabBytes(visitor.driver)) / 2 ** 20)} MB`);
});

/** Moves the chance by keyboard, and waits for another figure. */
async function moved(): Promise<number> {
  const { visitor } = app;
  const figure = () =>
    visitor.driver.executeScript<string>(
      'return document.querySelector("table[aria-label=\\"What the outlook comes to\\"] tr:nth-last-child(2) td").textContent',
    );
  await visitor.gone('Stop here');
  const before = await figure();
  const ms = await until(
    async () => {
      await visitor.driver.executeScript("document.querySelector('aside input[type=range]').focus()");
      await visitor.keys('\uE014');
    },
    () => visitor.driver.wait(async () => (await figure()) !== before, 60_000),
  );
  expect(await figure()).not.toBe(before);
  return ms;
}
