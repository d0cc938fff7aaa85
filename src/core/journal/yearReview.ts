import { type Amount, amount, convert, type Rate } from '../money';
import { yearlyReturn } from '../selling';
import type { Day } from '../time';

/** By what a review is divided. */
export const REVIEW_BY = ['year', 'ending', 'tag', 'account'] as const;
export type ReviewBy = (typeof REVIEW_BY)[number];

/** What money was for: keeping and buying names, the price of a sale, or what the marketplace kept of it. */
export const REVIEW_PARTS = ['cost', 'price', 'fee'] as const;
export type ReviewPart = (typeof REVIEW_PARTS)[number];

/** Entries of one day that belong together, summed up. Spent is above nothing for costs and fees; a price is received. */
export interface DaySum {
  readonly key: string;
  readonly part: ReviewPart;
  readonly day: Day;
  readonly currency: string;
  readonly minor: number;
}

/** What is known of a group beside its money. */
export interface ReviewGroup {
  readonly key: string;
  readonly names: number;
  readonly sales: number;
}

/** One line of a review, in the home currency at the rates of each day; `null` where a rate is missing. */
export interface ReviewLine extends ReviewGroup {
  readonly cost: Amount | null;
  readonly price: Amount | null;
  readonly fees: Amount | null;
  /** Price less fees. */
  readonly proceeds: Amount | null;
  /** Proceeds less cost, of all names: what came in over what went out. */
  readonly surplus: Amount | null;
  /** Proceeds of the names sold, less all that they ever cost. */
  readonly profit: Amount | null;
  /** The yearly internal rate of return of the names sold; `null` where there is none. */
  readonly yearlyReturn: number | null;
}

/** What a review is made of: the money of the period, and all the money that the names sold in it ever cost and brought. */
export interface ReviewMoney {
  readonly groups: readonly ReviewGroup[];
  readonly period: readonly DaySum[];
  readonly sold: readonly DaySum[];
}

/** Sums a period up, a line for each group in the order in which the groups come. */
export function reviewLines({ groups, period, sold }: ReviewMoney, home: string, rates: readonly Rate[]): ReviewLine[] {
  const [ofPeriod, ofSold] = [byKey(period), byKey(sold)];
  return groups.map((group) => {
    const own = ofPeriod.get(group.key) ?? [];
    const whole = ofSold.get(group.key) ?? [];
    const sum = (part: ReviewPart, rows = own) =>
      inHome(
        rows.filter((row) => row.part === part),
        home,
        rates,
      );
    const [cost, price, fees] = [sum('cost'), sum('price'), sum('fee')];
    const proceeds = less(price, fees);
    return {
      ...group,
      cost,
      price,
      fees,
      proceeds,
      surplus: less(proceeds, cost),
      profit: less(less(sum('price', whole), sum('fee', whole)), sum('cost', whole)),
      yearlyReturn: returnOf(whole, home, rates),
    };
  });
}

function byKey(rows: readonly DaySum[]): Map<string, DaySum[]> {
  const found = new Map<string, DaySum[]>();
  for (const row of rows) {
    const list = found.get(row.key);
    if (list) list.push(row);
    else found.set(row.key, [row]);
  }
  return found;
}

function inHome(rows: readonly DaySum[], home: string, rates: readonly Rate[]): Amount | null {
  let sum = 0;
  for (const { minor, currency, day } of rows) {
    const converted = convert({ minor, currency }, home, rates, day);
    if (!converted) return null;
    sum += converted.minor;
  }
  return amount(sum, home);
}

const less = (one: Amount | null, other: Amount | null): Amount | null =>
  one && other ? amount(one.minor - other.minor, one.currency) : null;

function returnOf(rows: readonly DaySum[], home: string, rates: readonly Rate[]): number | null {
  const money = rows.map(({ minor, currency, day, part }) => ({
    day,
    minor: convert({ minor, currency }, home, rates, day)?.minor ?? Number.NaN,
    part,
  }));
  if (money.some(({ minor }) => Number.isNaN(minor))) return null;
  return yearlyReturn(money.map(({ day, minor, part }) => ({ day, minor: part === 'price' ? minor : -minor })));
}
