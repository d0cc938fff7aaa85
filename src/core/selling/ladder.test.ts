import { describe, expect, test } from 'vitest';
import {
  type CheckedListing,
  ladderOf,
  type MarketplaceFees,
  type MarketplaceRules,
  NO_PRICES,
  placeOn,
  priceAt,
  scaleOf,
} from '@/core/selling';
import { addDays, instant } from '@/core/time';

const NOW = instant('2026-11-24T09:12:00Z');
const FEES: MarketplaceFees = { percent: 15, floorMinor: 2500, steps: [], saleFeeMinor: 0, listingFeeMinor: 0 };
const MARKETPLACE: MarketplaceRules = {
  currencies: ['USD'],
  wholeUnits: true,
  auctionDays: [7, 14],
  reviewHours: 72,
  payoutSet: true,
  fees: FEES,
};
function listing(
  more: Partial<Omit<CheckedListing, 'offered'>> & Partial<CheckedListing['offered']> = {},
): CheckedListing {
  const { kind = 'fixed price, offers too', currency = 'USD', prices = NO_PRICES, auctionDays = 14, ...rest } = more;
  return {
    offered: { kind, currency, prices, auctionDays },
    costMinor: 5000,
    unitMinor: 100,
    marketplace: MARKETPLACE,
    pitch: '',
    description: '',
    now: NOW,
    termEnd: addDays(NOW, 300),
    lockedUntil: null,
    atAccount: true,
    ...rest,
  };
}
const prices = (more: Partial<typeof NO_PRICES>) => ({ ...NO_PRICES, ...more });

describe('the ladder', () => {
  test('rungs rise, each with its net proceeds', () => {
    const rungs = ladderOf(listing({ prices: prices({ minimum: 20_000, asking: 50_000 }) }).offered, 5000, FEES, 100);
    expect(rungs.map(({ kind, minor, profitMinor }) => [kind, minor, profitMinor])).toEqual([
      ['cost', 5000, -2500],
      ['no loss', 7500, 0],
      ['minimum', 20_000, 12_000],
      ['asking', 50_000, 37_500],
    ]);
    expect(ladderOf(listing({ prices: prices({ asking: 50_000 }) }).offered, null, FEES, 100)).toMatchObject([
      { kind: 'asking', profitMinor: null },
    ]);
  });

  test('a price that is dragged lands where it is drawn, to two digits', () => {
    const scale = scaleOf([5000, 50_000, 500_000], 100);
    for (const price of [7500, 12_000, 95_000, 500_000]) expect(priceAt(scale, placeOn(scale, price), 100)).toBe(price);
    expect(placeOn(scale, 0)).toBe(0);
    expect(placeOn(scale, 1e9)).toBe(1);
    expect(scaleOf([], 100).lowMinor).toBeGreaterThan(0);
  });
});
