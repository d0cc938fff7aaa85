import { Key, until } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import { saveRate } from '@/usecases/rates/rates';
import { startApp, type TestApp } from './app';

/** What the hand meets in the ledger: clicks, ranges, the date line, and a window at 200 %. */
let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true });
  // Three currencies are one figure where there are rates for them.
  for (const [from, factor] of [
    ['EUR', 1.08],
    ['GBP', 1.27],
  ])
    await saveRate(app.ledger, { from: '2026-11-20', currency: from, into: 'USD', factor });
});
afterAll(() => app.close());

const cell = (row: number, column: number) =>
  app.visitor.driver.findElement({ css: `[role=gridcell][data-row="${row}"][data-column="${column}"]` });

test('one click opens a name', async () => {
  const { visitor } = app;
  await visitor.go('/ledger?q=kelpkiln');
  await visitor.see('1 of 412 names');
  await (await cell(0, 1)).click();
  await visitor.see('How it lapsed');
  expect(await visitor.driver.getCurrentUrl()).toMatch(/\/ledger\/kelpkiln\.com/);
});

test('a range chosen with Shift paints no text, and opens nothing', async () => {
  const { visitor } = app;
  await visitor.go('/ledger?sort=name');
  await visitor.see('412 names');
  await (await cell(0, 0)).click();
  await visitor.see('one name chosen');
  await visitor.driver
    .actions()
    .keyDown(Key.SHIFT)
    .click(await cell(4, 1))
    .keyUp(Key.SHIFT)
    .perform();
  await visitor.see('5 names chosen');
  expect(await visitor.driver.executeScript('return String(window.getSelection())')).toBe('');
  expect(await visitor.driver.getCurrentUrl()).not.toMatch(/\/ledger\/\w/);
});

test('every outcome is read whole, and the totals stand on one line', async () => {
  const { visitor } = app;
  await visitor.go('/ledger?q=saltmarshpress');
  await visitor.see('charge fails 15 Jan 2027');
  const cut = await visitor.driver.executeScript<number>(
    'return [...document.querySelectorAll("[role=gridcell][data-column=\\"6\\"]")].filter((one) => one.scrollWidth > one.clientWidth).length',
  );
  expect(cut).toBe(0);
  await visitor.go('/ledger');
  await visitor.see('412 names');
  await visitor.see('a year');
  const high = await visitor.driver.executeScript<number>(
    'return document.querySelector("footer[aria-label=\\"Totals of the view\\"]").getBoundingClientRect().height',
  );
  expect(high).toBeLessThanOrEqual(46);
});

test('the date line has its usual days, and says how many names are lost by then', async () => {
  const { visitor } = app;
  await visitor.go('/ledger');
  await visitor.see('412 names');
  await visitor.press('Look ahead: +90 days');
  await visitor.see('As of 22 Feb 2027, if nothing is done.');
  await visitor.see('lost');
  const said = await visitor.text('footer[aria-label="Totals of the view"]');
  expect(said).toMatch(/412 names\s+\d+ lost by then/);
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Look ahead: year’s end');
  await visitor.see('As of 31 Dec 2026, if nothing is done.');
  // The date itself opens the same days, and more.
  await visitor.press('31 Dec 2026: look ahead');
  await visitor.press('Today');
  await visitor.gone('if nothing is done.');
});

test('a heading that sorts stays at hand: the other way round is one key more', async () => {
  const { visitor } = app;
  await visitor.go('/ledger');
  const grid = await visitor.driver.wait(until.elementLocated({ css: '[role=grid]' }), 10_000);
  const sorted = () =>
    visitor.driver.executeScript<string[]>(
      `const heading = document.querySelector('[aria-sort]');
       const active = document.getElementById(document.querySelector('[role=grid]').getAttribute('aria-activedescendant'));
       return [heading?.getAttribute('aria-label') ?? '', heading?.getAttribute('aria-sort') ?? '', active?.getAttribute('aria-label') ?? ''];`,
    );
  await grid.sendKeys(Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.ENTER);
  await vi.waitFor(async () => expect(await sorted()).toEqual(['Term ends', 'ascending', 'Term ends']));
  await grid.sendKeys(Key.ENTER);
  await vi.waitFor(async () => expect(await sorted()).toEqual(['Term ends', 'descending', 'Term ends']));
});

test('a name that is opened as soon as it is found leads back to what was looked for', async () => {
  const { visitor } = app;
  await visitor.go('/ledger');
  await visitor.see('412 names');
  await visitor.driver.executeScript(
    `const box = document.querySelector('input[type=search]');
     Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(box, 'kelp');
     box.dispatchEvent(new Event('input', { bubbles: true }));
     const opened = () => document.querySelectorAll('[role=row]').length < 12
       ? document.querySelector('[role=gridcell] .opens').click() : requestAnimationFrame(opened);
     opened();`,
  );
  await visitor.driver.wait(async () => /\/ledger\/.*kelp/.test(await visitor.driver.getCurrentUrl()), 10_000);
  await visitor.driver.navigate().back();
  await visitor.see('of 412 names');
  expect(await visitor.driver.getCurrentUrl()).toContain('q=kelp');
  expect(await visitor.driver.findElement({ css: 'input[type=search]' }).getAttribute('value')).toBe('kelp');
});

test('at 200 % there are eight rows in sight', async () => {
  const { visitor } = app;
  // A window of 1280 by 800 at 200 % has 640 by 400 to lay out in.
  const size = { width: 640, height: 400, deviceScaleFactor: 2, mobile: false };
  await visitor.tell('Emulation.setDeviceMetricsOverride', size);
  await visitor.go('/ledger');
  await visitor.see('412 names');
  await visitor.see('a year');
  const rows = await visitor.driver.executeScript<number>(`
    const grid = document.querySelector('[role=grid]').getBoundingClientRect();
    const whole = (row) => { const at = row.getBoundingClientRect(); return at.top >= grid.top && at.bottom <= grid.bottom + 1; };
    return [...grid ? document.querySelectorAll('[role=row][aria-rowindex]') : []].filter((row) => row.ariaRowIndex > 1 && whole(row)).length`);
  expect(rows).toBeGreaterThanOrEqual(8);
  expect(await visitor.axe()).toEqual([]);
});
