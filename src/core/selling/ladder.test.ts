import { describe, expect, test } from 'vitest';
import { ladderOf, placeOn, priceAt, scaleOf } from '@/core/selling';

import { FEES, listing, prices } from './sampleListing';

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
