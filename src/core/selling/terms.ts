import { type Amount, convert, type Rate, sumIn, wholeUnit } from '../money';
import { dayOf, type Instant } from '../time';
import { NO_FEES, type VenueFees, type VenueRules } from './venue';

/** A venue's rules with its fees in the currency that it states them in. */
export type VenueTerms = Omit<VenueRules, 'fees'> & VenueFees & { readonly feesCurrency: string };

/** The fees of a venue in another currency; its own figures where no rate is known. `null` is no venue: no fees. */
export function feesIn(
  row: VenueTerms | null,
  currency: string,
  known: readonly Rate[],
  at: Parameters<typeof dayOf>[0],
): VenueFees {
  if (!row) return NO_FEES;
  const day = dayOf(at);
  const into = (minor: number) => convert({ minor, currency: row.feesCurrency }, currency, known, day)?.minor ?? minor;
  return {
    percent: row.percent,
    floorMinor: into(row.floorMinor),
    steps: row.steps.map(({ fromMinor, percent }) => ({ fromMinor: into(fromMinor), percent })),
    saleFeeMinor: into(row.saleFeeMinor),
    listingFeeMinor: into(row.listingFeeMinor),
  };
}

/** The rules of a venue as the checks read them; `null` for the office itself. */
export function rulesOf(row: VenueTerms | null, fees: VenueFees): VenueRules | null {
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

/** Rules, fees and unit of a venue for one currency. */
export function sellingTerms(
  row: VenueTerms | null,
  currency: string,
  rates: readonly Rate[],
  now: Instant,
): { readonly fees: VenueRules['fees']; readonly rules: VenueRules | null; readonly unitMinor: number } {
  const fees = feesIn(row, currency, rates, now);
  return { fees, rules: rulesOf(row, fees), unitMinor: wholeUnit(currency) };
}

/** What a venue takes for listing, sold or not: its fee, a paid placement, and each category beyond the first. In the currency of its fees. */
export function listingCost(
  venue: Pick<VenueTerms, 'listingFeeMinor'> & {
    readonly placements: readonly { readonly label: string; readonly minor: number }[];
    readonly categoryMinor: number;
  },
  listing: { readonly placement: string | null; readonly categories: readonly string[] },
): number {
  const placement = venue.placements.find(({ label }) => label === listing.placement)?.minor ?? 0;
  return venue.listingFeeMinor + placement + Math.max(0, listing.categories.length - 1) * venue.categoryMinor;
}
