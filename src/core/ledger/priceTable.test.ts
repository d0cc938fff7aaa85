import { describe, expect, test } from 'vitest';
import { PLAIN_PRICE, type Price, readCondition } from '../pricing';
import type { Day } from '../time';
import {
  accountCrossings,
  bestPaths,
  cheapFirstYear,
  indexRules,
  type PricesAsked,
  pricedEndings,
  pricesOfEnding,
  riseOf,
} from './index';
import { GENERIC, QUAYMARK, rulesWith } from './sampleLedger';

const TODAY = '2026-11-24' as Day;
const ASKED: PricesAsked = { held: { kind: 'new' }, day: TODAY, newAt: new Set(), codes: [], privacy: false };
const CHEAP = { ...QUAYMARK, id: 2, label: 'Wrackgate' };
const POUNDS = { ...QUAYMARK, id: 3, label: 'Larkhythe', currency: 'GBP' };

const price = (accountId: number, more: Partial<Price>): Price => ({
  ...PLAIN_PRICE,
  accountId,
  nameId: null,
  ending: 'com',
  action: 'renew',
  currency: 'USD',
  yearMinor: 1130,
  feeIncluded: true,
  from: '2024-01-01' as Day,
  origin: 'list',
  ...more,
});
const bound = { firstYearMinor: 110, firstYearCondition: readCondition('at least 3 years') };
const PRICES = [
  price(1, {}),
  price(1, { action: 'register' }),
  price(2, { yearMinor: 1640 }),
  price(2, { action: 'register', yearMinor: 1640, ...bound }),
  price(3, { currency: 'GBP', yearMinor: 800 }),
  price(3, { currency: 'GBP', action: 'register', yearMinor: 800 }),
];
const GBP = { from: '2026-01-01' as Day, currency: 'GBP', into: 'USD', factor: 1.28 };
const index = (more: Parameters<typeof rulesWith>[0] = {}) =>
  indexRules(
    rulesWith({
      accounts: [QUAYMARK, CHEAP, POUNDS],
      policies: [{ ...GENERIC, yearlyFee: false }],
      prices: PRICES,
      ...more,
    }),
  );
const at = (found: ReturnType<typeof pricesOfEnding>, id: number) =>
  found.accounts.find(({ accountId }) => accountId === id);

describe('prices of an ending over the years', () => {
  test('each account’s totals, what is paid now, what comes next and when', () => {
    const found = pricesOfEnding(index({ rates: [GBP] }), 'com', ASKED);
    expect(at(found, 2)?.totals.slice(0, 4)).toEqual([1640, 3280, 3390, 5030]);
    expect(at(found, 1)?.totals.slice(0, 4)).toEqual([1130, 2260, 3390, 4520]);
    expect(at(found, 2)).toMatchObject({
      condition: 'at least 3 years',
      notCompared: null,
      rise: { yearly: 0, by: 'nothing' },
    });
    // After the three years that are bound together the ordinary price is due.
    expect(at(found, 2)?.next[2]).toEqual({ minor: 1640, years: 1, on: '2029-11-24' });
    expect(at(found, 1)?.next[0]).toEqual({ minor: 1130, years: 1, on: '2027-11-24' });
  });

  test('pounds are compared by a dated rate, and without one not at all, which is said', () => {
    expect(at(pricesOfEnding(index({ rates: [GBP] }), 'com', ASKED), 3)?.totals[0]).toBe(1024);
    expect(at(pricesOfEnding(index(), 'com', ASKED), 3)).toMatchObject({
      totals: Array(10).fill(null),
      notCompared: 'no rate',
    });
    const without = index({ prices: PRICES.filter(({ accountId }) => accountId !== 3) });
    expect(at(pricesOfEnding(without, 'com', ASKED), 3)).toMatchObject({ notCompared: 'no price' });
  });

  test('privacy that is wanted and whose price nobody knows leaves the whole unknown', () => {
    const wanted = { ...ASKED, privacy: true };
    expect(at(pricesOfEnding(index(), 'com', wanted), 1)).toMatchObject({ notCompared: 'privacy not known' });
    const free = price(1, {
      action: 'privacy',
      yearMinor: 450,
      firstYearMinor: 0,
      firstYearCondition: readCondition(''),
    });
    // Free for the first year, paid for from the second on.
    expect(at(pricesOfEnding(index({ prices: [...PRICES, free] }), 'com', wanted), 1)?.totals.slice(0, 3)).toEqual([
      1130,
      2260 + 450,
      3390 + 900,
    ]);
  });

  test('for new customers, and with a code, only where that is so', () => {
    const first = price(1, {
      action: 'register',
      yearMinor: 1210,
      firstYearMinor: 840,
      firstYearCondition: readCondition('new customers; code TIDE'),
    });
    const own = index({ prices: [price(1, { yearMinor: 1210 }), first] });
    const two = (more: Partial<PricesAsked>) => at(pricesOfEnding(own, 'com', { ...ASKED, ...more }), 1)?.totals[1];
    expect(two({})).toBe(2420);
    expect(two({ newAt: new Set([1]) })).toBe(2420);
    expect(two({ newAt: new Set([1]), codes: ['tide'] })).toBe(2050);
  });

  test('a held name: staying, and what moving in costs; the best way moves where that is cheaper', () => {
    const prices = [...PRICES, price(1, { action: 'transfer', yearMinor: 900 })];
    const held = { kind: 'held' as const, accountId: 2, yearsLeft: 0.4 };
    const found = pricesOfEnding(index({ prices }), 'com', { ...ASKED, held });
    const best = bestPaths(index({ prices }), 'com', { ...ASKED, held });
    expect(at(found, 2)?.totals.slice(0, 2)).toEqual([1640, 3280]);
    expect(at(found, 1)?.totals.slice(0, 2)).toEqual([900, 2030]);
    expect(at(found, 3)).toMatchObject({ notCompared: 'no price' });
    expect(best[1]?.payments).toMatchObject([
      { action: 'transfer', accountId: 1 },
      { action: 'renew', accountId: 1 },
    ]);
    // The first charge comes with the end of the term, less than five months from now; the next a year later.
    expect(at(found, 1)?.next[1]?.on).toBe('2028-04-19');
  });

  test('crossings name both accounts and the year', () => {
    const { accounts } = pricesOfEnding(index(), 'com', ASKED);
    expect(accountCrossings(accounts)).toEqual([
      { years: 3, cheaper: 'equal', first: 1, second: 2 },
      { years: 4, cheaper: 'first', first: 1, second: 2 },
    ]);
  });

  test('every ending that a list names, once', () => {
    expect(
      pricedEndings(index({ prices: [...PRICES, price(1, { ending: 'io' }), price(1, { ending: 'ai', nameId: 7 })] })),
    ).toEqual(['com', 'io']);
  });
});

describe('how prices rise', () => {
  const older = price(1, { yearMinor: 1000, from: '2022-01-01' as Day });
  test.each([
    ['two prices more than a year apart', { prices: [older, price(1, { yearMinor: 1210 })] }, 0.1, 'list'],
    [
      'two prices less than a year apart',
      { prices: [{ ...older, from: '2023-06-01' as Day }, price(1, { yearMinor: 1210 })] },
      0,
      'nothing',
    ],
    ['prices of two currencies', { prices: [{ ...older, currency: 'EUR' }, price(1, {})] }, 0, 'nothing'],
    ['one price', { prices: [price(1, {})] }, 0, 'nothing'],
    [
      'a price that doubled was for something else',
      { prices: [{ ...older, yearMinor: 100 }, price(1, {})] },
      0,
      'nothing',
    ],
    [
      'what the office says outranks its list',
      { prices: [older, price(1, { yearMinor: 1210 })], rises: [{ accountId: 1, ending: 'com', yearly: 0.03 }] },
      0.03,
      'office',
    ],
  ] as const)('%s', (_what, more, yearly, by) => {
    const rise = riseOf(index(more), 1, 'com');
    expect([Number(rise.yearly.toFixed(2)), rise.by]).toEqual([yearly, by]);
  });
});

test.each([
  [
    'a cheap first year',
    { firstYearMinor: 99, firstYearCondition: readCondition('one year only') },
    { firstMinor: 99, laterMinor: 1130 },
  ],
  [
    'a first year at nearly the price of the others',
    { firstYearMinor: 1000, firstYearCondition: readCondition('') },
    null,
  ],
  ['no first price', {}, null],
])('%s that becomes dear', (_what, more, expected) => {
  const prices = [price(1, {}), price(1, { action: 'register', ...more })];
  const found = pricesOfEnding(index({ prices }), 'com', ASKED);
  expect(cheapFirstYear({ paths: at(found, 1)?.paths ?? [] })).toEqual(expected);
});
