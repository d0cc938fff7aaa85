import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Rate } from '../money';
import type { WindowTerms } from '../selling';
import { type Day, instant } from '../time';
import { confirmUntil, depositFor, depositFrom, leastOf, lettersTaken, mailboxOf } from './letter';

const NOW = instant('2026-11-28T12:00:00Z');
const RATES: readonly Rate[] = [{ from: '2026-11-20' as Day, currency: 'EUR', into: 'USD', factor: 1.25 }];
const TERMS: WindowTerms = {
  currency: 'USD',
  priceMinor: 60_000,
  takesOffers: true,
  minimumMinor: 20_000,
  auction: null,
};
const AUCTION = { closesAt: NOW, priceMinor: null, leastMinor: 10_000, reserve: 'none' as const, reserveMinor: null };

test.each([
  ['a price and offers', TERMS, ['purchase', 'offer']],
  ['a price alone', { ...TERMS, takesOffers: false }, ['purchase']],
  ['offers alone', { ...TERMS, priceMinor: null }, ['offer']],
  ['an auction', { ...TERMS, priceMinor: null, takesOffers: false, auction: AUCTION }, ['bid']],
  ['an auction with a buy-now price', { ...TERMS, takesOffers: false, auction: AUCTION }, ['purchase', 'bid']],
] as const)('%s: what is taken', (_, terms, kinds) => {
  expect(lettersTaken(terms)).toEqual(kinds);
});

describe('the least', () => {
  test('of an offer is told in the buyer’s currency, by the rate of the day', () => {
    // 200.00 USD at 1.25 USD a euro.
    expect(leastOf('offer', TERMS, 'EUR', RATES, NOW)).toEqual({ minor: 16_000, currency: 'EUR' });
    expect(leastOf('offer', TERMS, 'USD', RATES, NOW)?.minor).toBe(20_000);
  });
  test('is not known without a rate, or where none is said', () => {
    expect(leastOf('offer', TERMS, 'SEK', RATES, NOW)).toBeNull();
    expect(leastOf('offer', { ...TERMS, minimumMinor: null }, 'USD', RATES, NOW)).toBeNull();
    expect(leastOf('purchase', TERMS, 'USD', RATES, NOW)).toBeNull();
  });
  test('of a bid is the price and a step', () => {
    expect(leastOf('bid', { ...TERMS, auction: AUCTION }, 'USD', RATES, NOW)?.minor).toBe(10_000);
  });
});

describe('a deposit', () => {
  const RULE = { fromMinor: 30_000, currency: 'USD', percent: 10 };
  test.each([
    ['below', 29_999, 0],
    ['at', 30_000, 3_000],
    ['above, rounded up', 30_001, 3_001],
  ])('%s the amount', (_, max, wanted) => {
    expect(depositFor(RULE, max, 'USD', RATES, NOW)).toBe(wanted);
  });
  test('is reckoned in the auction’s currency; without a rate none is wanted', () => {
    expect(depositFrom(RULE, 'EUR', RATES, NOW)).toBe(24_000);
    expect(depositFor(RULE, 24_000, 'EUR', RATES, NOW)).toBe(2_400);
    expect(depositFor(RULE, 1_000_000, 'SEK', RATES, NOW)).toBe(0);
    expect(depositFor(null, 1_000_000, 'USD', RATES, NOW)).toBe(0);
  });
  test('never exceeds what is bid', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e9 }), fc.double({ min: 0.1, max: 100, noNaN: true }), (max, percent) => {
        const wanted = depositFor({ ...RULE, fromMinor: 0, percent }, max, 'USD', RATES, NOW);
        expect(wanted).toBeGreaterThan(0);
        expect(wanted).toBeLessThanOrEqual(max);
      }),
    );
  });
});

test.each([
  ['b.kelp@kelpworks.test', 'b.kelp@kelpworks.test'],
  ['B.Kelp+one@KelpWorks.test', 'b.kelp@kelpworks.test'],
  ['b.kelp+one+two@kelpworks.test', 'b.kelp@kelpworks.test'],
  ['"a@b"@kelpworks.test', '"a@b"@kelpworks.test'],
])('%s is the mailbox of %s', (mail, mailbox) => {
  expect(mailboxOf(mail)).toBe(mailbox);
});

test('a letter may be confirmed for a week', () => {
  expect(confirmUntil(NOW)).toBe(instant('2026-12-05T12:00:00Z'));
});
