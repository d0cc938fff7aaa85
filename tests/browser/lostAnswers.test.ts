import { afterAll, afterEach, beforeAll, expect, test } from 'vitest';
import { startApp, type TestApp } from './app';
import { withoutNetwork } from './network';

let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true });
});
afterAll(() => app.close());
/** The browser itself writes down what it could not reach, and what was answered with an error; nothing else is to be found there. */
let told = ['ERR_INTERNET_DISCONNECTED'];
afterEach(async () => {
  const errors = await app.visitor.consoleErrors();
  expect(errors.filter((error) => !told.some((expected) => error.includes(expected)))).toEqual([]);
  told = ['ERR_INTERNET_DISCONNECTED'];
});

const LOST = 'No answer came. What you asked for may have been done, or not: look, and ask again if it was not.';

test('an answer that the network loses is told, and the button can be pressed again', async () => {
  const { visitor } = app;
  await visitor.go('/selling');
  await visitor.see('Ask the marketplaces now');
  await withoutNetwork(visitor, true);
  await visitor.press('Ask the marketplaces now');
  await visitor.see(LOST);
  await visitor.press('Ask the marketplaces now');
  await visitor.see('Ask the marketplaces now');
  // Once is enough, however often it is asked meanwhile.
  const times = await visitor.driver.executeScript(
    'return document.body.innerText.split("No answer came.").length - 1',
  );
  expect(times).toBe(1);
  expect(await visitor.axe()).toEqual([]);
  await withoutNetwork(visitor, false);
  await visitor.press('Ask the marketplaces now');
  await visitor.see('Ask the marketplaces now');
});

test('what was typed stays where it stands', async () => {
  const { visitor } = app;
  await visitor.go('/record');
  await visitor.see('Look up a list of names');
  await visitor.click('Look up a list of names');
  await visitor.fill('Names', 'seaholly.com');
  await withoutNetwork(visitor, true);
  await visitor.press('Look them up');
  await visitor.see(LOST);
  await withoutNetwork(visitor, false);
  await visitor.press('Look them up');
  await visitor.see('seaholly.com');
});

test('a list whose reading was asked for while the network was away says so, and is read when it is asked again', async () => {
  const { visitor } = app;
  await visitor.go('/ledger/add');
  await visitor.fill('Names', 'Domain;Valid until\nwrackmole.com;05/06/2027\nwrackbuoy.com;07/08/2027');
  await visitor.press('See what would be added');
  await visitor.see('Say whether “Valid until” writes the day, the month or the year first.');
  await withoutNetwork(visitor, true);
  await visitor.choose('What stands first in Valid until', 'day first: 5/6 is 5 Jun');
  await visitor.see(LOST);
  await withoutNetwork(visitor, false);
  await visitor.see('This list has not been read yet: the network lost what was asked.');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Read it again');
  await visitor.see('2 names new, 0 changed, 0 unchanged, 0 refused');
});

test('a row is not shown as left out of a list while nobody has said that it is', async () => {
  const { visitor } = app;
  const isTaken = async () => (await visitor.field('Take wrackbuoy.com')).isSelected();
  expect(await isTaken()).toBe(true);
  await withoutNetwork(visitor, true);
  await visitor.press('Take wrackbuoy.com');
  await visitor.driver.wait(isTaken, 5000);
  await withoutNetwork(visitor, false);
  await visitor.see('Write 2 names');
  await visitor.press('Take wrackbuoy.com');
  await visitor.see('Write one name');
  expect(await isTaken()).toBe(false);
});

test('a list that could not be read to its end can be read again from where that is said', async () => {
  const { visitor, ledger } = app;
  told = ['status of 500', 'React error #441'];
  await ledger.database.query('alter table import_rows add constraint broken check (line < 0) not valid');
  await visitor.go('/ledger/add');
  await visitor.fill('Names', 'wracklock.com');
  await visitor.press('See what would be added');
  await visitor.see('This list could not be read to its end, and nothing of it was written.');
  await ledger.database.query('alter table import_rows drop constraint broken');
  await visitor.press('Read it again');
  await visitor.see('one name new, 0 changed, 0 unchanged, 0 refused');
});
