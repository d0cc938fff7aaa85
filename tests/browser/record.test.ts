import { afterAll, beforeAll, expect, test } from 'vitest';
import { startApp, type TestApp } from './app';

let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true, practice: true });
});
afterAll(() => app.close());

test('every name is checked, what differs is ranked, and taken over in bulk', async () => {
  const { visitor, ledger } = app;
  await visitor.go('/record');
  // Before the first check nobody says that nothing differs.
  await visitor.see('Ask the registries what they know of your 412 names.');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Check 412 names now');
  await visitor.see('Asking the registries');
  await visitor.see('One name does not work: no site, no mail.');
  await visitor.see('Seven names differ besides.');
  const bands = await visitor.driver.executeScript<string[]>(
    "return [...document.querySelectorAll('th[scope=rowgroup]')].map((one) => one.textContent)",
  );
  expect(bands[0]).toBe('Site and mail do not work: 1');
  // What differs of the record is marked beside what the ledger says.
  const marked = await visitor.driver.executeScript<string[]>(
    "return [...document.querySelectorAll('td mark')].map((one) => one.textContent)",
  );
  expect(marked.join(' ')).toContain('ns1.parkwick.test');
  expect(await visitor.axe()).toEqual([]);
  await visitor.see('The transfer lock is off.');
  await visitor.press('Choose copperbuoy.com: unlocked');
  await visitor.press('Choose larchpilot.com: name servers');
  await visitor.press('Take 2 over into the ledger');
  await visitor.see('Taken over from the registration record: 2 names.');
  await visitor.see('Five names differ besides.');
  const { rows } = await ledger.database.query(
    "select ascii, lock, name_servers from names where ascii in ('copperbuoy.com', 'larchpilot.com') order by ascii",
  );
  expect(rows).toEqual([
    { ascii: 'copperbuoy.com', lock: false, name_servers: ['ns1.quaymark.test', 'ns2.quaymark.test'] },
    { ascii: 'larchpilot.com', lock: true, name_servers: ['ns1.parkwick.test', 'ns2.parkwick.test'] },
  ]);
  await visitor.press('Choose stillbell.com: hold');
  await visitor.press('Dismiss 1');
  await visitor.see('Five names differ.');
  await visitor.go('/ledger/kelpkiln.com');
  await visitor.see('6 Nov 2027');
  await visitor.see('clientTransferProhibited, autoRenewPeriod');
});

test('a name of somebody else is looked up, watched, and told as free when its days have passed', async () => {
  const { visitor, practice } = app;
  const leaving = [...(practice?.world.domains.values() ?? [])].find(
    ({ owner, state, name }) => owner === 'stranger' && state === 'redemption' && name.endsWith('.com'),
  );
  if (!leaving) throw new Error('nobody else’s name is in redemption');
  // Whoever waits for it outside stays at home this time.
  if (practice) practice.world.grabs = () => false;
  await visitor.go('/ledger');
  await visitor.fill('Find a name or a command', leaving.name);
  await visitor.press(`Look up ${leaving.name}`);
  await visitor.see('becomes available between');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Watch it');
  await visitor.see('Watch it no more');
  await visitor.press('What it is in use for');
  await visitor.see('$ORIGIN');
  await visitor.go('/record');
  await visitor.see('Watched: one name');
  expect(await visitor.axe()).toEqual([]);

  await visitor.go('/setup/practice');
  await visitor.press('30 days');
  await visitor.driver.wait(
    async () => (await visitor.text('main h2').catch(() => '')) === '24 Dec 2026',
    120_000,
    'thirty days did not pass',
  );
  await visitor.press('7 days');
  await visitor.driver.wait(async () => (await visitor.text('main h2').catch(() => '')) === '31 Dec 2026', 60_000);
  await visitor.go('/today');
  await visitor.see('available now');
  await visitor.go(`/record/${leaving.name}`);
  await visitor.see('Available: anyone may register it.');
}, 200_000);

test('a list is looked up: the free ones first, with what they cost', async () => {
  const { visitor } = app;
  await visitor.go('/record');
  await visitor.click('Look up a list of names');
  await visitor.fill('Names', 'gulletlantern.com, kelpkiln.com gulletlantern.org');
  await visitor.press('Look them up');
  await visitor.see('available');
  await visitor.see('taken at Quaymark Names BV');
  expect(await visitor.axe()).toEqual([]);
});
