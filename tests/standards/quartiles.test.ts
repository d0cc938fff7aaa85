import { describe, expect, test } from 'vitest';
import { compareSales, type PastSale, quantile, sharedWord } from '@/core/selling';
import type { Day } from '@/core/time';

const day = (text: string) => text as Day;

/** Source of the quartiles: Hyndman and Fan, "Sample Quantiles in Statistical Packages", 1996, definition 7; R's `quantile(1:4)` is 1.75, 2.5, 3.25. */
describe('comparables', () => {
  test('quartiles', () => {
    expect([0.25, 0.5, 0.75].map((share) => quantile([4, 2, 1, 3], share))).toEqual([1.75, 2.5, 3.25]);
    expect(quantile([7], 0.25)).toBe(7);
  });

  test('the likest names come first, of the same currency only', () => {
    const sale = (ascii: string, minor: number, currency = 'USD'): PastSale => ({
      ascii,
      price: { minor, currency },
      day: day('2026-01-01'),
      marketplace: '',
      own: false,
    });
    const found = compareSales(
      'copperbuoy.com',
      [
        sale('copperkeel.com', 80_000),
        sale('tidewick.com', 40_000),
        sale('x1-99.io', 900_000),
        sale('saltbuoy.com', 60_000),
        sale('copperbuoy.com', 1),
        sale('copperwharf.com', 70_000, 'EUR'),
      ],
      'USD',
    );
    expect(found?.sales.map(({ ascii }) => ascii)).toEqual(['copperkeel.com', 'saltbuoy.com', 'tidewick.com']);
    expect(found).toMatchObject({ lowerMinor: 50_000, medianMinor: 60_000, upperMinor: 70_000 });
    expect(compareSales('copperbuoy.com', [], 'USD')).toBeNull();
    expect(sharedWord('copperbuoy', 'saltbuoy')).toBe('buoy');
    expect(sharedWord('abc', 'abc')).toBe('');
  });
});
