import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { startApp, type TestApp } from './app';

/** Without a pointer: what each place is for is reached by Tab, and done by Enter or Space. */
let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true, practice: true });
});
afterAll(() => app.close());

async function at(path: string, seen: string): Promise<void> {
  await app.visitor.go(path);
  await app.visitor.see(seen);
}

test('Today: what saves a name is begun from its line', async () => {
  const { visitor } = app;
  await at('/today', 'would save them.');
  await visitor.pressByKey('Renew withycellar.com');
  await visitor.see('By link: one name');
});

test('the date line: a usual day, and back', async () => {
  const { visitor } = app;
  await at('/ledger', '412 names');
  await visitor.pressByKey('Look ahead: +30 days');
  await visitor.see('As of 24 Dec 2026, if nothing is done.');
  await visitor.pressByKey('Back to today');
  await visitor.gone('if nothing is done.');
});

test('Renewals: an account is chosen, and its charges are shown', async () => {
  const { visitor } = app;
  await at('/renewals', 'First that fails');
  await visitor.pressByKey('Larkhythe');
  await visitor.driver.wait(
    async () => (await visitor.text('section[aria-label="Funding of Larkhythe"] h2').catch(() => '')) === 'Larkhythe',
    5000,
    'the account is not shown',
  );
  expect(await visitor.text('tr[data-chosen=true] td')).toBe('Larkhythe');
});

test('Registration record: every name is checked, and a difference dismissed', async () => {
  const { visitor } = app;
  await at('/record', 'Ask the registries');
  await visitor.pressByKey('Check 412 names now');
  await visitor.see('One name does not work');
  await visitor.driver.executeScript('document.activeElement.blur()');
  await visitor.tabTo('Choose stillbell.com: hold');
  await visitor.keys(' ');
  await visitor.see('Dismiss 1');
  await visitor.driver.executeScript('document.activeElement.blur()');
  await visitor.pressByKey('Dismiss 1');
  await visitor.see('Seven names differ.');
});

test('Selling: an offer is opened, its refusal asked, and left open', async () => {
  const { visitor } = app;
  await at('/selling', 'Offers to answer: ');
  await visitor.pressByKey('Offers to answer: tideloft.com');
  await visitor.see('of what is asked');
  await visitor.pressByKey('Decline…');
  await visitor.see('this negotiation ends');
  await visitor.keys(Key.ESCAPE);
  await visitor.gone('this negotiation ends');
});

test('Sold: other sums are chosen', async () => {
  const { visitor } = app;
  await at('/selling/sold', 'Profit by year');
  await visitor.pressByKey('year');
  await visitor.keys(Key.ARROW_DOWN, Key.ENTER);
  await visitor.driver.wait(
    async () => (await visitor.driver.findElements({ css: 'table[aria-label="Sums by ending"]' })).length === 1,
    5000,
    'the sums are still those by year',
  );
});

test('a test mail is sent, and arrives', async () => {
  const { visitor, practice } = app;
  await at('/setup/mail', 'Reminders by mail');
  await visitor.pressByKey('Send a test mail');
  await visitor.see('Sent to office@harbour-office.test. Look there.');
  expect(practice?.mails.map(({ subject }) => subject)).toContain('Name Ledger: a test');
});

// WCAG 2.2, criterion 2.4.11: what has the focus is not hidden by what the author put over it, as the bar at the foot is.
test.each([
  ['/today', 'would save them.', null],
  ['/rescue', 'In danger:', 'Choose withycellar.com'],
])('%s: what is gone to stops above the bar at the foot', async (path, seen, chosen) => {
  const { visitor } = app;
  await at(path, seen);
  if (chosen) await visitor.press(chosen);
  await visitor.driver.wait(
    async () => (await visitor.driver.findElements({ css: 'main footer' })).length > 0,
    5000,
    'there is no bar at the foot',
  );
  const hidden = await visitor.driver.executeScript<string[]>(`
    const all = [...document.querySelectorAll('main :is(button, a[href]):not(footer *)')].filter((one) => one.checkVisibility());
    return [...all, ...all.toReversed()].flatMap((one) => {
      one.focus();
      const { left, top, width, height } = one.getBoundingClientRect();
      const above = document.elementFromPoint(left + width / 2, top + height / 2);
      return above?.closest('footer') ? [one.textContent] : [];
    })`);
  expect(hidden).toEqual([]);
});
