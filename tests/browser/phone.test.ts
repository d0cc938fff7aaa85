import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { wantNames } from '@/usecases/acquiring/wanted';
import { startApp, type TestApp } from './app';

/** On a telephone: everything can be read and pressed without moving the page sideways. */
let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true, practice: true, width: 390, height: 800 });
  await wantNames(app.ledger, {
    names: [{ name: 'ternbeacon.com' }, { name: 'wrack.me', typed: 'wreck.me' }, { name: 'möwenkai.de' }],
    purpose: 'gulls',
  });
});
afterAll(() => app.close());

describe('at the width of a telephone', () => {
  test.each([
    ['/today', 'would save them.'],
    ['/ledger', 'restore by 26 Nov'],
    ['/renewals', 'First that fails'],
    ['/rescue', 'In danger:'],
    ['/record', 'Ask the registries'],
    ['/record/kelpkiln.com', 'What the record says'],
    ['/ledger/kelpkiln.com', 'How it lapsed'],
    ['/prices', 'Ending'],
    ['/transfers', 'No name is on its way.'],
    ['/transfers/plan', 'Left where they are'],
    ['/acquire', 'candidates'],
    ['/acquire/shortlist', 'In all'],
    ['/acquire/registered', 'To the shortlist'],
    ['/acquire/waiting', 'Ask the holder of a name'],
    ['/selling', 'Auctions that close'],
    ['/selling/listings', 'listings'],
    ['/selling/sold', 'Sales'],
    ['/selling/comparables', 'Like this name'],
    ['/selling/names/kelpkiln.com', 'kelpkiln.com'],
    ['/setup/marketplaces', 'Answers by rule'],
    ['/setup/practice', 'Faults'],
    ['/setup/money', 'Home currency'],
    ['/setup/mail', 'Reminders by mail'],
    ['/setup/records', 'RDAP bootstrap file'],
    ['/unknown', 'cannot be foretold'],
    ['/setup/accounts', 'Quaymark'],
  ])('%s', async (path, seen) => {
    const { visitor } = app;
    await visitor.go(path);
    await visitor.see(seen);
    const wide = await visitor.driver.executeScript<number>(
      'return document.scrollingElement.scrollWidth - document.documentElement.clientWidth',
    );
    expect(wide).toBeLessThanOrEqual(0);
    expect(await visitor.axe()).toEqual([]);
  });
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
