import type { RegistryFee } from '../lifecycle';
import { type Amount, amount, roundHalfAway } from '../money';
import type { Price, Promotion } from './price';

/** A cost with the lines that make it, each rounded once. */
export interface Cost {
  readonly total: Amount;
  readonly price: number;
  readonly promotion: number;
  readonly fee: number;
  readonly tax: number;
  /** Set when the figure rests on a guess: the restore price as ten times the renewal. */
  readonly ruleOfThumb: boolean;
}

export interface CostTerms {
  readonly years: number;
  readonly fee: RegistryFee | null;
  readonly promotion?: Promotion | null;
  /** Percent on the sum, 0-100. */
  readonly taxPercent?: number;
  /** A new registration: the first-year price applies where its condition is met. */
  readonly firstYear?: boolean;
  readonly newCustomer?: boolean;
}

/** The price of a term before promotion, fee and tax, in minor units. */
function termPrice(price: Price, terms: CostTerms): number {
  const total = price.termTotals?.[String(terms.years)];
  if (total !== undefined) return total;
  const first =
    terms.firstYear && firstYearApplies(price, terms) ? (price.firstYearMinor ?? price.yearMinor) : price.yearMinor;
  return first + price.yearMinor * (terms.years - 1);
}

function firstYearApplies(price: Price, terms: CostTerms): boolean {
  switch (price.firstYearCondition) {
    case 'one year only':
      return terms.years === 1;
    case 'three years only':
      return terms.years === 3;
    case 'new customers':
      return terms.newCustomer === true;
    case 'any term':
    case null:
      return true;
  }
}

function promotionOff(price: Price, base: number, years: number, promotion: Promotion | null | undefined): number {
  if (!promotion) return 0;
  if (promotion.off.kind === 'amount') return Math.min(base, promotion.off.minor);
  const covered = promotion.years === null || promotion.years >= years ? base : price.yearMinor * promotion.years;
  return roundHalfAway((Math.min(base, covered) * promotion.off.percent) / 100);
}

/**
 * What a term costs: price, less promotion (never off the fee), plus the registry fee for each year, plus tax on the sum.
 * Minor units, each line rounded half away from zero once. A fee in another currency than the price is taken as part of
 * the price, since currencies never mix without a dated rate.
 */
export function termCost(price: Price, terms: CostTerms): Cost {
  const base = termPrice(price, terms);
  const promotion = promotionOff(price, base, terms.years, terms.promotion);
  const fee = price.feeIncluded || terms.fee?.currency !== price.currency ? 0 : terms.fee.minor * terms.years;
  const tax = roundHalfAway(((base - promotion + fee) * (terms.taxPercent ?? 0)) / 100);
  const total = amount(base - promotion + fee + tax, price.currency);
  return { total, price: base, promotion, fee, tax, ruleOfThumb: false };
}

/** How many renewals a restore is taken to cost when its price is unknown. Common practice, no source. */
export const RESTORE_RULE_OF_THUMB = 10;

/**
 * What bringing a name back from redemption costs: the restore price and one year's renewal. Without a known restore
 * price ten times the renewal is taken, and marked. Prices in two currencies give the rule of thumb too.
 * `taxPercent` falls on the restore price as well; the renewal carries its own.
 */
export function restoreCost(restore: Price | null, renewal: Cost, taxPercent = 0): Cost {
  const known = restore !== null && restore.currency === renewal.total.currency;
  const price = known ? restore.yearMinor : renewal.total.minor * RESTORE_RULE_OF_THUMB;
  const tax = known ? roundHalfAway((price * taxPercent) / 100) : 0;
  return {
    ...renewal,
    price: price + renewal.price,
    tax: tax + renewal.tax,
    total: amount(price + tax + renewal.total.minor, renewal.total.currency),
    ruleOfThumb: !known,
  };
}
