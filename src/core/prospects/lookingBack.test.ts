import fc from 'fast-check';
import { expect, test } from 'vitest';
import { hitRates, type Said, saidInAll } from './index';

const said = (chance: number, count: number, true_: number): Said[] =>
  Array.from({ length: count }, (_, i) => ({ chance, happened: i < true_ }));

test('of all that was said to be thirty percent, how many came true', () => {
  const [rate] = hitRates(said(0.3, 200, 52));
  expect(rate).toMatchObject({ from: 0.2, to: 0.3, count: 200, said: expect.closeTo(0.3, 12), seen: 0.26 });
  // Source: the interval of Wilson 1927 at 90 percent, worked out by hand.
  const z = 1.6448536269514722;
  const n = 200;
  const middle = (0.26 + (z * z) / (2 * n)) / (1 + (z * z) / n);
  const half = (z * Math.sqrt((0.26 * 0.74) / n + (z * z) / (4 * n * n))) / (1 + (z * z) / n);
  expect(rate?.low).toBeCloseTo(middle - half, 12);
  expect(rate?.high).toBeCloseTo(middle + half, 12);
});

test('nothing is said of nothing, and what cannot happen is no hit', () => {
  expect(hitRates([])).toEqual([]);
  expect(hitRates(said(0, 5, 0))).toEqual([]);
  expect(saidInAll([])).toEqual({ said: 0, seen: 0 });
});

test('every name with a chance stands in one row, and the rows sum up to all', () => {
  const any = fc.array(fc.record({ chance: fc.double({ min: 0.0001, max: 1, noNaN: true }), happened: fc.boolean() }));
  fc.assert(
    fc.property(any, (all) => {
      const rates = hitRates(all);
      expect(rates.reduce((sum, { count }) => sum + count, 0)).toBe(all.length);
      const inAll = saidInAll(all);
      expect(rates.reduce((sum, { count, seen }) => sum + count * seen, 0)).toBeCloseTo(inAll.seen, 6);
      for (const { low, seen, high } of rates) {
        expect(low).toBeLessThanOrEqual(seen + 1e-12);
        expect(high).toBeGreaterThanOrEqual(seen - 1e-12);
      }
    }),
  );
});
