import { Key, until } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { startApp, type TestApp } from './app';

let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true });
});
afterAll(() => app.close());

const names = async () => {
  const cells = await app.visitor.driver.executeScript<string[]>(
    'return [...document.querySelectorAll(\'[role=gridcell][data-column="1"]\')].map((cell) => cell.textContent)',
  );
  return cells.filter((text) => text !== '');
};
/** Waits until the list has been arranged anew after an act. */
const afterwards = async (act: () => Promise<void>) => {
  const { driver } = app.visitor;
  await driver.executeScript(
    `window.arranged = new Promise((done) => new PerformanceObserver((list, watch) => {
       if (list.getEntriesByName('arrange the ledger').length > 0) { watch.disconnect(); done(true); }
     }).observe({ type: 'measure' }));`,
  );
  await act();
  await driver.executeAsyncScript('window.arranged.then(arguments[0]);');
};

test('filters are plain words, kept in the address, and a view is kept under a name', async () => {
  const { visitor } = app;
  await visitor.go('/ledger');
  await visitor.see('412 names');
  await visitor.press('any account');
  await afterwards(() => visitor.press('Quaymark'));
  await visitor.keys(Key.ESCAPE);
  await visitor.press('+ more');
  await visitor.press('any phase');
  await visitor.press('grace period');
  await visitor.keys(Key.ESCAPE);
  await visitor.see('2 of 412 names');
  expect(await names()).toEqual(['petrelworks.net', 'kelpkiln.com']);
  // It is written when the hand rests.
  await visitor.driver.wait(until.urlMatches(/account=1&phase=late$/), 5000);

  await visitor.press('Views');
  await visitor.fill('Keep this view as', 'Late at Quaymark');
  await visitor.press('Save this view');
  await visitor.see('Kept as “Late at Quaymark”.');
  await visitor.go('/ledger');
  await visitor.see('412 names');
  await visitor.press('Views');
  await visitor.press('Late at Quaymark');
  await visitor.see('2 of 412 names');
});

test('what is changed elsewhere shows in a window that nobody looks at, and a window tells the others', async () => {
  const { visitor, ledger } = app;
  const change = (asking: string) =>
    ledger.database.query(
      `update names set asking_minor = ${asking}00, asking_currency = 'USD' where ascii = 'larchpilot.com'; update revision set n = n + 1`,
    );
  const revision = async () =>
    (await ledger.database.query<{ n: number }>('select n from revision')).rows[0]?.n as number;
  await visitor.go('/ledger?q=larchpilot');
  await visitor.see('1 of 412 names');
  await change('7431');
  // As another window of the same browser tells it.
  await visitor.driver.executeScript(
    "new BroadcastChannel('name-ledger changed').postMessage(arguments[0])",
    await revision(),
  );
  await visitor.see('7,431');
  await visitor.driver.executeScript(
    "window.heard = []; new BroadcastChannel('name-ledger changed').onmessage = ({ data }) => window.heard.push(data);",
  );
  await change('7432');
  await visitor.driver.executeScript("window.dispatchEvent(new Event('focus'))");
  await visitor.see('7,432');
  expect(await visitor.driver.executeScript('return window.heard')).toEqual([await revision()]);
});

test('typing finds by any part of a name, letter for letter, however fast', async () => {
  const { visitor } = app;
  await visitor.go('/ledger');
  await visitor.see('412 names');
  await visitor.fill('Any part of a name', 'windroseyard');
  await visitor.see('1 of 412 names');
  expect(await (await visitor.field('Any part of a name')).getAttribute('value')).toBe('windroseyard');
  expect(await names()).toEqual(['windroseyard.com']);
  await visitor.driver.wait(async () => (await visitor.driver.getCurrentUrl()).endsWith('?q=windroseyard'), 5000);
  await visitor.press('Show every name');
  await visitor.see('412 names');
});

test('moving the date shows the ledger as it will be, and changes nothing', async () => {
  const { visitor } = app;
  await visitor.go('/ledger?q=saltmarshpress');
  await visitor.see('charge fails 15 Jan 2027');
  // Its control is there for screen readers alone: newer browsers type only into what can be seen.
  await visitor.driver.executeScript("document.querySelector('header input[type=range]').focus()");
  for (let i = 0; i < 60; i += 1) await visitor.keys(Key.ARROW_RIGHT);
  await visitor.see('As of 23 Jan 2027, if nothing is done.');
  await visitor.see('stalled');
  await visitor.see('late until');
  expect(await visitor.axe()).toEqual([]);
  await visitor.driver.executeScript('document.activeElement.blur()');
  await visitor.keys('t');
  await visitor.gone('if nothing is done.');
  await visitor.see('charge fails 15 Jan 2027');
});

test('everything by keyboard: find, choose a range, edit together, take back', async () => {
  const { visitor } = app;
  await visitor.go('/ledger?sort=name');
  await visitor.see('412 names');
  await visitor.driver
    .findElement({ css: '[role=grid]' })
    .then((grid) => visitor.driver.executeScript('arguments[0].focus()', grid));
  await visitor.keys(Key.ARROW_DOWN, ' ');
  await visitor.see('one name chosen');
  await visitor.keys(Key.chord(Key.SHIFT, Key.ARROW_DOWN));
  await visitor.keys(Key.chord(Key.SHIFT, Key.ARROW_DOWN));
  await visitor.see('3 names chosen');
  const chosen = (await names()).slice(0, 3);

  const edit = await visitor.see('Edit…');
  await visitor.driver.executeScript('arguments[0].focus()', edit);
  await visitor.keys(Key.ENTER);
  await visitor.see('Edit 3 names');
  await visitor.fill('Add tags', 'harbour');
  await visitor.fill('Asking price, USD', '777');
  await visitor.keys(Key.ENTER);
  await visitor.see('Set tags, asking price on 3 names.');
  const tagged = async () =>
    (
      await app.ledger.database.query(
        "select ascii from names where 'harbour' = any(tags) and asking_minor = 77700 order by ascii",
      )
    ).rows.length;
  expect(await tagged()).toBe(3);
  expect(chosen).toHaveLength(3);
  await visitor.press('Undo');
  await visitor.see('Taken back: Set tags, asking price on 3 names.');
  expect(await tagged()).toBe(0);

  await visitor.driver.executeScript('document.activeElement.blur()');
  await visitor.keys('/');
  await visitor.keys('grace period');
  await visitor.see('Names in the late window (grace period)');
  await visitor.keys(Key.ARROW_DOWN, Key.ENTER);
  await visitor.see('late until 20 Dec');
});

test('a cell is edited where it stands, and refuses what is no price', async () => {
  const { visitor } = app;
  await visitor.go('/ledger?q=kelpkiln');
  await visitor.see('3,800');
  await visitor.driver
    .actions()
    .doubleClick(await visitor.see('3,800'))
    .perform();
  await visitor.keys(Key.chord(Key.CONTROL, 'a'), 'a fortune', Key.ENTER);
  await visitor.see('is not an amount I can read. Write it like 11.38.');
  // It is refused where it stands, and is mended there; what is understood is said at once.
  await visitor.keys(Key.chord(Key.CONTROL, 'a'), '4,250');
  await visitor.see('read as 4,250.00 US dollars');
  await visitor.keys(Key.ENTER);
  await visitor.see('4,250');
  expect(
    (await app.ledger.database.query("select asking_minor from names where ascii = 'kelpkiln.com'")).rows[0]
      .asking_minor,
  ).toBe(425_000);
});

test('sorting by a heading, and columns on demand', async () => {
  const { visitor } = app;
  await visitor.go('/ledger?forSale=yes');
  await visitor.see('by next deadline');
  await afterwards(() => visitor.click('Asking $'));
  await afterwards(() => visitor.click('Asking $'));
  await visitor.see('by asking');
  const first = await app.visitor.driver.executeScript<string>(
    'return document.querySelector(\'[role=gridcell][data-row="0"][data-column="9"]\').textContent',
  );
  const { rows } = await app.ledger.database.query(
    "select max(asking_minor) / 100 as most from names where purpose = 'for sale'",
  );
  expect(Number(first.replaceAll(',', ''))).toBe(rows[0].most);
  await visitor.press('Columns');
  await visitor.press('Spent so far');
  await visitor.keys(Key.ESCAPE);
  await visitor.see('Spent so far');
});

test('two windows at once: the second sees what the first wrote', async () => {
  const { visitor } = app;
  await visitor.go('/ledger?q=tidewick');
  await visitor.see('18,500');
  await app.ledger.database.query(
    "update names set asking_minor = 1900000 where ascii = 'tidewick.com'; update revision set n = n + 1",
  );
  await visitor.driver.executeScript("window.dispatchEvent(new Event('focus'))");
  await visitor.see('19,000');
});

test('? shows the keys, and what others call a command finds it; undo takes back what was done last', async () => {
  const { visitor } = app;
  await visitor.go('/ledger?q=windroseyard');
  await visitor.see('1 of 412 names');
  await visitor.keys('?');
  await visitor.see('look a week further ahead');
  expect(await visitor.axe()).toEqual([]);
  await visitor.keys(Key.ESCAPE);
  await visitor.gone('look a week further ahead');

  await visitor.go('/ledger/windroseyard.com');
  await visitor.press('Edit…');
  await visitor.fill('Notes', 'ask the harbour master');
  await visitor.press('Set on one name');
  await visitor.gone('Set on one name');
  await visitor.see('ask the harbour master');
  const find = async (words: string) => {
    await visitor.keys('/');
    await visitor.keys(words);
  };
  // Enter takes the first that is found, however fast it follows the letters.
  await find(`revert${Key.ENTER}`);
  await visitor.see('Taken back');
  for (const [words, command] of [
    ['coupon', 'Setup: accounts'],
    ['backorder', 'Registration record: look up, compare, watch'],
    ['let go', 'Names that are dropped on purpose'],
  ] as const) {
    await find(words);
    expect([words, (await (await visitor.see(command)).getText()) !== '']).toEqual([words, true]);
    await visitor.keys(Key.ESCAPE);
  }
  // Both keys within one frame: the box is left and come back to, and the second is no letter.
  await find('gulls');
  const box = await visitor.driver.executeScript<string>(`
    const box = document.activeElement;
    const press = (key) => box.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
    press('Escape');
    const isTyped = press('/');
    return new Promise((rest) => setTimeout(() => rest([isTyped, document.activeElement === box].join()), 300));`);
  expect(box).toBe('false,true');
});
