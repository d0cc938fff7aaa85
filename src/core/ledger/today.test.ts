import { expect, test } from 'vitest';
import {
  indexRules,
  type LedgerName,
  lossPerDay,
  projectLedger,
  rowsOn,
  todayGroup,
  todayLists,
  todaySummary,
  worthIn,
} from '@/core/ledger';
import { amount } from '@/core/money';
import { addDays, type Day, formatInstant } from '@/core/time';
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

test('each name that needs a decision stands in one group, by consequence; what is dropped nags nobody', () => {
  expect(NAMES.map((one, place) => [first(one.ascii), todayGroup(rowsOn(projection, TODAY)(place), TODAY)])).toEqual([
    ['a-charged', 'will be charged'],
    ['b-dear', 'lapses'],
    ['c-modest', 'lapses'],
    ['d-never', 'lapses'],
    ['e-far', null],
    ['f-late', 'past its term'],
    ['g-redemption', 'past its term'],
    ['h-letgo', null],
    ['i-stalled', 'charge will fail'],
    ['j-fails', 'charge will fail'],
  ]);
});

test('within a group, what waiting costs most per day comes first; never to be lost outranks the rest of its price', () => {
  const lapses = todayLists(rows(0), TODAY, worth).find((list) => list.group === 'lapses');
  expect(lapses?.rows.map((row) => first(row.name.ascii))).toEqual(['d-never', 'b-dear', 'c-modest']);
  const late = rowsOn(projection, TODAY)(5);
  // Late until day 45, then a restore and a year instead of a renewal: 113.80 more over the 35 days that are left.
  expect(lossPerDay(late, TODAY, worth)).toBeCloseTo(11_380 / 35, 6);
});

test('the line at the top: charged, lapsing and lost within thirty days', () => {
  expect(todaySummary(projection, rows(0), rows(30))).toEqual({
    charged: [amount(1138, 'USD')],
    charges: 1,
    unpriced: 0,
    lapses: 5,
    dateless: 0,
    lost: 1,
  });
});

test('nothing to decide is a good state', () => {
  const calm = projectLedger(indexRules(rulesWith()), [name('calm.com', 300, { setting: 'on' })], TODAY);
  expect(todayLists([rowsOn(calm, TODAY)(0)], TODAY, worth).every((list) => list.rows.length === 0)).toBe(true);
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
