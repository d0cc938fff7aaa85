import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import xirr from 'xirr';
import { yearlyReturn } from '@/core/selling';
import { addDays, type Day, instant, startOfDay } from '@/core/time';

const NOW = instant('2026-11-24T09:12:00Z');
const day = (text: string) => text as Day;

/** Checked against the general-purpose package `xirr` (internal rate of return over dated amounts). */
describe('the yearly return', () => {
  test('agrees with the package on random histories of a name', () => {
    const past = fc.record({ back: fc.integer({ min: 60, max: 4000 }), minor: fc.integer({ min: 500, max: 60_000 }) });
    fc.assert(
      fc.property(
        fc.array(past, { minLength: 1, maxLength: 9 }),
        fc.integer({ min: 5000, max: 5_000_000 }),
        (spent, sold) => {
          const money = [
            ...spent.map(({ back, minor }) => ({ at: addDays(NOW, -back), minor: -minor })),
            { at: NOW, minor: sold },
          ];
          const own = yearlyReturn(
            money.map(({ at, minor }) => ({ day: day(new Date(at).toISOString().slice(0, 10)), minor })),
          );
          let other: number | null = null;
          try {
            other = xirr(
              money.map(({ at, minor }) => ({
                amount: minor,
                when: new Date(startOfDay(day(new Date(at).toISOString().slice(0, 10)))),
              })),
            );
          } catch {
            // The package does not converge on some; those are not compared.
          }
          if (other !== null && Number.isFinite(other) && other > -0.99)
            expect((1 + (own ?? 0)) / (1 + other)).toBeCloseTo(1, 5);
        },
      ),
      { numRuns: 300 },
    );
  });

  test('a doubling within a year is a hundred percent; what cannot be told is null', () => {
    expect(
      yearlyReturn([
        { day: day('2025-01-01'), minor: -100 },
        { day: day('2026-01-01'), minor: 200 },
      ]),
    ).toBeCloseTo(1, 9);
    expect(yearlyReturn([{ day: day('2025-01-01'), minor: -100 }])).toBeNull();
    expect(yearlyReturn([{ day: day('2025-01-01'), minor: 100 }])).toBeNull();
    expect(
      yearlyReturn([
        { day: day('2025-01-01'), minor: -100 },
        { day: day('2025-01-01'), minor: 200 },
      ]),
    ).toBeNull();
    expect(yearlyReturn([])).toBeNull();
  });
});
