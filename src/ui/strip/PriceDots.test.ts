import fc from 'fast-check';
import { expect, test } from 'vitest';
import { decadesOf } from './PriceDots';

test('the line runs from the power of ten below the least price to the one above the highest', () => {
  expect(decadesOf([45_000, 1_234_000], 100)).toEqual([10_000, 100_000, 1_000_000, 10_000_000]);
  expect(decadesOf([100_000], 100)).toEqual([100_000, 1_000_000]);
  expect(decadesOf([0, -5], 100)).toEqual([]);
});

test('every price lies between the ends, whatever the prices', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 10 ** 11 }), { minLength: 1 }), (prices) => {
      const decades = decadesOf(prices, 100);
      expect(decades[0]).toBeLessThanOrEqual(Math.min(...prices) * (1 + 1e-9));
      expect(decades.at(-1)).toBeGreaterThanOrEqual(Math.max(...prices) * (1 - 1e-9));
    }),
  );
});
