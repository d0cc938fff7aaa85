import { type SaleRate, yearlyChances } from './saleChance';

/** How many years are looked ahead. */
export const HORIZON_YEARS = 10;

/** One name whose next year is to be decided on. Money in one unit of one currency. */
export interface Keeping {
  /** What each year costs, the one that is decided on first; 0 for a year without a charge. Years beyond the list cost nothing and are not looked at. */
  readonly costs: readonly number[];
  /** What a sale is expected to leave after fees, as it is worth at the beginning of the year in which it comes. */
  readonly proceeds: number;
  readonly rate: SaleRate;
  /** Multiplies λ. */
  readonly factor: number;
  /** What money of next year is worth this year, above 0 and at most 1. */
  readonly discount: number;
}

/** What keeping a name is worth. */
export interface KeepValue {
  /** Of paying its next year and going on as is best: below nothing where dropping it is better. Ties keep. */
  readonly value: number;
  /** How many years the best plan pays for, if it is not sold: 0 for dropping it now. */
  readonly years: number;
  /** The chance of a sale within its next year. */
  readonly chance: number;
  /** The least proceeds of a sale at which the next year is worth its cost; infinite where no sale can come. */
  readonly leastProceeds: number;
}

/**
 * Whether a name is worth another year: V(t) = max(0, −c(t) + p(t)·n + (1 − p(t))·β·V(t+1)), nothing behind the last year; dropping is
 * final. Everything that judges a name (Rescue, which should I drop, Prospects) asks here.
 */
export function keepValue({ costs, proceeds, rate, factor, discount }: Keeping): KeepValue {
  const years = Math.min(HORIZON_YEARS, costs.length);
  const chances = yearlyChances(rate, factor);
  let next = 0;
  let kept = 0;
  let value = 0;
  for (let t = years - 1; t >= 0; t -= 1) {
    const p = chances[t] as number;
    value = -(costs[t] as number) + p * proceeds + (1 - p) * discount * next;
    kept = value >= 0 ? kept + 1 : 0;
    next = Math.max(0, value);
  }
  return {
    value,
    years: kept,
    chance: chances[0] as number,
    leastProceeds: leastProceeds(costs, years, chances, discount),
  };
}

/**
 * Whoever keeps a name for k years, unless it is sold, pays C(k) and receives P(k) for each unit of proceeds: the value of the best plan is the
 * greatest P(k)·n − C(k), and the least n at which it is not below nothing the smallest C(k) / P(k).
 */
function leastProceeds(costs: readonly number[], years: number, chances: Float64Array, discount: number): number {
  let [paid, received, reached] = [0, 0, 1];
  let least = Number.POSITIVE_INFINITY;
  for (let t = 0; t < years; t += 1) {
    const p = chances[t] as number;
    paid += reached * (costs[t] as number);
    received += reached * p;
    reached *= (1 - p) * discount;
    if (received > 0) least = Math.min(least, paid / received);
  }
  return least;
}
