import { HORIZON_MONTHS } from './months';
import type { Outcome } from './simulate';

/** The shares of paths that a fan's lines lie above, in percent. */
export const FAN_LINES = [5, 25, 50, 75, 95] as const;

/** What came of a course, over so many months from now. Amounts are minor units of the home currency. */
export interface Fan {
  readonly label: string;
  readonly months: number;
  readonly paths: number;
  /** The balance at the end of each month below which each of `FAN_LINES` of the paths lie: line after line. */
  readonly lines: readonly (readonly number[])[];
  /** The share of paths on which nothing has been sold by the end of each month, and on which a balance has been below the floor. */
  readonly unsold: readonly number[];
  readonly short: readonly number[];
  /** The chance of a sale within a year, and within five; `null` beyond what was played. */
  readonly saleInYear: number;
  readonly saleInFive: number | null;
  /** The month in which half of the paths that run short have; `null` where none does. */
  readonly usuallyShort: number | null;
  /** The share of paths on which sales carry what is charged: no less is left at the end than there is now. */
  readonly carries: number;
  /** What is left over at the end against now: its mean and the standard deviation, and the mean of the worst tenth of paths. */
  readonly profit: { readonly mean: number; readonly spread: number; readonly worstTenth: number };
  readonly namesSold: number;
}

/** An order statistic: of values in rising order the least at or below which `percent` of them lie. */
function orderStatistic(sorted: Float64Array, percent: number): number {
  return sorted[Math.max(0, Math.ceil((sorted.length * percent) / 100) - 1)] as number;
}

/** The shares of paths on which something first happens by each month; `first` of `HORIZON_MONTHS` or more never does. */
function sharesBy(first: ArrayLike<number>, months: number): number[] {
  const counts = new Array<number>(months).fill(0);
  for (let path = 0; path < first.length; path += 1) {
    const month = first[path] as number;
    if (month < months) counts[month] = (counts[month] as number) + 1;
  }
  let sum = 0;
  return counts.map((count) => {
    sum += count;
    return sum / first.length;
  });
}

/** Sums an outcome up over so many months, with a floor that a balance should not fall below (minor units). */
export function fanOf(outcome: Outcome, months: number, floorMinor: number): Fan {
  const { paths, balances, openingMinor, firstSale, sold } = outcome;
  const lines: number[][] = FAN_LINES.map(() => []);
  const shortFirst = new Uint8Array(paths).fill(HORIZON_MONTHS);
  let last = new Float64Array(paths);
  for (let month = 0; month < months; month += 1) {
    const column = balances.slice(month * paths, (month + 1) * paths);
    for (let path = 0; path < paths; path += 1)
      if ((column[path] as number) < floorMinor && shortFirst[path] === HORIZON_MONTHS) shortFirst[path] = month;
    last = column.sort();
    for (const [i, percent] of FAN_LINES.entries()) lines[i]?.push(orderStatistic(last, percent));
  }
  const bySale = sharesBy(firstSale, HORIZON_MONTHS);
  const short = sharesBy(shortFirst, months);
  const ever = short.at(-1) ?? 0;
  const years = Math.max(1, Math.round(months / 12));
  return {
    label: outcome.label,
    months,
    paths,
    lines,
    unsold: bySale.slice(0, months).map((share) => 1 - share),
    short,
    saleInYear: bySale[11] ?? 0,
    saleInFive: months >= 60 ? (bySale[59] ?? 0) : null,
    usuallyShort: ever === 0 ? null : short.findIndex((share) => share >= ever / 2),
    carries: last.length === 0 ? 0 : last.filter((balance) => balance >= openingMinor).length / last.length,
    profit: profitOf(last, openingMinor),
    namesSold: mean(sold.subarray((years - 1) * paths, years * paths)),
  };
}

function mean(values: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < values.length; i += 1) sum += values[i] as number;
  return sum / values.length;
}

function profitOf(sorted: Float64Array, openingMinor: number): Fan['profit'] {
  const average = mean(sorted);
  let squares = 0;
  for (const one of sorted) squares += (one - average) ** 2;
  const worst = sorted.subarray(0, Math.max(1, Math.floor(sorted.length / 10)));
  return {
    mean: average - openingMinor,
    spread: Math.sqrt(squares / Math.max(1, sorted.length - 1)),
    worstTenth: mean(worst) - openingMinor,
  };
}

/** Two courses on the same paths, the first against the second. */
export interface Compared {
  /** By how much more the first leaves on average, minor units, and how sure that is: the standard error of that mean. */
  readonly difference: number;
  readonly standardError: number;
  /** The shares of paths on which the first leaves more, and on which both leave the same. */
  readonly better: number;
  readonly same: number;
}

/** Holds two outcomes on the same random numbers against each other, path by path. */
export function compareOutcomes(one: Outcome, other: Outcome, months: number): Compared {
  const from = (months - 1) * one.paths;
  let [sum, squares, better, same] = [0, 0, 0, 0];
  for (let path = 0; path < one.paths; path += 1) {
    const difference = (one.balances[from + path] as number) - (other.balances[from + path] as number);
    sum += difference;
    squares += difference * difference;
    if (difference > 0) better += 1;
    if (difference === 0) same += 1;
  }
  const difference = sum / one.paths;
  const variance = Math.max(0, squares / one.paths - difference * difference);
  return {
    difference,
    standardError: Math.sqrt(variance / one.paths),
    better: better / one.paths,
    same: same / one.paths,
  };
}
