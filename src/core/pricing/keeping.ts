import type { RegistryFee } from '../lifecycle';
import { type Amount, amount, convert, plus, type Rate } from '../money';
import type { Day } from '../time';
import { type Cost, restoreCost, termCost } from './cost';
import type { Price, Promotion } from './price';

/** What an account adds to every price by itself. */
export interface AccountCharges {
  readonly currency: string;
  readonly lateFeeMinor: number;
  readonly taxPercent: number;
}

/** What renewing one name is priced by on one day. */
export interface RenewalPricing {
  /** `null` where no price is known. */
  readonly price: Price | null;
  /** The registry fee of a year, where the ending has one. */
  readonly fee: RegistryFee | null;
  readonly account: AccountCharges | null;
  readonly rates: readonly Rate[];
  readonly day: Day;
}

/** What is asked for. */
export interface RenewalTerms {
  readonly years: number;
  readonly promotion?: Promotion | null;
  /** What the person says of tax, 0 included, outranks what the account adds by itself; `null` leaves it to the account. */
  readonly taxPercent?: number | null;
  /** The term has ended: the account's late fee is due, once. */
  readonly isLate?: boolean;
  /** By how much prices will have risen by then, as in `CostTerms`. */
  readonly factor?: number;
}

/** What a renewal comes to. */
export interface RenewalCost {
  readonly cost: Cost;
  /** The late fee in the price's currency; `null` for none. */
  readonly lateFee: Amount | null;
  readonly total: Amount;
}

/**
 * What renewing costs: the one function for quotes, runs, charges and the projection. `null` where the price is not known, or a fee has
 * no dated rate into its currency.
 */
export function renewalCost(pricing: RenewalPricing, terms: RenewalTerms): RenewalCost | null {
  const { price, fee, account, rates, day } = pricing;
  if (price === null) return null;
  const taxPercent = terms.taxPercent ?? account?.taxPercent ?? 0;
  const cost = termCost(price, {
    years: terms.years,
    fee,
    rates,
    day,
    promotion: terms.promotion ?? null,
    taxPercent,
    factor: terms.factor ?? 1,
  });
  if (cost === null) return null;
  const due =
    terms.isLate && account && account.lateFeeMinor > 0 ? amount(account.lateFeeMinor, account.currency) : null;
  const lateFee = due && convert(due, price.currency, rates, day);
  if (due && !lateFee) return null;
  return { cost, lateFee, total: lateFee ? plus(cost.total, lateFee) : cost.total };
}

/** What a restore and its year cost; `null` where that cannot be known. See `restoreCost`. */
export function restoreWithYear(
  pricing: RenewalPricing,
  restore: Price | null,
  taxPercent?: number | null,
): Cost | null {
  const year = renewalCost(pricing, { years: 1, ...(taxPercent === undefined ? {} : { taxPercent }) });
  const { rates, day, account } = pricing;
  return year && restoreCost(restore, year.cost, { taxPercent: taxPercent ?? account?.taxPercent ?? 0, rates, day });
}
