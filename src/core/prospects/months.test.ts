import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type Instant, instant, monthOf } from '../time';
import { HORIZON_MONTHS, monthAt, monthNames, monthScale } from './index';
import { horizonOf, monthPlace } from './months';

const anyNow = fc.integer({ min: Date.UTC(2020, 0, 1), max: Date.UTC(2060, 0, 1) }).map((at) => at as Instant);

describe('months from now', () => {
  test('the first is the one that today lies in, and ten years are 120 of them', () => {
    const scale = monthScale(instant('2026-11-24T09:12:00Z'));
    const names = monthNames(scale);
    expect(names.slice(0, 3)).toEqual(['2026-11', '2026-12', '2027-01']);
    expect(names).toHaveLength(HORIZON_MONTHS);
    expect(new Date(horizonOf(scale)).toISOString()).toBe('2036-11-01T00:00:00.000Z');
    // 23 days and 9.2 hours of thirty.
    expect(scale.start).toBeCloseTo((23 + 9.2 / 24) / 30, 9);
  });

  test('an instant lies in the month that the calendar has it in', () => {
    fc.assert(
      fc.property(anyNow, fc.double({ min: 0, max: 0.999, noNaN: true }), (now, share) => {
        const scale = monthScale(now);
        const at = (now + share * (horizonOf(scale) - now)) as Instant;
        expect(monthNames(scale)[monthAt(scale, at)]).toBe(monthOf(at));
        expect(Math.floor(monthPlace(scale, at))).toBe(monthAt(scale, at));
      }),
    );
  });

  test('what lies before the first month or behind the last is told as such', () => {
    const scale = monthScale(instant('2026-11-24T00:00:00Z'));
    expect(monthAt(scale, Date.UTC(2026, 9, 31))).toBe(-1);
    expect(monthPlace(scale, Date.UTC(2020, 0, 1))).toBe(0);
    expect(monthAt(scale, horizonOf(scale))).toBe(HORIZON_MONTHS);
    expect(monthPlace(scale, Date.UTC(2090, 0, 1))).toBe(HORIZON_MONTHS);
    expect(monthAt(scale, horizonOf(scale) - 1)).toBe(HORIZON_MONTHS - 1);
  });
});
