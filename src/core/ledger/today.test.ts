import fc from 'fast-check';
import { expect, test } from 'vitest';
import {
  chargeDays,
  consequenceOf,
  decideBy,
  indexRules,
  type LedgerName,
  lossPerDay,
  projectLedger,
  rowsOn,
  todayLists,
  todaySummary,
  worthIn,
} from '@/core/ledger';
import { amount } from '@/core/money';
import { addDays, type Day, dayIn, dayOf, formatInstant, type Instant } from '@/core/time';
import { nameWith, QUAYMARK, rulesWith, TODAY } from './sampleLedger';

const name = (ascii: string, days: number, more: Partial<LedgerName> = {}) =>
  nameWith(ascii, formatInstant(addDays(TODAY, days)), { registered: null, ...more });

const NAMES = [
  name('a-charged.com', 20, { setting: 'on' }),
  name('b-dear.com', 30, { setting: 'off', asking: amount(900_000, 'USD') }),
  name('c-modest.com', 30, { setting: 'off' }),
  name('d-never.com', 30, { setting: 'off', neverLost: true }),
  name('e-far.com', 300, { setting: 'off' }),
  name('f-late.com', -10, { setting: 'off' }),
  name('g-redemption.com', -60, { setting: 'stalled', asking: amount(120_000, 'USD') }),
  name('h-letgo.com', 10, { setting: 'off', purpose: 'drop' }),
  name('i-stalled.com', 12, { setting: 'stalled' }),
  name('j-fails.com', 40, { setting: 'on' }),
];
const account = { ...QUAYMARK, balanceMinor: 1500 };
const projection = projectLedger(indexRules(rulesWith({ accounts: [account] })), NAMES, TODAY);
const rows = (ahead: number) => {
  const read = rowsOn(projection, addDays(TODAY, ahead));
  return NAMES.map((_, place) => read(place));
};
const worth = worthIn(rulesWith(), TODAY);
const first = (ascii: string) => ascii.split('.')[0];

test('each name that needs a decision stands under what doing nothing leads to; what is dropped nags nobody', () => {
  const read = rowsOn(projection, TODAY);
  expect(NAMES.map((one, place) => [first(one.ascii), consequenceOf(read(place), TODAY)])).toEqual([
    ['a-charged', null],
    ['b-dear', 'dearer'],
    ['c-modest', 'dearer'],
    ['d-never', 'dearer'],
    ['e-far', null],
    ['f-late', 'dearer'],
    ['g-redemption', 'lost'],
    ['h-letgo', null],
    ['i-stalled', 'dearer'],
    ['j-fails', 'dearer'],
  ]);
});

test('a name lost in three days stands above a charge that fails in January, however little it is worth', () => {
  const names = [
    name('dear-fails.com', 58, { setting: 'on', asking: amount(9_000_000, 'USD') }),
    name('modest-lost.com', -72, { setting: 'off' }),
  ];
  const played = projectLedger(indexRules(rulesWith({ accounts: [{ ...account, balanceMinor: 0 }] })), names, TODAY);
  const read = rowsOn(played, TODAY);
  const lists = todayLists([read(0), read(1)], TODAY, worth, 'UTC');
  expect(lists.map(({ consequence, rows: found }) => [consequence, found.map((row) => first(row.name.ascii))])).toEqual(
    [
      ['lost', ['modest-lost']],
      ['stops working', []],
      ['dearer', ['dear-fails']],
    ],
  );
});

test('what comes first stands first; on one day what waiting costs most, and never to be lost outranks its price', () => {
  const dearer = todayLists(rows(0), TODAY, worth, 'UTC').find((list) => list.consequence === 'dearer');
  const order = dearer?.rows.map((row) => first(row.name.ascii)) ?? [];
  expect(order.filter((one) => ['b-dear', 'c-modest', 'd-never'].includes(one ?? ''))).toEqual([
    'd-never',
    'b-dear',
    'c-modest',
  ]);
  const at = dearer?.rows.map((row) => dayOf(decideBy(row) as Instant)) ?? [];
  expect(at).toEqual([...at].sort());
  const late = rowsOn(projection, TODAY)(5);
  // Late until day 45, then a restore and a year instead of a renewal: 113.80 more over the 35 days that are left.
  expect(lossPerDay(late, TODAY, worth)).toBeCloseTo(11_380 / 35, 6);
});

test('the answer at the top: what is lost by when, what saves it, what is charged and what fails meanwhile', () => {
  const lists = todayLists(rows(0), TODAY, worth, 'UTC');
  const lost = rowsOn(projection, TODAY)(6);
  expect(todaySummary(lists, chargeDays(projection, addDays(TODAY, 60)))).toEqual({
    lost: 1,
    lostBy: lost.deadline?.at,
    saving: [lost.deadline?.before],
    savingUnpriced: 0,
    charged: [amount(1138, 'USD')],
    charges: 1,
    unpriced: 0,
    fails: expect.any(Number),
    failsFrom: expect.any(Number),
  });
});

test('the charges of a day in the office’s zone stand together, those that fail apart', () => {
  const late = { ...rulesWith({ accounts: [{ ...account, balanceMinor: 2000 }] }), zone: 'Pacific/Kiritimati' };
  // 14 hours ahead of UTC: what is charged at 11:00 UTC falls on the next day there.
  const names = ['one.com', 'two.com', 'three.com'].map((ascii) => name(ascii, 20, { setting: 'on' }));
  const played = projectLedger(indexRules(late), names, TODAY);
  const days = chargeDays(played, addDays(TODAY, 60));
  expect(days.map(({ passes, count, amounts }) => [passes, count, amounts])).toEqual([
    [true, 1, [amount(1138, 'USD')]],
    [false, 2, [amount(2276, 'USD')]],
  ]);
  for (const { day, at } of days) expect(day).toBe(dayIn(at, 'Pacific/Kiritimati'));
  expect(days.flatMap(({ places }) => places).sort()).toEqual([0, 1, 2]);
});

test('nothing to decide is a good state', () => {
  const calm = projectLedger(indexRules(rulesWith()), [name('calm.com', 300, { setting: 'on' })], TODAY);
  expect(todayLists([rowsOn(calm, TODAY)(0)], TODAY, worth, 'UTC').every((list) => list.rows.length === 0)).toBe(true);
});

test('what waiting costs is compared in the home currency by a dated rate, and ranks last without one', () => {
  const dear = name('dear.com', 30, { setting: 'off', asking: amount(900_000, 'USD') });
  const yen = name('yen.com', 30, { setting: 'off', asking: amount(9_000_000, 'JPY') });
  const row = (one: LedgerName) =>
    rowsOn(projectLedger(indexRules(rulesWith({ accounts: [{ ...account, lateDays: 0 }] })), [one], TODAY), TODAY)(0);
  // Nine million yen are fewer than nine thousand dollars, however many more units they are.
  const lost = { ...row(yen), deadline: { ...row(yen).deadline, kind: 'lost', after: null, before: null } } as never;
  const kept = { ...row(dear), deadline: { ...row(dear).deadline, kind: 'lost', after: null, before: null } } as never;
  const rates = [{ from: '2026-01-01' as Day, currency: 'JPY', into: 'USD', factor: 0.0005 }];
  const byRate = worthIn({ rates, homeCurrency: 'USD' }, TODAY);
  expect(lossPerDay(lost, TODAY, byRate)).toBeCloseTo(450_000 / 30, 0);
  expect(lossPerDay(kept, TODAY, byRate)).toBeGreaterThan(lossPerDay(lost, TODAY, byRate));
  expect(lossPerDay(lost, TODAY, worth)).toBe(0);
});

test('what falls on one day is one day in the office’s zone, and the last of it is the day that is told', () => {
  // 12:00 and 23:00 UTC on one day: in Auckland the second falls on the next, and stands below however dear it is.
  const late = (ascii: string, hour: string, asking: number) =>
    nameWith(ascii, `2026-09-12T${hour}:00:00Z`, {
      registered: null,
      setting: 'off',
      asking: amount(asking, 'USD'),
    });
  const names = [late('noon.com', '10', 1_000), late('night.com', '23', 900_000)];
  const played = projectLedger(indexRules(rulesWith({ accounts: [account] })), names, TODAY);
  const read = rowsOn(played, TODAY);
  const listsIn = (zone: string) => todayLists([read(0), read(1)], TODAY, worth, zone);
  const lost = (zone: string) => listsIn(zone)[0]?.rows.map(({ name: { ascii } }) => first(ascii));
  expect(lost('UTC')).toEqual(['night', 'noon']);
  expect(lost('Pacific/Auckland')).toEqual(['noon', 'night']);
  // Whatever their order, all of them are lost only once the last is.
  const lastOf = (zone: string) => todaySummary(listsIn(zone), []).lostBy;
  expect(lastOf('UTC')).toBe(lastOf('Pacific/Auckland'));
  expect(lastOf('UTC')).toBe(read(1).deadline?.at);
});

test('whatever becomes of the names, each stands once, by day, and every charge is in exactly one day', () => {
  const someName = fc.record({
    days: fc.integer({ min: -80, max: 120 }),
    setting: fc.constantFrom<LedgerName['setting']>('on', 'off', 'stalled', 'unknown'),
    purpose: fc.constantFrom<LedgerName['purpose']>('in use', 'for sale', 'drop'),
    neverLost: fc.boolean(),
    asking: fc.option(fc.integer({ min: 1, max: 10 ** 8 })),
  });
  fc.assert(
    fc.property(fc.array(someName, { maxLength: 40 }), fc.integer({ min: 0, max: 20_000 }), (some, balanceMinor) => {
      const names = some.map(({ days, asking, ...more }, at) =>
        name(`n${at}.com`, days, { ...more, asking: asking === null ? null : amount(asking, 'USD') }),
      );
      const played = projectLedger(indexRules(rulesWith({ accounts: [{ ...account, balanceMinor }] })), names, TODAY);
      const read = rowsOn(played, TODAY);
      const found = names.map((_, place) => read(place));
      const lists = todayLists(found, TODAY, worth, 'UTC');
      const stood = lists.flatMap((list) => list.rows.map((row) => row.place));
      expect(new Set(stood).size).toBe(stood.length);
      expect(stood.toSorted((a, b) => a - b)).toEqual(
        found.filter((row) => consequenceOf(row, TODAY) !== null).map((row) => row.place),
      );
      for (const { rows: list } of lists) {
        const days = list.map((row) => dayOf(decideBy(row) as Instant));
        expect(days).toEqual(days.toSorted());
      }
      const until = addDays(TODAY, 60);
      const inDays = chargeDays(played, until).flatMap(({ places }) => places);
      const all = names.flatMap((_, place) => played.charges.of(place).filter(({ at }) => at >= TODAY && at <= until));
      expect(inDays.toSorted((a, b) => a - b)).toEqual(all.map(({ place }) => place).toSorted((a, b) => a - b));
    }),
  );
});
