import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { addDays } from '@/core/time';
import { carryOnReleases } from '@/usecases/acquiring/carryOnReleases';
import { carryOutSwitches } from '@/usecases/links/switches';
import { blankDomain } from '../../practice/world/domain';
import { TODAY } from '../database/ledger';
import { startApp, type TestApp } from './app';

let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true, practice: true });
});
afterAll(() => app.close());

const focusGrid = () => app.visitor.driver.executeScript('document.querySelector("[role=grid]").focus()');

test('ideas, table, shortlist, review, registered, in the ledger with its deadline: by keyboard alone', async () => {
  const { visitor, ledger, practice } = app;
  await visitor.go('/acquire?set=new');
  await visitor.see('Write some words.');
  expect(await visitor.axe()).toEqual([]);
  await visitor.tabTo('Ideas: words');
  await visitor.keys('brinelamp, wherry');
  await visitor.pressByKey('Look them up');
  await visitor.see('brinelampwherry');
  await visitor.see('Answers are used again for 6 hours.');
  await focusGrid();
  await visitor.keys(Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ARROW_RIGHT);
  await visitor.see('Spell out and register');
  await visitor.see('whiskey hotel echo romeo romeo yankee');
  expect(await visitor.axe()).toEqual([]);
  await visitor.keys(Key.TAB);
  await visitor.pressByKey('Spell out and register');
  await visitor.see('Until 24 Nov 2027');
  await visitor.see('or the name stops working.');
  await visitor.see('In all');
  expect(await visitor.axe()).toEqual([]);
  await visitor.pressByKey('Register one name for');
  await visitor.see('Never for more than these sums.');
  expect(await visitor.axe()).toEqual([]);
  await visitor.pressByKey('Register for');
  await visitor.see('registered');
  await visitor.see('Holders’ mail addresses');
  expect(await visitor.axe()).toEqual([]);
  const { rows } = await ledger.database.query<{ ascii: string; charged: number; receipt: string }>(
    'select ascii, charged_minor as charged, receipt from registrations',
  );
  const [made] = rows;
  expect(rows).toHaveLength(1);
  expect(practice?.world.domains.get(made?.ascii ?? '')).toMatchObject({ owner: 'office' });
  await carryOutSwitches(ledger);
  expect(practice?.world.domains.get(made?.ascii ?? '')).toMatchObject({ auto: 'on', lock: true });
  await visitor.go(`/ledger/${made?.ascii}`);
  await visitor.see('The holder’s mail address has to be confirmed by 8 Dec');
  await visitor.see(made?.receipt ?? 'no receipt');
});

test('a misspelling is caught in the review: against one’s names and against what was typed', async () => {
  const { visitor } = app;
  await visitor.go('/acquire/shortlist');
  await visitor.fill('Name', 'habourloft.com');
  await visitor.pressByKey('Put it on the shortlist');
  await visitor.see('habour: did you mean harbour?');
  await visitor.see('Register one name for');
  await visitor.press('Take habourloft.com off the shortlist');
  await visitor.see('No name is on the shortlist.');
});

test('a taken name is watched, ordered for its release, and got', async () => {
  const { visitor, ledger, practice } = app;
  practice?.world.domains.set('ketterloft.com', {
    ...blankDomain('ketterloft.com', 'larkhythe', TODAY - 4e10, addDays(TODAY, -40)),
    owner: 'stranger',
    state: 'pending delete',
    since: addDays(TODAY, -4),
    deletedAt: addDays(TODAY, -34),
  });
  if (practice) practice.world.grabs = () => false;
  await visitor.go('/acquire/waiting?order=ketterloft.com');
  await visitor.fill('At most for the first term, USD', '20');
  await visitor.fill('At most for each renewal, USD', '20');
  await visitor.fill('Tried until, that day included', '20 Dec 2026');
  await visitor.tabTo('Quaymark');
  await visitor.keys(' ');
  await visitor.see('At, in this order: Quaymark');
  expect(await visitor.axe()).toEqual([]);
  await visitor.pressByKey('Order it');
  await visitor.see('0 asked for, 1 waited for');
  await carryOnReleases(ledger);
  const later = addDays(TODAY, 2);
  await practice?.passTo(later);
  ledger.setClock(later);
  await carryOnReleases(ledger);
  await visitor.go('/acquire/waiting');
  await visitor.see('registered');
  await visitor.click('What was tried');
  await visitor.see('Quaymark: registered for $11.38');
  expect(await visitor.axe()).toEqual([]);
  await visitor.go('/ledger/ketterloft.com');
  await visitor.see('ketterloft.com');
  await visitor.go('/record');
  await visitor.see('Watched:');
});

test('a holder is asked, agreed with, paid, and the name arrives', async () => {
  const { visitor, practice } = app;
  const name = 'wherryhold.com';
  practice?.world.domains.set(name, {
    ...blankDomain(name, 'quaymark', TODAY - 4e10, addDays(TODAY, 300)),
    owner: 'stranger',
    holder: 'Oda Fennimore',
  });
  await visitor.go(`/acquire/waiting?ask=${name}`);
  await visitor.fill('The most you would pay, fees included, USD', '400');
  await visitor.keys(Key.ENTER);
  await visitor.see('You say it');
  await visitor.fill(`Your words about ${name}`, 'Would you part with it?');
  await visitor.fill('Figure, USD', '250');
  await visitor.keys(Key.ENTER);
  await visitor.see('Would you part with it?');
  expect(await visitor.axe()).toEqual([]);
  await visitor.click('It is agreed');
  await visitor.choose('It comes into', 'Quaymark');
  await visitor.press('Write the agreement down');
  await visitor.see('agreed for $250.00, to be paid');
  await visitor.press('It is paid');
  await visitor.see('to arrive at Quaymark by push');
  await visitor.press('Look whether it has arrived');
  await visitor.see('Look whether the push went through.');
  Object.assign(practice?.world.domains.get(name) ?? {}, { owner: 'office' });
  await visitor.press('Look whether it has arrived');
  await visitor.see('is in the ledger, its cost is booked.');
  await visitor.go(`/ledger/${name}`);
  await visitor.see('$250.00');
});

test('names about to come free are taken in and fit one’s ideas', async () => {
  const { visitor } = app;
  await visitor.go('/acquire/waiting');
  await visitor.click('Bring in a list');
  await visitor.fill('Where it comes from', 'harbour list');
  await visitor.fill(
    'Names with their days, as a table (CSV) or one a line',
    'name,date\nternbeam.com,2026-12-09\nkelpkiln.org,2026-12-10\nno name,',
  );
  await visitor.press('Take it in');
  await visitor.see('2 names added, 0 known already, 1 refused: line 4');
  await visitor.see('ternbeam.com');
  expect(await visitor.axe()).toEqual([]);
});
