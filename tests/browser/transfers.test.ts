import { Key, until } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { addDays } from '@/core/time';
import { pollEveryAccount } from '@/usecases/links/poll';
import { carryOnTransfers } from '@/usecases/moving/carryOn';
import { startApp, type TestApp } from './app';

let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true, practice: true });
});
afterAll(() => app.close());

test('twenty names are planned under a budget, by keyboard', async () => {
  const { visitor } = app;
  const { rows } = await app.ledger.database.query<{ id: number }>("select id from accounts where label = 'Quaymark'");
  await visitor.go(`/ledger?sort=name&account=${rows[0]?.id}`);
  await visitor.driver.wait(until.elementLocated({ css: '[role=grid] [aria-selected]' }), 10_000);
  await visitor.driver.executeScript('document.querySelector("[role=grid]").focus()');
  await visitor.keys(Key.ARROW_DOWN, ' ');
  for (let i = 0; i < 19; i += 1) await visitor.keys(Key.chord(Key.SHIFT, Key.ARROW_DOWN));
  await visitor.see('20 names chosen');
  await visitor.pressByKey('More');
  await visitor.see('Plan transfers…');
  await visitor.keys(Key.ARROW_DOWN, Key.ENTER);
  await visitor.see('20 names chosen in the ledger');
  await visitor.choose('To', 'Wrackgate');
  await visitor.keys(Key.TAB);
  await visitor.tabTo('Also names that are no cheaper there');
  await visitor.keys(' ');
  await visitor.fill('To spend on transfers, USD', '60');
  await visitor.see('the sum to spend does not reach so far');
  await visitor.see('What is left behind');
  const spent = Number((await visitor.text('main h2')).match(/for \$([\d.]+)/)?.[1]);
  expect(spent).toBeGreaterThan(30);
  expect(spent).toBeLessThanOrEqual(60);
  expect(await visitor.axe()).toEqual([]);
});

test('three names are moved: one by link, one by hand, one that is rejected, by keyboard', async () => {
  const { visitor, ledger, practice } = app;
  const start = async (name: string, to: string, cost: string) => {
    await visitor.go(`/ledger/${name}`);
    await visitor.pressByKey('Transfer…');
    await visitor.see('one name chosen in the ledger');
    await visitor.choose('To', to);
    await visitor.tabTo('Also names that are no cheaper there');
    await visitor.keys(' ');
    await visitor.pressByKey('Move all of these…');
    await visitor.see('never for more');
    await visitor.pressByKey(`Move one name for ${cost}`);
    await visitor.see('under way');
  };
  // Both accounts have links: it arrives within one pass.
  await start('mistralwharf.net', 'Quaymark', '$13.10');
  await visitor.see('arrived, looked after');

  // The new account is kept by hand: the program does what the old one needs, and says what is to be done.
  await start('bobbinloft.me', 'Larkhythe', '$18.56');
  await visitor.see('Request the transfer at Larkhythe with the code.');
  await visitor.pressByKey('Request the transfer at Larkhythe with the code.');
  // What the old registrar offers for staying is weighed before it is asked for.
  await visitor.click('Does Quaymark offer something for staying?');
  await visitor.fill('Quaymark would keep bobbinloft.me for, a year, USD', '18');
  await visitor.keys(Key.ENTER);
  await visitor.see('Over 5 years staying comes to $90.00');
  await visitor.pressByKey('Move all the same');
  await visitor.see('Declined: bobbinloft.me moves.');
  await visitor.pressByKey('Show the code');
  await visitor.fill('Charged by Larkhythe for bobbinloft.me, GBP', '14.90');
  expect(await visitor.axe()).toEqual([]);
  await visitor.keys(Key.ENTER);
  // Another sum than the price list says is questioned.
  await visitor.see('Its price list says 14.50 GBP.');
  await visitor.tabTo('Another sum than its price list says was charged');
  await visitor.keys(' ');
  await visitor.pressByKey('It is requested');
  await visitor.see('Taken down: it is on its way.');
  await visitor.see('Look at Larkhythe whether it has arrived.');
  await visitor.pressByKey('Look at Larkhythe whether it has arrived.');
  await visitor.pressByKey('It has arrived');
  await visitor.see('bobbinloft.me is at Larkhythe now.');
  await visitor.pressByKey('It is looked after: bobbinloft.me');
  await visitor.see('Taken down.');

  // A name that is on its way says so on its own page.
  await visitor.go('/ledger/mistralwharf.net');
  await visitor.see('On its way from Fernhithe to Quaymark: arrived, looked after');

  // The losing side rejects it; the price comes back, and the name is as it was.
  practice?.faults.set('quaymark', 'transfer rejected', 1);
  practice?.faults.set('fernhithe', 'approval lost', 99);
  await start('stillparlour.net', 'Quaymark', '$13.10');
  await visitor.see('pending at the registry');
  const later = addDays(ledger.clock(), 2);
  await practice?.passTo(later);
  ledger.setClock(later);
  await pollEveryAccount(ledger);
  await carryOnTransfers(ledger);
  await visitor.go('/transfers');
  await visitor.see('the losing side rejected it');
  await visitor.see('not moved');
  expect(practice?.world.domains.get('stillparlour.net')).toMatchObject({ registrar: 'fernhithe', lock: true });
  expect(await visitor.axe()).toEqual([]);
});

test('a transfer that nobody here asked for stands first in Today, and is rejected with one confirmation, by keyboard', async () => {
  const { visitor, practice } = app;
  const domain = practice?.world.domains.get('copperbuoy.com');
  if (domain) domain.lock = false;
  await visitor.go('/setup/practice');
  await visitor.fill('Name, with its lock off', 'copperbuoy.com');
  await visitor.keys(Key.ENTER);
  await visitor.see('Somebody has asked for it. Look at Today.');
  await visitor.go('/today');
  await visitor.see('Somebody is taking copperbuoy.com');
  expect(await visitor.axe()).toEqual([]);
  await visitor.pressByKey('Reject the transfer of copperbuoy.com…');
  await visitor.see('so that nobody can ask again');
  await visitor.pressByKey('Reject it');
  await visitor.see('Rejected: copperbuoy.com stays, locked, with a new code.');
  await visitor.gone('Somebody is taking copperbuoy.com');
  expect(domain).toMatchObject({ registrar: 'quaymark', lock: true, transfer: null });
});

test('name servers of a name are changed at its registrar', async () => {
  const { visitor, practice } = app;
  await visitor.go('/ledger/tidewick.com');
  await visitor.press('More');
  await visitor.click('Name servers…');
  await visitor.fill('Name servers, one a line', 'ns1.elsewhere.test');
  await visitor.press('Change them for one name');
  await visitor.see('Write 2 to 13 name servers, one a line.');
  await visitor.fill('Name servers, one a line', 'ns1.elsewhere.test ns2.elsewhere.test');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Change them for one name');
  await visitor.see('Name servers of one name are set.');
  expect(practice?.world.domains.get('tidewick.com')?.nameServers).toEqual([
    'ns1.elsewhere.test',
    'ns2.elsewhere.test',
  ]);
});

test('a name that came by push is taken into the ledger, and looked after', async () => {
  const { visitor } = app;
  await visitor.go('/transfers');
  await visitor.press('A name came by push…');
  await visitor.fill('Name', 'lampwick-pier.com');
  await visitor.choose('Into the account', 'Larkhythe');
  await visitor.fill('From', 'Oda Fennimore');
  await visitor.fill('Paid for it, GBP', '480');
  await visitor.press('Take it into the ledger');
  await visitor.see('Write the end of its term as Larkhythe shows it.');
  await visitor.fill('Its term ends, as Larkhythe shows it', '1 Mar 2027');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Take it into the ledger');
  await visitor.see('lampwick-pier.com is in the ledger.');
  await visitor.see('Oda Fennimore to Larkhythe');
  await visitor.go('/ledger/lampwick-pier.com');
  await visitor.see('480.00');
});
