import fc from 'fast-check';
import { expect, test } from 'vitest';
import xirr from 'xirr';
import type { Day } from '../time';
import { breakEvenRise, pastRise, savedByLongerTerm, yearlyWorthToday } from './longerTerm';

/** Checked against the general-purpose package `xirr` (internal rate of return over dated amounts). */
test('the discount rate at which both ways come to the same is the internal rate of return of their difference', () => {
  const [yearMinor, years, rise] = [1200, 5, 0.06];
  const nowMinor = 5600;
  // One way less the other: the first year's price is spared now, the later ones in 365-day years, as the package counts.
  const flows = Array.from({ length: years }, (_, year) => ({
    amount: yearMinor * (1 + rise) ** year - (year === 0 ? nowMinor : 0),
    when: new Date(Date.UTC(2026, 10, 24) + year * 365 * 86_400_000),
  }));
  const rate = xirr(flows);
  expect(savedByLongerTerm({ nowMinor, firstMinor: yearMinor, yearMinor, years, rise, discount: rate })).toBeCloseTo(
    0,
    3,
  );
});

test('the break-even rise makes both equal, and a higher one makes the longer term cheaper', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 300, max: 20_000 }),
      fc.integer({ min: 2, max: 10 }),
      fc.double({ min: 0, max: 0.2, noNaN: true }),
      fc.double({ min: 0.6, max: 1.4, noNaN: true }),
      (yearMinor, years, discount, share) => {
        const nowMinor = Math.round(yearMinor * years * share);
        const rise = breakEvenRise({ nowMinor, firstMinor: yearMinor, yearMinor, years, discount });
        if (rise === null) return;
        expect(
          savedByLongerTerm({ nowMinor, firstMinor: yearMinor, yearMinor, years, rise, discount }) / nowMinor,
        ).toBeCloseTo(0, 9);
        expect(
          savedByLongerTerm({ nowMinor, firstMinor: yearMinor, yearMinor, years, rise: rise + 0.01, discount }),
        ).toBeGreaterThan(0);
      },
    ),
  );
});

test.each([
  // Without rise and discount, n years cost n times one.
  [{ yearMinor: 1138, years: 3, rise: 0, discount: 0 }, 3414],
  [{ yearMinor: 1000, years: 2, rise: 0.1, discount: 0 }, 2100],
  [{ yearMinor: 1000, years: 2, rise: 0, discount: 0.25 }, 1800],
])('%j is worth %d today', (term, worth) => {
  expect(yearlyWorthToday({ firstMinor: term.yearMinor, ...term })).toBeCloseTo(worth, 9);
});

test('one year has nothing to compare', () => {
  expect(breakEvenRise({ nowMinor: 1138, firstMinor: 1138, yearMinor: 1138, years: 1, discount: 0 })).toBeNull();
});

test('a late fee, like a promotion, is paid once and not each year', () => {
  const plain = { yearMinor: 1000, years: 5, rise: 0, discount: 0 };
  expect(yearlyWorthToday({ ...plain, firstMinor: 1350 })).toBe(5350);
  expect(yearlyWorthToday({ ...plain, firstMinor: 500 })).toBe(4500);
});

test('the rise that a price list has had is a proposal, where it goes back far enough', () => {
  const at = (from: string, yearMinor: number) => ({ from: from as Day, yearMinor });
  expect(pastRise([at('2024-01-01', 1000), at('2026-01-01', 1210)])).toBeCloseTo(0.1, 3);
  expect(pastRise([at('2026-01-01', 1210), at('2024-01-01', 1000)])).toBeCloseTo(0.1, 3);
  expect(pastRise([at('2025-01-01', 1000), at('2026-01-01', 900)])).toBeCloseTo(-0.1, 3);
  expect(pastRise([at('2026-01-01', 1000), at('2026-03-01', 1100)])).toBeNull();
  expect(pastRise([at('2026-01-01', 1000)])).toBeNull();
  expect(pastRise([])).toBeNull();
});
