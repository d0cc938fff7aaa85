import { describe, expect, test } from 'vitest';
import { indexRules } from '../ledger';
import { QUAYMARK, RENEWAL, rulesWith } from '../ledger/sampleLedger';
import { amount } from '../money';
import { readCondition } from '../pricing';
import type { Day } from '../time';
import { holdingOf, ownHolding } from './holding';

const DAY = '2026-11-24' as Day;
const ASKED = { day: DAY, newAt: new Set<number>(), codes: [], privacy: false };
const OTHER = { ...QUAYMARK, id: 2, label: 'Wrackgate' };
const price = (accountId: number, action: 'register' | 'renew' | 'transfer', yearMinor: number) => ({
  ...RENEWAL,
  accountId,
  action,
  yearMinor,
});

describe('holding a new name', () => {
  const index = indexRules(
    rulesWith({
      accounts: [QUAYMARK, OTHER],
      prices: [
        { ...price(1, 'register', 1470), firstYearMinor: 240, firstYearCondition: readCondition('') },
        price(1, 'renew', 1470),
        price(1, 'transfer', 1470),
        price(2, 'register', 1098),
        price(2, 'renew', 1098),
        price(2, 'transfer', 1098),
      ],
    }),
  );
  const held = holdingOf(index, 'com', ASKED);

  test('at each account, with the year from which a cheap beginning is the dearer one', () => {
    const totals = new Map(held.accounts.map(({ accountId, totals: own }) => [accountId, own.slice(0, 5)]));
    expect(totals.get(1)).toEqual([240, 1710, 3180, 4650, 6120]);
    expect(totals.get(2)).toEqual([1098, 2196, 3294, 4392, 5490]);
  });

  /** 2.40, then moved to where every further year costs 10.98. */
  test('the cheapest way of all moves', () => {
    expect(held.best.slice(0, 5).map((path) => path?.totalMinor)).toEqual([240, 1338, 2436, 3534, 4632]);
    for (const [n, path] of held.best.entries())
      for (const { totals } of held.accounts) expect(path?.totalMinor).toBeLessThanOrEqual(totals[n] ?? 0);
  });

  test('an ending that nobody sells has no price', () => {
    expect(holdingOf(index, 'org', ASKED).best.every((path) => path === null)).toBe(true);
  });
});

describe('a name with a price of its own', () => {
  const index = indexRules(
    rulesWith({ rates: [{ from: '2026-01-01' as Day, currency: 'EUR', into: 'USD', factor: 1.1 }] }),
  );
  const told = (register: number | null, renew: number | null, years = 1, currency = 'USD') =>
    ownHolding(
      index,
      {
        register: register === null ? null : amount(register, currency),
        renew: renew === null ? null : amount(renew, currency),
        years,
      },
      DAY,
    );

  test.each([
    ['a first year, then renewals', told(148_000, 30_000), [148_000, 178_000, 208_000]],
    ['a term of two years', told(20_000, 18_000, 2), [20_000, 20_000, 38_000]],
    ['renewals that were not said', told(148_000, null), [148_000, null, null]],
    ['no first price', told(null, 30_000), [null, null, null]],
    ['another currency, by its rate', told(10_000, 5000, 1, 'EUR'), [11_000, 16_500, 22_000]],
    ['a currency without a rate', told(10_000, 5000, 1, 'GBP'), [null, null, null]],
  ] as const)('%s', (_what, holding, expected) => {
    expect(holding.totals.slice(0, 3)).toEqual(expected);
  });

  test('its next renewal is told with its day', () => {
    expect(told(148_000, 30_000).next).toEqual({ minor: 30_000, years: 1, on: '2027-11-24' });
  });
});
