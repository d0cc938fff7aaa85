import { describe, expect, test } from 'vitest';
import { type CheckedListing, checkListing, HANDOVER_DAYS } from '@/core/selling';
import { addDays } from '@/core/time';

import { listing, MARKETPLACE, NOW, prices } from './sampleListing';

const codes = (checked: CheckedListing) => checkListing(checked).map(({ code }) => code);

/** The order of prices, whole. Source: minimum ≤ asking ≤ buy-now; start ≤ reserve < buy-now (docs/selling.md). */
describe('the order of prices', () => {
  test.each([
    ['minimum', 'asking', false, 'fixed price, offers too'],
    ['asking', 'buyNow', false, 'fixed price, offers too'],
    ['minimum', 'buyNow', false, 'fixed price, offers too'],
    ['start', 'reserve', false, 'auction'],
    ['reserve', 'buyNow', true, 'auction'],
    ['start', 'buyNow', true, 'auction'],
  ] as const)('%s against %s', (lower, upper, strictly, kind) => {
    const base = kind === 'fixed price, offers too' ? { asking: null } : { start: null };
    const at = (low: number, high: number) =>
      checkListing(listing({ kind, prices: prices({ ...base, [lower]: low, [upper]: high }) })).filter(
        ({ code }) => code === 'order of prices',
      );
    expect(at(50_000, 60_000)).toEqual([]);
    expect(at(50_000, 50_000)).toHaveLength(strictly ? 1 : 0);
    expect(at(60_000, 50_000)).toMatchObject([{ price: lower, other: upper, stops: true }]);
  });

  test('prices that the kind does not use are not looked at', () => {
    expect(
      codes(listing({ kind: 'fixed price', prices: prices({ asking: 50_000, minimum: 90_000, reserve: 1 }) })),
    ).toEqual([]);
  });
});

describe('what is checked of a listing', () => {
  const fine = prices({ minimum: 20_000, asking: 50_000 });
  test.each<[string, Parameters<typeof listing>[0], string[]]>([
    ['nothing is wrong', { prices: fine }, []],
    ['an asking price is missing', { kind: 'fixed price' }, ['price missing']],
    ['a start is missing', { kind: 'auction' }, ['price missing']],
    ['open to offers needs no price', { kind: 'open to offers' }, []],
    ['not whole', { prices: prices({ asking: 50_050 }) }, ['price not whole']],
    ['nothing', { prices: prices({ asking: 0 }) }, ['price not whole', 'below cost']],
    ['another currency', { prices: fine, currency: 'EUR' }, ['currency not taken']],
    [
      'any currency where the marketplace names none',
      { prices: fine, currency: 'EUR', marketplace: { ...MARKETPLACE, currencies: [] } },
      [],
    ],
    ['too long an auction', { kind: 'auction', auctionDays: 31, prices: prices({ start: 9000 }) }, ['auction length']],
    [
      'no auction of a day and a half',
      { kind: 'auction', auctionDays: 1.5, prices: prices({ start: 9000 }) },
      ['auction length'],
    ],
    [
      'a length that the marketplace does not have',
      { kind: 'auction', auctionDays: 10, prices: prices({ start: 9000 }) },
      ['auction length'],
    ],
    [
      'a marketplace without auctions',
      { kind: 'auction', prices: prices({ start: 9000 }), marketplace: { ...MARKETPLACE, auctionDays: [] } },
      ['no auctions here'],
    ],
    ['too long a pitch', { prices: fine, pitch: 'x'.repeat(121) }, ['too long']],
    ['too long a description', { prices: fine, description: 'x'.repeat(4001) }, ['too long']],
    ['payout not set', { prices: fine, marketplace: { ...MARKETPLACE, payoutSet: false } }, ['payout not set']],
    ['cost not known', { prices: fine, costMinor: null }, ['cost not known']],
    ['below cost', { prices: prices({ asking: 4900 }) }, ['below cost']],
    ['below cost after commission', { prices: prices({ asking: 5800 }) }, ['proceeds below cost']],
    [
      'a start below cost under a reserve above it',
      { kind: 'auction', prices: prices({ start: 100, reserve: 9000 }) },
      [],
    ],
    ['a start below cost without one', { kind: 'auction', prices: prices({ start: 100 }) }, ['below cost']],
    [
      'the term ends before it could be handed over',
      { prices: fine, termEnd: addDays(NOW, 3 + HANDOVER_DAYS - 1) },
      ['term too short'],
    ],
    ['… just not', { prices: fine, termEnd: addDays(NOW, 3 + HANDOVER_DAYS) }, []],
    [
      '… with the auction before it',
      { kind: 'auction', prices: prices({ start: 9000 }), termEnd: addDays(NOW, 30) },
      ['term too short'],
    ],
    ['locked for sixty days', { prices: fine, lockedUntil: addDays(NOW, 9) }, ['transfer lock']],
    ['a lock that has passed', { prices: fine, lockedUntil: NOW }, []],
    ['not where it is believed', { prices: fine, atAccount: false }, ['not at the account']],
  ])('%s', (_, more, expected) => {
    expect(codes(listing(more))).toEqual(expected);
  });

  test('figures: the loss, and the least price that leaves none', () => {
    expect(checkListing(listing({ prices: prices({ asking: 4000 }) }))).toMatchObject([{ figure: 1000, stops: false }]);
    // 50.00 after the least commission of 25.00 takes 75.00.
    expect(checkListing(listing({ prices: prices({ asking: 6000 }) }))).toMatchObject([{ figure: 7500 }]);
    expect(HANDOVER_DAYS).toBe(15);
  });
});
