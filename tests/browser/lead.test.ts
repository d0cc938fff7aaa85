import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { startApp, type TestApp } from './app';

/** What leads the eye: the gravest first and in the colour of warning, one grid of columns, and what a dialog can do in sight. */
let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true, practice: true });
});
afterAll(() => app.close());

const ask = <T>(script: string) => app.visitor.driver.executeScript<T>(script);

test('Today: what is lost stands first, in the colour that the ledger uses for it', async () => {
  const { visitor } = app;
  await visitor.go('/today');
  await visitor.see('would save them.');
  const [titles, warned] = await ask<[string[], string[]]>(`
    const heads = [...document.querySelectorAll('th[scope=rowgroup]')];
    const colour = (one) => getComputedStyle(one).color;
    return [heads.map((one) => one.textContent), [colour(heads[0]), colour(document.querySelector('tr[data-grave=true] td.day'))]]`);
  expect(titles[0]).toMatch(/^Lost if nothing is done: \d/);
  expect(titles.findIndex((one) => one.startsWith('Gets dearer'))).toBeGreaterThan(0);
  await visitor.go('/ledger');
  await visitor.see('restore by 26 Nov');
  const inLedger = await ask<string>(`
    const said = document.evaluate("//*[@role='gridcell']//*[contains(., 'restore by 26 Nov')]", document, null, XPathResult.FIRST_ORDERED_NODE_TYPE, null);
    return getComputedStyle(said.singleNodeValue).color`);
  expect(new Set([...warned, inLedger]).size).toBe(1);
});

test('Today: a deadline and the days to it, the picture and the actions stand in the same columns, whatever a line is about', async () => {
  const { visitor } = app;
  await visitor.go('/today');
  await visitor.see('Offers to answer: ');
  const columns = await ask<Record<string, number[]>>(`
    const edges = (css, edge) => [...new Set([...document.querySelectorAll('table[aria-label="What wants a decision"] ' + css)].map((one) => Math.round(one.getBoundingClientRect()[edge])))];
    return { days: edges('td.days', 'right'), name: edges('td.name-cell', 'left'), picture: edges('td.picture', 'left'), acts: edges('td.acts', 'right') }`);
  for (const [column, edges] of Object.entries(columns)) expect([column, edges.length]).toEqual([column, 1]);
});

test('Today: within one consequence the days rise from line to line', async () => {
  const days = await ask<number[]>(`
    const lost = [...document.querySelectorAll('tbody')].find((one) => one.textContent.startsWith('Lost'));
    return [...lost.querySelectorAll('td.days')].map((one) => Number(one.textContent))`);
  expect(days.length).toBeGreaterThan(2);
  expect(days).toEqual(days.toSorted((a, b) => a - b));
});

test.each([
  ['Auto-renew…', 'the program switches it there itself'],
  ['Edit…', 'Purpose'],
])('a dialog for 30 names keeps what it can do in sight: %s', async (act, seen) => {
  const { visitor } = app;
  await visitor.go('/ledger?sort=name');
  await visitor.see('412 names');
  const { rows } = await app.ledger.database.query<{ ascii: string }>(
    'select ascii from names where gone_at is null order by ascii limit 1',
  );
  await visitor.pick(rows[0]?.ascii ?? '');
  await ask('document.querySelector("[role=grid]").focus()');
  for (let i = 0; i < 29; i += 1) await visitor.keys(Key.chord(Key.SHIFT, Key.ARROW_DOWN));
  await visitor.see('30 names chosen');
  await visitor.press(act);
  await visitor.see(seen);
  const foot = await ask<number>(
    "return [...document.querySelectorAll('[role=dialog] button')].at(-1).getBoundingClientRect().bottom",
  );
  expect(foot).toBeLessThanOrEqual(800);
  expect(await visitor.axe()).toEqual([]);
});
