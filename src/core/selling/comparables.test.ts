import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Day } from '../time';
import { compareSales, type PastSale } from './comparables';

test('what is like a name does not depend on the order in which sales came', () => {
  // More sales of one likeness and one day than are counted.
  const sales: PastSale[] = Array.from({ length: 30 }, (_, i) => ({
    ascii: `kelp${String.fromCharCode(97 + (i % 26))}ail.com`,
    price: { minor: 10_000 + i * 100, currency: 'USD' },
    day: '2026-03-01' as Day,
    marketplace: i % 2 ? 'Test Hall' : '',
    own: i % 3 === 0,
  }));
  const usual = compareSales('kelpsail.com', sales, 'USD');
  expect(usual?.sales).toHaveLength(12);
  fc.assert(
    fc.property(fc.shuffledSubarray(sales, { minLength: sales.length }), (order) => {
      expect(compareSales('kelpsail.com', order, 'USD')).toEqual(usual);
    }),
  );
});
