import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { askingFor, chanceOfSale, expectedProceeds, type Keeping, keepValue, meanShare, type SaleRate } from './index';

/** λ as good as fixed: a gamma whose spread is beyond all figures here. */
const fixed = (lambda: number): SaleRate => ({ sales: lambda * 1e12, nameYears: 1e12 });
const years = (cost: number, count: number) => Array.from({ length: count }, () => cost);
const NO_FEES = { percent: 0, floorMinor: 0, steps: [], saleFeeMinor: 0, listingFeeMinor: 0 };

/** Source: the closed form of a stream of constant values, a geometric series. */
const closedForm = (c: number, n: number, p: number, beta: number, horizon: number) => {
  const q = beta * (1 - p);
  return Math.max(0, ((p * n - c) * (1 - q ** horizon)) / (1 - q));
};

describe('constant values', () => {
  const p = chanceOfSale(fixed(0.02), 1, 0);
  test('the recursion over ten years is the closed form: 39.1048', () => {
    const { value } = keepValue({
      costs: years(12, 10),
      proceeds: 900,
      rate: fixed(0.02),
      factor: 1,
      discount: 1 / 1.08,
    });
    expect(value).toBeCloseTo(39.1048, 4);
    expect(value).toBeCloseTo(closedForm(12, 900, p, 1 / 1.08, 10), 6);
  });
  test('for ever it would be 62.9940', () => {
    expect(closedForm(12, 900, p, 1 / 1.08, 1e6)).toBeCloseTo(62.994, 4);
  });
});

/** Source: every plan tried. A plan keeps a name for so many years unless it is sold; what it is worth is added up path by path. */
function everyPlan({ costs, proceeds, rate, factor, discount }: Keeping): number[] {
  return Array.from({ length: costs.length + 1 }, (_, kept) => {
    let [worth, unsold, now] = [0, 1, 1];
    for (let t = 0; t < kept; t += 1) {
      const left = ((rate.nameYears + factor * t) / (rate.nameYears + factor * (t + 1))) ** rate.sales;
      worth += now * unsold * (-(costs[t] as number) + (1 - left) * proceeds);
      unsold *= left;
      now *= discount;
    }
    return worth;
  });
}

describe('rising costs, and a chance that is less believed in with every year without a sale', () => {
  const keeping: Keeping = {
    costs: Array.from({ length: 6 }, (_, t) => 12 * 1.07 ** t),
    proceeds: 760,
    rate: { sales: 2, nameYears: 100 },
    factor: 1,
    discount: 1 / 1.1,
  };
  test('is worth 5.49961 and kept three years: the best of all seven plans', () => {
    const { value, years: kept } = keepValue(keeping);
    expect(value).toBeCloseTo(5.49961, 5);
    expect(kept).toBe(3);
    const plans = everyPlan(keeping);
    expect(plans).toHaveLength(7);
    expect(Math.max(...plans)).toBeCloseTo(5.49961, 5);
    expect(plans.indexOf(Math.max(...plans))).toBe(3);
  });
});

const anyKeeping: fc.Arbitrary<Keeping> = fc.record({
  costs: fc.array(fc.oneof(fc.constant(0), fc.double({ min: 0.5, max: 60, noNaN: true })), {
    minLength: 1,
    maxLength: 10,
  }),
  proceeds: fc.double({ min: 0, max: 4000, noNaN: true }),
  rate: fc.record({
    sales: fc.double({ min: 0.05, max: 40, noNaN: true }),
    nameYears: fc.double({ min: 1, max: 2000, noNaN: true }),
  }),
  factor: fc.double({ min: 0.05, max: 20, noNaN: true }),
  discount: fc.double({ min: 0.5, max: 1, noNaN: true }),
});

test('the recursion finds what an exhaustive search finds', () => {
  fc.assert(
    fc.property(anyKeeping, (keeping) => {
      const best = Math.max(...everyPlan(keeping).slice(1));
      const { value } = keepValue(keeping);
      // Dropping at once is worth nothing; what is told is what keeping is worth.
      expect(Math.abs(value - best)).toBeLessThan(1e-8 * (1 + Math.abs(best)));
    }),
  );
});

test('at the least proceeds keeping is worth its cost, and just below them it is not', () => {
  fc.assert(
    fc.property(anyKeeping, (keeping) => {
      const { leastProceeds } = keepValue(keeping);
      fc.pre(Number.isFinite(leastProceeds) && leastProceeds > 1e-6);
      const at = (proceeds: number) => keepValue({ ...keeping, proceeds }).value;
      expect(at(leastProceeds * (1 + 1e-9) + 1e-9)).toBeGreaterThanOrEqual(0);
      expect(at(leastProceeds * (1 - 1e-6) - 1e-9)).toBeLessThan(0);
    }),
  );
});

test('a name that cannot sell is worth nothing that it costs', () => {
  const none = keepValue({ costs: [12], proceeds: 900, rate: { sales: 2, nameYears: 100 }, factor: 0, discount: 0.9 });
  expect(none).toEqual({ value: -12, years: 0, chance: 0, leastProceeds: Number.POSITIVE_INFINITY });
});

describe('the least asking price worth another year', () => {
  const share = { median: 0.6, sigma: 0.5 };
  const fees = { ...NO_FEES, percent: 15 };
  test('without a least offer it is c / (p × mean share × (1 − fee)); with one of 0.3 the mean share is 0.633450', () => {
    expect(meanShare(share, 0.3)).toBeCloseTo(0.63345, 6);
    const p = chanceOfSale(fixed(0.02), 1, 0);
    // The least offer moves with the price here, as a share of it.
    expect(12 / (p * meanShare(share, 0.3) * 0.85)).toBeCloseTo(1125.53, 2);
    const { leastProceeds } = keepValue({
      costs: years(1200, 10),
      proceeds: 0,
      rate: fixed(0.02),
      factor: 1,
      discount: 1 / 1.08,
    });
    expect(leastProceeds).toBeCloseTo(1200 / p, 4);
    const asking = askingFor(leastProceeds, { minimumMinor: 0, fees }, share) ?? 0;
    expect(Math.abs(asking - 1200 / (p * meanShare(share, 0) * 0.85))).toBeLessThan(1);
  });

  test('is what halving the recursion finds, whatever the fees', () => {
    fc.assert(
      fc.property(
        anyKeeping,
        fc.integer({ min: 0, max: 50_000 }),
        fc.constantFrom(
          fees,
          { ...fees, floorMinor: 2500 },
          { ...NO_FEES, percent: 20, steps: [{ fromMinor: 100_000, percent: 10 }], saleFeeMinor: 300 },
        ),
        (keeping, minimumMinor, some) => {
          const costs = keeping.costs.map((cost) => cost * 100);
          const { leastProceeds } = keepValue({ ...keeping, costs });
          fc.pre(leastProceeds > 1 && leastProceeds < 1e9);
          const value = (askingMinor: number) =>
            keepValue({
              ...keeping,
              costs,
              proceeds: expectedProceeds({ askingMinor, minimumMinor, fees: some }, share),
            }).value;
          const least = askingFor(leastProceeds * (1 + 1e-12), { minimumMinor, fees: some }, share) ?? 0;
          expect(value(least + 1)).toBeGreaterThanOrEqual(-1e-6);
          expect(value(least - 1)).toBeLessThan(1e-6);
        },
      ),
      { numRuns: 40 },
    );
  });
});
