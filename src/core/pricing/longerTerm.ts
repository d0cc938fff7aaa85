import { DAY_MS, type Day, startOfDay } from '../time';

/** Buying several years today, or renewing year by year at prices that rise. */
export interface LongerTerm {
  /** Price of all the years today, minor units. */
  readonly nowMinor: number;
  /** Price of one year at today's list, minor units: what each later renewal begins from. */
  readonly yearMinor: number;
  /** What the first year costs if it is renewed alone now: with a late fee or a promotion, which are for once. */
  readonly firstMinor: number;
  readonly years: number;
  /** Assumed rise of the yearly price, as a share: 0.05 is five percent. */
  readonly rise: number;
  /** What money earns elsewhere in a year, as a share. */
  readonly discount: number;
}

/**
 * What the yearly renewals are worth today: one now, with what is due once, and one at the end of each year but the last, each
 * `rise` dearer than the one before. Minor units, not rounded.
 */
export function yearlyWorthToday({
  yearMinor,
  firstMinor,
  years,
  rise,
  discount,
}: Omit<LongerTerm, 'nowMinor'>): number {
  let worth = firstMinor;
  for (let year = 1; year < years; year += 1) worth += yearMinor * ((1 + rise) / (1 + discount)) ** year;
  return worth;
}

/** What buying all years today saves against renewing yearly, minor units of today; negative when it costs more. */
export function savedByLongerTerm(term: LongerTerm): number {
  return yearlyWorthToday(term) - term.nowMinor;
}

const MOST_RISE = 10;

/**
 * The yearly rise at which both come to the same, as a share; a higher one makes the longer term cheaper. `null` when no
 * rise between -100 % and 1000 % does, or when there is only one year.
 */
export function breakEvenRise({ nowMinor, ...term }: Omit<LongerTerm, 'rise'>): number | null {
  if (term.years < 2 || term.yearMinor <= 0) return null;
  const at = (rise: number) => yearlyWorthToday({ ...term, rise }) - nowMinor;
  let [low, high] = [-1, MOST_RISE];
  if (at(low) > 0 || at(high) < 0) return null;
  // Worth rises with the rise, so halving finds the one place where both are equal.
  for (let i = 0; i < 80; i += 1) {
    const middle = (low + high) / 2;
    if (at(middle) < 0) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** A price of a year, in force from a day on. */
export interface DatedPrice {
  readonly from: Day;
  readonly yearMinor: number;
}

/** Less than a year apart, two prices say nothing of a yearly rise. */
const LEAST_DAYS = 365;

/**
 * By how much a price has risen in a year, as a share, from the first to the last of its dated rows; `null` when they do not reach
 * over a year.
 */
export function pastRise(prices: readonly DatedPrice[]): number | null {
  const sorted = [...prices].sort((a, b) => (a.from < b.from ? -1 : 1));
  const [first, last] = [sorted[0], sorted.at(-1)];
  if (!first || !last || first.yearMinor <= 0) return null;
  const days = (startOfDay(last.from) - startOfDay(first.from)) / DAY_MS;
  return days < LEAST_DAYS ? null : (last.yearMinor / first.yearMinor) ** (DAYS_PER_YEAR / days) - 1;
}

const DAYS_PER_YEAR = 365.25;
