import gammaCdfOf from '@stdlib/stats-base-dists-gamma-cdf';
import gammaQuantileOf from '@stdlib/stats-base-dists-gamma-quantile';
import lognormalQuantileOf from '@stdlib/stats-base-dists-lognormal-quantile';
import negativeBinomial from '@stdlib/stats-base-dists-negative-binomial';
import normalQuantileOf from '@stdlib/stats-base-dists-normal-quantile';
import { xoroshiro128plusFromState } from 'pure-rand/generator/xoroshiro128plus';
import { describe, expect, test } from 'vitest';
import { chanceOfSale, gammaQuantile, meanShare, normalCdf, normalQuantile, type SaleRate } from '@/core/odds';
import {
  fanOf,
  HORIZON_MONTHS,
  monthScale,
  type Outcome,
  simulated,
  streamOf,
  uniform,
  wholeCourse,
} from '@/core/prospects';
import { bookOf, scheduleOf } from '@/core/prospects/sampleBook';
import { instant } from '@/core/time';

/** The first instant of a month, so that a year from now is twelve whole months. */
const SCALE = monthScale(instant('2026-12-01T00:00:00Z'));
/** λ as good as fixed. */
const fixed = (lambda: number): SaleRate => ({ sales: lambda * 1e12, nameYears: 1e12 });

const meanOf = (values: ArrayLike<number>) => Array.from(values).reduce((sum, one) => sum + one, 0) / values.length;
function varianceOf(values: ArrayLike<number>): number {
  const mean = meanOf(values);
  return Array.from(values).reduce((sum, one) => sum + (one - mean) ** 2, 0) / (values.length - 1);
}
/** How many standard errors the mean of values lies from what it should be. */
const errorsOff = (values: ArrayLike<number>, mean: number, variance: number) =>
  Math.abs(meanOf(values) - mean) / Math.sqrt(variance / values.length);

function played(
  names: Parameters<typeof bookOf>[0],
  until: number,
  rates: readonly SaleRate[],
  paths: number,
  seed = 7,
): Outcome {
  const book = bookOf(names, rates);
  const course = wholeCourse('all', scheduleOf(names.map(() => ({ until }))), book);
  const [outcome] = simulated({ book, courses: [course], scale: SCALE, openingMinor: 0, seed, paths });
  return outcome as Outcome;
}
const inFirstYear = ({ sold, paths }: Outcome) => sold.subarray(0, paths);

describe('distributions', () => {
  const shares = [1e-6, 0.001, 0.01, 0.05, 0.2, 0.5, 0.61, 0.8, 0.95, 0.999, 1 - 1e-9];
  // Source: @stdlib/stats-base-dists-*, a general-purpose library of distributions.
  test('quantiles of the normal and the lognormal', () => {
    for (const share of shares) {
      expect(normalQuantile(share)).toBeCloseTo(normalQuantileOf(share, 0, 1), 9);
      const lognormal = 0.6 * Math.exp(0.5 * normalQuantile(share));
      expect(lognormal / lognormalQuantileOf(share, Math.log(0.6), 0.5)).toBeCloseTo(1, 9);
      expect(normalCdf(normalQuantile(share)) / share).toBeCloseTo(1, 8);
    }
    // Further out the library is less exact; source: tables of the normal distribution, from memory.
    expect(normalQuantile(1e-12)).toBeCloseTo(-7.0344838253, 9);
  });
  test.each([
    [0.3, 20],
    [2, 100],
    [9.5, 410],
    [400, 20_000],
  ])('quantiles and the distribution function of a gamma of shape %f and rate %f', (a, b) => {
    for (const share of shares.slice(1, -1)) {
      const at = gammaQuantile(share, a, b);
      expect(at / gammaQuantileOf(share, a, b)).toBeCloseTo(1, 7);
      expect(gammaCdfOf(at, a, b)).toBeCloseTo(share, 9);
    }
  });
  test('the mean share of the asking price is the integral of the lognormal, between a floor and one: 0.633450', () => {
    // Source: the integral, as a sum over 200,000 quantiles of the library.
    const integral = (floor: number) => {
      let sum = 0;
      for (let i = 0; i < 200_000; i += 1)
        sum += Math.min(1, Math.max(floor, lognormalQuantileOf((i + 0.5) / 200_000, Math.log(0.6), 0.5)));
      return sum / 200_000;
    };
    expect(meanShare({ median: 0.6, sigma: 0.5 }, 0.3)).toBeCloseTo(0.63345, 6);
    for (const floor of [0, 0.3, 0.9])
      expect(meanShare({ median: 0.6, sigma: 0.5 }, floor)).toBeCloseTo(integral(floor), 6);
  });
});

describe('random numbers', () => {
  test('the generator gives the published vectors of xoroshiro128+ from the state 1, 2', () => {
    // Source: the reference implementation of its authors; the low 32 bits of each of its numbers.
    const stream = xoroshiro128plusFromState([0, 1, 0, 2]);
    for (const published of [3n, 412333834243n, 2360170716294286339n])
      expect(BigInt(stream.next() >>> 0)).toBe(published & 0xffffffffn);
  });
  test('a stream is the same for the same seed, path and group, and neighbours have nothing in common', () => {
    const first = (seed: number, path: number, group: number) => streamOf(seed, path, group).next();
    expect(first(1, 2, 3)).toBe(first(1, 2, 3));
    const all = new Set<number>();
    for (let i = 0; i < 20; i += 1)
      for (let j = 0; j < 20; j += 1) for (let k = 0; k < 20; k += 1) all.add(first(i, j, k));
    expect(all.size).toBeGreaterThan(7990);
    // Of first draws over neighbouring paths: mean and variance of a uniform variable, 4 standard errors.
    const draws = Array.from({ length: 40_000 }, (_, path) => uniform(streamOf(1, path, 0)));
    expect(errorsOff(draws, 0.5, 1 / 12)).toBeLessThan(4);
    expect(Math.abs(varianceOf(draws) - 1 / 12)).toBeLessThan(4 * Math.sqrt(1 / 180 / 40_000));
  });
});

describe('names of one group in one year, one λ on each path', () => {
  const rate = { sales: 2, nameYears: 100 };
  const outcome = played(
    Array.from({ length: 50 }, () => ({})),
    12,
    [rate],
    40_000,
  );
  const sold = inFirstYear(outcome);
  // Source: (b / (b + N))^a, and the moments of a beta-binomial.
  const none = (100 / 150) ** 2;
  test('none of fifty: 0.444444', () => {
    expect(none).toBeCloseTo(0.444444, 6);
    const share = fanOf(outcome, 12, 0).unsold[11] ?? 0;
    expect(Math.abs(share - none)).toBeLessThan(4 * Math.sqrt((none * (1 - none)) / 40_000));
  });
  test('mean 0.985198, variance 1.42746', () => {
    const p = chanceOfSale(rate, 1, 0);
    expect(50 * p).toBeCloseTo(0.985198, 6);
    const both = 1 - 2 * (1 - p) + (100 / 102) ** 2;
    const variance = 50 * p * (1 - p) + 50 * 49 * (both - p * p);
    expect(variance).toBeCloseTo(1.42746, 5);
    expect(errorsOff(sold, 50 * p, variance)).toBeLessThan(4);
    expect(varianceOf(sold)).toBeCloseTo(variance, 1);
  });
  test('with names that are sold and stay on offer it would be a negative binomial: how often nothing is sold is the same', () => {
    // Source: the library's negative binomial of a and b / (b + N).
    expect(negativeBinomial.pmf(0, 2, 100 / 150)).toBeCloseTo(none, 12);
  });
  test('ten thousand names of one group spread by 142 a year, not by 43', () => {
    const many = played(
      Array.from({ length: 10_000 }, () => ({})),
      12,
      [rate],
      1500,
    );
    const spread = Math.sqrt(varianceOf(inFirstYear(many)));
    expect(spread).toBeGreaterThan(142 * 0.9);
    expect(spread).toBeLessThan(142 * 1.1);
    const alone = played(
      Array.from({ length: 2000 }, (_, group) => ({ group })),
      12,
      Array.from({ length: 2000 }, () => rate),
      400,
    );
    expect(Math.sqrt(varianceOf(inFirstYear(alone)))).toBeLessThan(43 * Math.sqrt(2000 / 10_000) * 1.2);
  });
});

test('ten thousand names at a fixed rate of 0.02: mean 198.013, variance 194.092', () => {
  // Source: the binomial of N and 1 − e^−λ.
  const p = -Math.expm1(-0.02);
  expect(10_000 * p).toBeCloseTo(198.013, 3);
  expect(10_000 * p * (1 - p)).toBeCloseTo(194.092, 3);
  for (let seed = 1; seed <= 20; seed += 1) {
    const sold = inFirstYear(
      played(
        Array.from({ length: 10_000 }, () => ({})),
        12,
        [fixed(0.02)],
        150,
        seed,
      ),
    );
    expect(errorsOff(sold, 10_000 * p, 10_000 * p * (1 - p))).toBeLessThan(4);
  }
});

test('a factor multiplies the rate: names with different ones share it', () => {
  const outcome = played([{ factor: 1 }, { factor: 5 }, { factor: 5 }], 120, [fixed(0.3)], 20_000);
  const p = (factor: number) => -Math.expm1(-0.3 * factor);
  const variance = [1, 5, 5].reduce((sum, factor) => sum + p(factor) * (1 - p(factor)), 0);
  expect(errorsOff(inFirstYear(outcome), p(1) + 2 * p(5), variance)).toBeLessThan(4);
});

describe('cash at a fixed rate, with names given up on different days', () => {
  const LAMBDA = 0.35;
  const names = Array.from({ length: 40 }, (_, i) => ({
    asking: 50_000 + 1700 * i,
    until: 9.5 + 2.75 * i,
    charges: Array.from(
      { length: Math.floor((9.5 + 2.75 * i) / 12) + 1 },
      (_, k) => [Math.min(119, (i % 12) + 12 * k), 1100 + 13 * i] as const,
    ),
  }));
  /** Source: every month in which one name may be sold, weighed by its closed-form chance; names are independent at a fixed rate. */
  const [mean, variance] = names.reduce(
    ([mean, variance], { asking, until, charges }) => {
      const held = Math.min(until, HORIZON_MONTHS);
      const unsold = (month: number) => Math.exp((-LAMBDA * Math.min(month, held)) / 12);
      const paid = (month: number) => charges.reduce((sum, [at, minor]) => sum + (at <= month ? minor : 0), 0);
      const cases = Array.from(
        { length: HORIZON_MONTHS },
        (_, m) => [unsold(m) - unsold(m + 1), asking - paid(m)] as const,
      );
      const all = [...cases, [unsold(HORIZON_MONTHS), -paid(HORIZON_MONTHS)] as const];
      const one = all.reduce((sum, [p, cash]) => sum + p * cash, 0);
      return [mean + one, variance + all.reduce((sum, [p, cash]) => sum + p * (cash - one) ** 2, 0)];
    },
    [0, 0],
  );
  test('mean and variance over 20 seeds lie within 4 standard errors of the closed forms', () => {
    const book = bookOf(names, [fixed(LAMBDA)]);
    const course = wholeCourse('mixed', scheduleOf(names), book);
    for (let seed = 1; seed <= 20; seed += 1) {
      const [outcome] = simulated({ book, courses: [course], scale: SCALE, openingMinor: 0, seed, paths: 2000 });
      const last = (outcome as Outcome).balances.subarray(119 * 2000);
      expect(errorsOff(last, mean, variance)).toBeLessThan(4);
      // A sum of forty names is near enough to a normal variable for the error of its variance.
      expect(Math.abs(varianceOf(last) - variance)).toBeLessThan(4 * variance * Math.sqrt(2 / 2000) * 1.2);
    }
  });
});

describe('running out', () => {
  // One name a month, on offer that month alone; it costs 1 and sells for 2 with 0.55: one up or one down, from 5.
  const P = 0.55;
  const names = Array.from({ length: 120 }, (_, i) => ({
    asking: 2,
    from: i,
    until: i + 1,
    charges: [[i, 1] as const],
  }));
  /** Source: hitting times of a random walk (Feller), by its exact distribution month by month. */
  function ruinBy(months: number): number {
    let states = new Map([[5, 1]]);
    let ruined = 0;
    for (let month = 0; month < months; month += 1) {
      const next = new Map<number, number>();
      for (const [at, p] of states)
        for (const [to, share] of [
          [at + 1, P],
          [at - 1, 1 - P],
        ] as const)
          if (to === 0) ruined += p * share;
          else next.set(to, (next.get(to) ?? 0) + p * share);
      states = next;
    }
    return ruined;
  }
  test('gambler’s ruin: for ever 0.366648, within 120 months 0.331118', () => {
    expect(((1 - P) / P) ** 5).toBeCloseTo(0.366648, 6);
    expect(ruinBy(120)).toBeCloseTo(0.331118, 6);
    const book = bookOf(names, [fixed(-12 * Math.log(1 - P))]);
    const course = wholeCourse('walk', scheduleOf(names), book);
    const paths = 20_000;
    const [outcome] = simulated({ book, courses: [course], scale: SCALE, openingMinor: 5, seed: 3, paths });
    // Nothing left is the floor of the walk; here the money has to be below it, and 1 is what one whole unit is.
    const short = fanOf(outcome as Outcome, 120, 1).short.at(-1) ?? 0;
    expect(Math.abs(short - 0.331118)).toBeLessThan(4 * Math.sqrt((0.331118 * 0.668882) / paths));
  });
});

test('a rate beyond all bounds: every name sells in its first month, for exactly what it is asked', () => {
  const names = Array.from({ length: 300 }, (_, i) => ({
    asking: 10_000 + i,
    until: 120,
    charges: [[0, 700] as const, [12, 700] as const],
  }));
  const book = bookOf(names, [{ sales: Number.POSITIVE_INFINITY, nameYears: 1 }]);
  const course = wholeCourse('at once', scheduleOf(names), book);
  const [outcome] = simulated({ book, courses: [course], scale: SCALE, openingMinor: 1000, seed: 1, paths: 3 });
  const proceeds = names.reduce((sum, { asking }) => sum + asking, 0);
  expect([...(outcome as Outcome).balances]).toEqual(Array.from({ length: 360 }, () => 1000 + proceeds - 300 * 700));
});

test('two courses on the same numbers: the spread of their difference falls tenfold', () => {
  const names = Array.from({ length: 400 }, (_, i) => ({
    asking: 80_000,
    until: 120,
    charges: [[i % 12, 1200] as const],
  }));
  const book = bookOf(names, [{ sales: 2, nameYears: 100 }]);
  const all = wholeCourse('all', scheduleOf(names), book);
  const ten = wholeCourse('ten dropped', scheduleOf(names.map((name, i) => (i < 4 ? { until: 1 } : name))), book);
  const play = (seed: number, courses: (typeof all)[]) =>
    simulated({ book, courses, scale: SCALE, openingMinor: 0, seed, paths: 800 });
  const ends = ({ balances, paths }: Outcome) => balances.subarray(119 * paths);
  const difference = (a: Outcome, b: Outcome) => Float64Array.from(ends(a), (one, i) => one - (ends(b)[i] as number));
  const [one, other] = play(1, [all, ten]) as [Outcome, Outcome];
  const [apart] = play(2, [ten]) as [Outcome];
  const ratio = Math.sqrt(varianceOf(difference(one, apart)) / varianceOf(difference(one, other)));
  expect(ratio).toBeGreaterThan(10);
});
