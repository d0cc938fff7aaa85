import type { RegistryFee } from '../lifecycle';
import { type Amount, amount, convert, type Rate, roundHalfAway } from '../money';
import type { Day } from '../time';
import { meetsCondition } from './condition';
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
  /** What a fee in another currency is converted by, and the day whose rate counts. */
  readonly rates?: readonly Rate[];
  readonly day?: Day;
  readonly promotion?: Promotion | null;
  /** Percent on the sum, 0-100. */
  readonly taxPercent?: number;
  /** A first purchase: the first-year price applies where its condition is met. */
  readonly firstYear?: boolean;
  readonly newCustomer?: boolean;
  /** Codes that may be told. */
  readonly codes?: readonly string[];
  /** Years for which the registry fee is due, where they are not those of the price: a transfer may add none. */
  readonly feeYears?: number;
  /** By how much prices will have risen by then: the price of the list is multiplied by it. 1 when left out. */
  readonly factor?: number;
}

/** The price of a term before promotion, fee and tax, in minor units. */
function termPrice(price: Price, terms: CostTerms): number {
  return roundHalfAway(listPrice(price, terms) * (terms.factor ?? 1));
}

function listPrice(price: Price, terms: CostTerms): number {
  const total = price.termTotals?.[String(terms.years)];
  if (total !== undefined) return total;
  const first =
    terms.firstYear && firstYearApplies(price, terms) ? (price.firstYearMinor ?? price.yearMinor) : price.yearMinor;
  return first + price.yearMinor * (terms.years - 1);
}

function firstYearApplies(
  { firstYearCondition }: Price,
  { years, newCustomer = false, codes = [] }: CostTerms,
): boolean {
  return (
    firstYearCondition === null || meetsCondition(firstYearCondition, { years, isNewCustomer: newCustomer, codes })
  );
}

function promotionOff(price: Price, base: number, years: number, promotion: Promotion | null | undefined): number {
  if (!promotion) return 0;
  if (promotion.off.kind === 'amount') return Math.min(base, promotion.off.minor);
  const covered = promotion.years === null || promotion.years >= years ? base : price.yearMinor * promotion.years;
  return roundHalfAway((Math.min(base, covered) * promotion.off.percent) / 100);
}

/**
 * The registry fee of a term in the price's currency, minor units; `null` where it is in another currency and no dated rate is known:
 * currencies never mix without one.
 */
function feeOf(price: Price, { years, feeYears = years, fee, rates = [], day }: CostTerms): number | null {
  if (price.feeIncluded || fee === null || fee.minor === 0) return 0;
  const year = fee.currency === price.currency ? fee : day && convert(fee, price.currency, rates, day);
  return year ? year.minor * feeYears : null;
}

/**
 * What a term costs: price, less promotion (never off the fee), plus the registry fee for each year, plus tax on the sum.
 * Minor units, each line rounded half away from zero once. `null` when the fee has no rate into the price's currency.
 */
export function termCost(price: Price, terms: CostTerms): Cost | null {
  const base = termPrice(price, terms);
  const promotion = promotionOff(price, base, terms.years, terms.promotion);
  const fee = feeOf(price, terms);
  if (fee === null) return null;
  const tax = roundHalfAway(((base - promotion + fee) * (terms.taxPercent ?? 0)) / 100);
  const total = amount(base - promotion + fee + tax, price.currency);
  return { total, price: base, promotion, fee, tax, ruleOfThumb: false };
}

/** How many renewals a restore is taken to cost when its price is unknown. Common practice, no source. */
export const RESTORE_RULE_OF_THUMB = 10;

/**
 * What bringing a name back from redemption costs: the restore price and one year's renewal. Without a known restore
 * price ten times the renewal is taken, and marked; a restore price in another currency without a dated rate is unknown: `null`.
 * Tax falls on the restore price as well; the renewal carries its own.
 */
export function restoreCost(
  restore: Price | null,
  renewal: Cost,
  { taxPercent = 0, rates = [], day }: Pick<CostTerms, 'taxPercent' | 'rates' | 'day'> = {},
): Cost | null {
  const { currency } = renewal.total;
  const asked = restore && { minor: restore.yearMinor, currency: restore.currency };
  const known = asked && (asked.currency === currency ? asked : day ? convert(asked, currency, rates, day) : null);
  if (asked && !known) return null;
  const price = known ? known.minor : renewal.total.minor * RESTORE_RULE_OF_THUMB;
  const tax = known ? roundHalfAway((price * taxPercent) / 100) : 0;
  return {
    ...renewal,
    price: price + renewal.price,
    tax: tax + renewal.tax,
    total: amount(price + tax + renewal.total.minor, currency),
    ruleOfThumb: known === null,
  };
}
