import { gammaQuantile } from './distributions';

/**
 * What is held of how often names of a group sell: λ, sales in a name-year, is gamma distributed with shape `sales` and rate `nameYears`,
 * as if that many had been seen in so many name-years. Both above 0.
 */
export interface SaleRate {
  readonly sales: number;
  readonly nameYears: number;
}

/** What was seen adds to what was assumed: s sales in T name-years on offer make gamma(a, b) into gamma(a + s, b + T). */
export function afterSales({ sales, nameYears }: SaleRate, seen: SaleRate): SaleRate {
  return { sales: sales + seen.sales, nameYears: nameYears + seen.nameYears };
}

/**
 * The chance that a name not sold in `from` years is sold within the `years` after them; `factor` multiplies λ. Closed form of the
 * gamma mixture: 1 − ((b + f t) / (b + f (t + y)))^a.
 */
export function chanceOfSale({ sales, nameYears }: SaleRate, factor: number, from: number, years = 1): number {
  return -Math.expm1(-sales * Math.log1p((factor * years) / (nameYears + factor * from)));
}

/** The chances of a sale within each of ten years, if it has not come before; by rate and factor, since many names share both. */
const known = new WeakMap<SaleRate, Map<number, Float64Array>>();
const YEARS = 10;

/** `chanceOfSale` within each of the ten years from now on, worked out once for each rate and factor. */
export function yearlyChances(rate: SaleRate, factor: number): Float64Array {
  let byFactor = known.get(rate);
  if (!byFactor) {
    byFactor = new Map();
    known.set(rate, byFactor);
  }
  let chances = byFactor.get(factor);
  if (!chances) {
    chances = Float64Array.from({ length: YEARS }, (_, year) => chanceOfSale(rate, factor, year));
    byFactor.set(factor, chances);
  }
  return chances;
}

/** Far beyond anything that could be meant, far below what a computer has no number for. */
const GREATEST_FACTOR = 1e12;

/**
 * The factor at which the chance of a sale within the first year is `chance` (0 to below 1): what the owner said of one name. 1 where nothing is held to sell
 * at all: no factor makes anything of that.
 */
export function factorFor({ sales, nameYears }: SaleRate, chance: number): number {
  if (sales === 0) return 1;
  return Math.min(GREATEST_FACTOR, nameYears * Math.expm1(-Math.log1p(-chance) / sales));
}

/** Mean of λ, and the shares below which it lies: 5 and 95 of a hundred. Sales in a name-year. */
export interface RateSpread {
  readonly mean: number;
  readonly low: number;
  readonly high: number;
}

export function spreadOf({ sales, nameYears }: SaleRate): RateSpread {
  return {
    mean: sales / nameYears,
    low: gammaQuantile(0.05, sales, nameYears),
    high: gammaQuantile(0.95, sales, nameYears),
  };
}
