import { gammaQuantile } from '../odds';
import type { Course } from './course';
import { expectedProfit, type Otherwise } from './expected';
import type { MonthScale } from './months';
import type { OfferBook } from './offerBook';
import type { Valuing } from './worth';

export const INPUTS = ['chance', 'share', 'commission', 'rise', 'offers'] as const;
export type Input = (typeof INPUTS)[number];

/** How far an input moves the expected profit between the ends of its spread. Amounts are minor units of the home currency. */
export interface Mover {
  readonly input: Input;
  /** The input at the lower and upper end, in words' own units: shares, factors. */
  readonly low: number;
  readonly high: number;
  readonly profitLow: number;
  readonly profitHigh: number;
}

/** Ends that are assumed where nothing was seen: no source. */
const COMMISSION_SPREAD = 0.05;
const RISE_SPREAD = 0.05;
const OFFER_SPREAD = 3;

/** What moves the result most, greatest first: each input between the ends of its spread, all others as they are. */
export function moversOf({ book, assumptions }: Valuing, course: Course, scale: MonthScale, months: number): Mover[] {
  const at = (other: Otherwise) => expectedProfit(book, course, scale, months, other);
  const mover = (input: Input, low: number, high: number, of: (value: number) => Otherwise): Mover => ({
    input,
    low,
    high,
    profitLow: at(of(low)),
    profitHigh: at(of(high)),
  });
  const [lowShare, highShare] = shareEnds(book);
  const { commission } = assumptions;
  const movers = [
    {
      input: 'chance' as const,
      low: meanRate(book, 0.05),
      high: meanRate(book, 0.95),
      profitLow: at({ rates: ratesAt(book, 0.05) }),
      profitHigh: at({ rates: ratesAt(book, 0.95) }),
    },
    mover('share', lowShare, highShare, (median) => ({ share: { ...book.share, median } })),
    mover(
      'commission',
      Math.max(0, commission - COMMISSION_SPREAD),
      Math.min(1, commission + COMMISSION_SPREAD),
      (share) => ({ percent: share * 100 }),
    ),
    mover('rise', 0, RISE_SPREAD, (rise) => ({ rise })),
    ...(book.offers.size > 0 ? [mover('offers', 1, OFFER_SPREAD, (offerFactor) => ({ offerFactor }))] : []),
  ];
  const width = ({ profitLow, profitHigh }: Mover) => Math.abs(profitHigh - profitLow);
  return movers.sort((a, b) => width(b) - width(a));
}

/** The median share a standard error of its logarithm down and up, twice; with too few sales as if there were five. */
function shareEnds({ share: { median, sigma }, pricedSales }: OfferBook): readonly [number, number] {
  const error = (2 * sigma) / Math.sqrt(Math.max(5, pricedSales));
  return [median * Math.exp(-error), Math.min(1, median * Math.exp(error))];
}

/** Each group's λ at a quantile, as good as fixed. */
const FIRM = 1e9;
const ratesAt = ({ groups }: OfferBook, share: number) =>
  groups.map(({ rate: { sales, nameYears } }) => ({
    sales: gammaQuantile(share, sales, nameYears) * FIRM,
    nameYears: FIRM,
  }));

/** The mean over names of what their group's λ is at a quantile. */
function meanRate(book: OfferBook, share: number): number {
  const rates = ratesAt(book, share);
  const names = book.groups.reduce((sum, group) => sum + group.names, 0);
  const sum = book.groups.reduce((all, group, i) => all + (group.names * (rates[i]?.sales ?? 0)) / FIRM, 0);
  return names === 0 ? 0 : sum / names;
}
