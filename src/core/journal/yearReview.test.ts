import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import xirr from 'xirr';
import type { Rate } from '../money';
import type { Day } from '../time';
import { type DaySum, REVIEW_PARTS, reviewLines } from './index';

const sum = (key: string, part: DaySum['part'], day: string, minor: number, currency = 'USD'): DaySum => ({
  key,
  part,
  day: day as Day,
  minor,
  currency,
});
const group = (key: string) => ({ key, names: 1, sales: 1 });

describe('a line of the review', () => {
  test('proceeds are prices less fees, and what is left over is these less the cost', () => {
    const period = [
      sum('com', 'cost', '2026-02-01', 1200),
      sum('com', 'price', '2026-06-30', 60_000),
      sum('com', 'fee', '2026-06-30', 6000),
    ];
    const [line] = reviewLines({ groups: [group('com'), group('net')], period, sold: [] }, 'USD', []);
    expect(line).toMatchObject({
      proceeds: { minor: 54_000 },
      surplus: { minor: 52_800 },
      profit: { minor: 0 },
      yearlyReturn: null,
    });
  });

  test('the return is what the package for internal rates finds', () => {
    // Source: xirr, of npm. At least two years lie between: returns of days come to figures that neither of the two can tell apart.
    const day = fc
      .integer({ min: 0, max: 2400 })
      .map((days) => new Date(Date.UTC(2018, 0, 1) + days * 86_400_000).toISOString().slice(0, 10));
    fc.assert(
      fc.property(
        fc.array(fc.tuple(day, fc.integer({ min: 800, max: 40_000 })), { minLength: 1, maxLength: 8 }),
        fc.double({ min: 0.3, max: 3, noNaN: true }),
        (costs, times) => {
          const price = Math.round(times * costs.reduce((all, [, minor]) => all + minor, 0));
          const sold = [
            ...costs.map(([on, minor]) => sum('x', 'cost', on, minor)),
            sum('x', 'price', '2026-11-24', price),
          ];
          const [line] = reviewLines({ groups: [group('x')], period: [], sold }, 'USD', []);
          const found = xirr([
            ...costs.map(([on, minor]) => ({ amount: -minor, when: new Date(on) })),
            { amount: price, when: new Date('2026-11-24') },
          ]);
          expect((1 + (line?.yearlyReturn ?? 0)) / (1 + found)).toBeCloseTo(1, 5);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('every amount counts by the rate of its day, and one without a rate leaves the figure unknown, not the others', () => {
    const rates: Rate[] = [
      { from: '2026-01-01' as Day, currency: 'EUR', into: 'USD', factor: 1.1 },
      { from: '2026-07-01' as Day, currency: 'EUR', into: 'USD', factor: 1.2 },
    ];
    const period = [
      sum('com', 'cost', '2026-03-01', 1000, 'EUR'),
      sum('com', 'cost', '2026-08-01', 1000, 'EUR'),
      sum('com', 'fee', '2026-08-01', 5, 'XAF'),
      sum('com', 'price', '2026-08-01', 90, 'USD'),
    ];
    const [line] = reviewLines({ groups: [group('com')], period, sold: [] }, 'USD', rates);
    expect(line).toMatchObject({
      cost: { minor: 2300, currency: 'USD' },
      price: { minor: 90 },
      fees: null,
      proceeds: null,
      surplus: null,
    });
  });

  test('lines sum up to the whole, however the entries are divided', () => {
    const entry = fc.record({
      key: fc.constantFrom('com', 'net', 'org'),
      part: fc.constantFrom(...REVIEW_PARTS),
      day: fc.constantFrom('2026-01-05', '2026-09-30') as fc.Arbitrary<Day>,
      minor: fc.integer({ min: -50_000, max: 50_000 }),
      currency: fc.constant('USD'),
    });
    fc.assert(
      fc.property(fc.array(entry, { maxLength: 30 }), (period) => {
        const groups = ['com', 'net', 'org'].map(group);
        const lines = reviewLines({ groups, period, sold: period }, 'USD', []);
        const [whole] = reviewLines(
          {
            groups: [group('')],
            period: period.map((one) => ({ ...one, key: '' })),
            sold: period.map((one) => ({ ...one, key: '' })),
          },
          'USD',
          [],
        );
        for (const figure of ['cost', 'price', 'fees', 'proceeds', 'surplus', 'profit'] as const)
          expect(lines.reduce((all, line) => all + (line[figure]?.minor ?? 0), 0)).toBe(whole?.[figure]?.minor);
      }),
    );
  });
});
