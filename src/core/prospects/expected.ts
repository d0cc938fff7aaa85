import { chanceOfSale, expectedProceeds, type PriceShare, type SaleRate } from '../odds';
import { type Course, certainCosts, heldUntil } from './course';
import { HORIZON_MONTHS, type MonthScale } from './months';
import { type OfferBook, type OfferGroup, offeredAt } from './offerBook';

/** An input that is thought to be otherwise. */
export interface Otherwise {
  /** By group of the book: what its rate of sale is held to be. */
  readonly rates?: readonly SaleRate[];
  readonly share?: PriceShare;
  /** The commission of names that are listed nowhere, percent. */
  readonly percent?: number;
  /** By how much a year every charge rises more than it does, as a share. */
  readonly rise?: number;
  /** Multiplies the factor of names with offers. */
  readonly offerFactor?: number;
}

/**
 * What a course is expected to leave over so many months, minor units, in closed form: no path is drawn. It is what the mean of the paths
 * comes to with ever more of them.
 */
export function expectedProfit(
  book: OfferBook,
  course: Course,
  scale: MonthScale,
  months: number,
  other: Otherwise = {},
): number {
  const { schedule, paid } = course;
  const dearer = Float64Array.from(
    { length: HORIZON_MONTHS },
    (_, month) => (1 + (other.rise ?? 0)) ** Math.floor(month / 12),
  );
  let profit = 0;
  const costs = certainCosts(course);
  for (let month = 0; month < months; month += 1) profit -= (costs[month] as number) * (dearer[month] as number);
  const sold = new SoldBy(book, course, scale, other);
  for (let name = 0; name < book.places.length; name += 1) {
    const place = book.places[name] as number;
    const end = Math.min(months, heldUntil(course, place, scale));
    profit += sold.by(name, end) * proceedsOf(book, course, name, other);
    // What is sold before a month is not charged in it.
    for (let i = schedule.first[place] as number; i < (paid[place] as number); i += 1) {
      const month = schedule.month[i] as number;
      if (month < months)
        profit += sold.by(name, Math.min(month, end)) * (schedule.minor[i] as number) * (dearer[month] as number);
    }
  }
  return profit;
}

function proceedsOf(book: OfferBook, course: Course, name: number, { share, percent }: Otherwise): number {
  const offered = offeredAt(book, name, course.asking[name] as number);
  const fees = percent === undefined || book.fees[name] !== 0 ? offered.fees : { ...offered.fees, percent };
  return expectedProceeds({ ...offered, fees }, share ?? book.share);
}

/** The chance that a name has been sold by a place in months; whole months of names alike are worked out once. */
class SoldBy {
  readonly #known = new Map<number, Float64Array>();
  constructor(
    readonly book: OfferBook,
    readonly course: Course,
    readonly scale: MonthScale,
    readonly other: Otherwise,
  ) {}

  by(name: number, month: number): number {
    const { book, course, scale, other } = this;
    const from = Math.max(scale.start, book.from[name] as number);
    if (month <= from || course.asking[name] === 0) return 0;
    const group = book.group[name] as number;
    const rate = other.rates?.[group] ?? (book.groups[group] as OfferGroup).rate;
    const isMoved = book.isSaid[name] === 0 && book.offers.has(book.places[name] as number);
    const offered = isMoved ? (other.offerFactor ?? 1) : 1;
    const factor = (book.factor[name] as number) * (course.pace?.[name] ?? 1) * offered;
    const chance = (at: number) => chanceOfSale(rate, factor, 0, (at - from) / 12);
    if (month !== Math.floor(month) || from !== scale.start) return chance(month);
    const key = factor * 65_536 + group;
    let known = this.#known.get(key);
    if (!known) {
      known = Float64Array.from({ length: HORIZON_MONTHS + 1 }, (_, at) => (at <= from ? 0 : chance(at)));
      this.#known.set(key, known);
    }
    return known[month] as number;
  }
}
