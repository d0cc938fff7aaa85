import { afterAll, afterEach, beforeAll, expect, test } from 'vitest';
import { startApp, type TestApp } from './app';
import { withoutNetwork } from './network';

let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true });
});
afterAll(() => app.close());
/** The browser itself writes down what it could not reach; nothing else is to be found there. */
afterEach(async () => {
  expect((await app.visitor.consoleErrors()).filter((told) => !told.includes('ERR_INTERNET_DISCONNECTED'))).toEqual([]);
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
  const told = await visitor.driver.executeScript('return document.body.innerText.split("No answer came.").length - 1');
  expect(told).toBe(1);
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
