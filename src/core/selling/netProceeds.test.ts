import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { commissionOn, type MarketplaceFees, NO_FEES, netProceedsOf, priceForProceeds } from '.';

const FEES: MarketplaceFees = { percent: 15, floorMinor: 2500, steps: [], saleFeeMinor: 0, listingFeeMinor: 0 };

/** Worked by hand: 15 % of 1,000.00 is 150.00; at least 25.00; above 5,000.00 only 10 % of what lies above. */
describe('net proceeds', () => {
  test.each([
    [100_000, FEES, 15_000],
    [10_000, FEES, 2500],
    [2000, FEES, 2000],
    [0, FEES, 0],
    [333, { ...FEES, floorMinor: 0 }, 50],
    [1_000_000, { ...FEES, steps: [{ fromMinor: 500_000, percent: 10 }] }, 125_000],
    [500_000, { ...FEES, steps: [{ fromMinor: 500_000, percent: 10 }] }, 75_000],
    [
      3_000_000,
      {
        ...FEES,
        steps: [
          { fromMinor: 500_000, percent: 10 },
          { fromMinor: 2_500_000, percent: 5 },
        ],
      },
      300_000,
    ],
    [100_000, NO_FEES, 0],
  ] as const)('commission on %d', (price, fees, expected) => {
    expect(commissionOn(price, fees)).toBe(expected);
  });

  test('fees come off besides', () => {
    expect(netProceedsOf(100_000, { ...FEES, saleFeeMinor: 500, listingFeeMinor: 1000 })).toEqual({
      priceMinor: 100_000,
      commissionMinor: 15_000,
      feesMinor: 1500,
      proceedsMinor: 83_500,
    });
  });

  test('backwards: the least whole price whose net proceeds are what is wanted', () => {
    const fees = fc.record({
      percent: fc.integer({ min: 0, max: 60 }),
      floorMinor: fc.integer({ min: 0, max: 5000 }),
      steps: fc.constantFrom([], [{ fromMinor: 100_000, percent: 5 }]),
      saleFeeMinor: fc.integer({ min: 0, max: 900 }),
      listingFeeMinor: fc.integer({ min: 0, max: 900 }),
    });
    fc.assert(
      fc.property(fees, fc.integer({ min: 1, max: 1_000_000 }), (rules, wanted) => {
        const price = priceForProceeds(wanted, rules, 100) as number;
        expect(price % 100).toBe(0);
        expect(netProceedsOf(price, rules).proceedsMinor).toBeGreaterThanOrEqual(wanted);
        expect(netProceedsOf(price - 100, rules).proceedsMinor).toBeLessThan(wanted);
      }),
    );
    expect(priceForProceeds(1, { ...NO_FEES, percent: 100 }, 100)).toBeNull();
  });
});
