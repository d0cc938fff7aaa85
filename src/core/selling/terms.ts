import { type Amount, convert, type Rate, sumIn, wholeUnit } from '../money';
import { dayOf, type Instant } from '../time';
import { type MarketplaceAttribute, type MarketplaceFees, type MarketplaceRules, NO_FEES } from './marketplace';

/** A marketplace's rules with its fees in the currency that it states them in. */
export type MarketplaceTerms = Omit<MarketplaceRules, 'fees'> & MarketplaceFees & { readonly feesCurrency: string };

/** The fees of a marketplace in another currency; `null` where a rate is missing for one of them. No marketplace: no fees. */
export function feesIn(
  row: MarketplaceTerms | null,
  currency: string,
  known: readonly Rate[],
  at: Parameters<typeof dayOf>[0],
): MarketplaceFees | null {
  if (!row) return NO_FEES;
  const day = dayOf(at);
  const isKnown =
    row.floorMinor + row.saleFeeMinor + row.listingFeeMinor === 0 && row.steps.length === 0
      ? true
      : convert({ minor: 0, currency: row.feesCurrency }, currency, known, day) !== null;
  if (!isKnown) return null;
  const into = (minor: number) => convert({ minor, currency: row.feesCurrency }, currency, known, day)?.minor ?? 0;
  return {
    percent: row.percent,
    floorMinor: into(row.floorMinor),
    steps: row.steps.map(({ fromMinor, percent }) => ({ fromMinor: into(fromMinor), percent })),
    saleFeeMinor: into(row.saleFeeMinor),
    listingFeeMinor: into(row.listingFeeMinor),
  };
}

/** The rules of a marketplace as the checks read them; `null` for the office itself. */
export function rulesOf(row: MarketplaceTerms | null, fees: MarketplaceFees | null): MarketplaceRules | null {
  if (!row) return null;
  const { currencies, wholeUnits, auctionDays, reviewHours, payoutSet } = row;
  return { currencies, wholeUnits, auctionDays, reviewHours, payoutSet, fees };
}

/** What a name has cost, in one currency by today's rates; `null` when one of its entries has no rate. */
export function costIn(
  spent: readonly Amount[],
  currency: string,
  rates: readonly Rate[],
  now: Instant,
): Amount | null {
  const cost = sumIn(spent, currency, rates, dayOf(now));
  return cost && cost.minor < 0 ? { ...cost, minor: 0 } : cost;
}

/** What is still to be paid for a listing: nothing more once it was sent, since that is booked as a cost of the name then. */
export interface ToList {
  readonly sentAt: Instant | null;
  readonly attributes: Readonly<Record<string, string>>;
  readonly categories: readonly string[];
}

/**
 * What a sale costs at a marketplace, in the currency of the sale: commission, fees, and of the listing what has not been booked yet.
 * `null` for `listing` is one for which nothing more is paid. Answers `null` where a rate is missing. Every figure of net
 * proceeds comes from here.
 */
export function saleFees(
  row: (MarketplaceTerms & ListingFees) | null,
  listing: ToList | null,
  currency: string,
  rates: readonly Rate[],
  at: Instant,
): MarketplaceFees | null {
  if (!row) return NO_FEES;
  const listingFeeMinor = listing === null || listing.sentAt !== null ? 0 : listingCost(row, listing);
  return feesIn({ ...row, listingFeeMinor }, currency, rates, at);
}

/** Rules, fees and unit of a marketplace for one listing in one currency. */
export function sellingTerms(
  row: (MarketplaceTerms & ListingFees) | null,
  listing: ToList | null,
  currency: string,
  rates: readonly Rate[],
  now: Instant,
): { readonly fees: MarketplaceFees | null; readonly rules: MarketplaceRules | null; readonly unitMinor: number } {
  const fees = saleFees(row, listing, currency, rates, now);
  return { fees, rules: rulesOf(row, fees), unitMinor: wholeUnit(currency) };
}

/** What a marketplace takes for showing a listing. */
export interface ListingFees {
  readonly listingFeeMinor: number;
  readonly attributes: readonly MarketplaceAttribute[];
  readonly categoryMinor: number;
}

/** What a marketplace takes for listing, sold or not: its fee, what the chosen options of its attributes cost, and each category beyond the first. In the currency of its fees. */
export function listingCost(marketplace: ListingFees, listing: Pick<ToList, 'attributes' | 'categories'>): number {
  const options = marketplace.attributes.reduce(
    (sum, { label, options }) => sum + (options.find((one) => one.label === listing.attributes[label])?.minor ?? 0),
    0,
  );
  return marketplace.listingFeeMinor + options + Math.max(0, listing.categories.length - 1) * marketplace.categoryMinor;
}
