import type { Rate } from '@/core/money';
import { parseDomainName } from '@/core/names';
import { isRefusal } from '@/core/refusal';
import { OVER_STAGES, type WindowTerms, windowTerms } from '@/core/selling';
import { type DepositRule, depositFrom, type LetterKind, lettersTaken } from '@/core/shop';
import { selectAuctions, standingOfRow } from '@/database/auctions';
import { selectListings } from '@/database/listings';
import { selectNameIds } from '@/database/names';
import { selectRates } from '@/database/rates';
import { selectSalesOf } from '@/database/sales';
import type { Deps } from '../deps';

/** What a buyer sees who opens a name that is for sale. */
export interface ShopWindow extends WindowTerms {
  readonly nameId: number;
  /** The auction of the office that runs, where its windows take bids; one at a marketplace takes them there. */
  readonly auctionId: number | null;
  readonly ascii: string;
  readonly unicode: string;
  readonly pitch: string;
  readonly description: string;
  readonly withSite: boolean;
}

/**
 * The window of a name that is for sale: what the office lists itself, else what stands live at a marketplace. `null` for any other name, and for
 * one that is promised: nothing tells whether it is ours.
 */
export async function windowOf(deps: Deps, typed: string): Promise<ShopWindow | null> {
  const name = parseDomainName(typed);
  if (isRefusal(name)) return null;
  // A name of nobody is looked for just as long as one of ours.
  const id = (await selectNameIds(deps.database, [name.ascii])).get(name.ascii) ?? 0;
  const [listings, auctions, sales] = await Promise.all([
    selectListings(deps.database, [id]),
    selectAuctions(deps.database, [id]),
    selectSalesOf(deps.database, id),
  ]);
  if (sales.some(({ stage }) => !OVER_STAGES.includes(stage))) return null;
  const listing =
    listings.find(({ marketplaceId, status }) => marketplaceId === null && status === 'live') ??
    listings.find(({ status }) => status === 'live');
  if (!listing) return null;
  const now = deps.clock();
  const running = auctions.find(
    (one) =>
      one.listingId === listing.id &&
      one.outcome === null &&
      !one.cancelled &&
      one.opensAt <= now &&
      now < one.closesAt,
  );
  const stands = running && standingOfRow(running);
  const terms = windowTerms(
    listing,
    running && stands
      ? {
          closesAt: running.closesAt,
          priceMinor: stands.priceMinor,
          leastMinor: stands.leastMinor,
          reserve: running.reserveMinor === null ? 'none' : stands.reserveMet ? 'met' : 'not met',
          reserveMinor: running.reserveMinor,
          buyNowMinor: stands.buyNowOpen ? running.buyNowMinor : null,
        }
      : null,
  );
  if (terms === null) return null;
  const { ascii, unicode, pitch, description, withSite } = listing;
  return {
    ...terms,
    nameId: id,
    auctionId: running && !running.atMarketplace ? running.id : null,
    ascii,
    unicode,
    pitch,
    description,
    withSite,
  };
}

/** What may be sent from a window: nothing beside an auction that a marketplace holds, which takes its bids there. */
export function takenIn(window: ShopWindow): readonly LetterKind[] {
  return window.auction !== null && window.auctionId === null ? [] : lettersTaken(window);
}

/** What a window's form needs besides: the currencies of an offer, and from which bid on a deposit is wanted. */
export interface FormFacts {
  readonly currencies: readonly string[];
  /** In the auction's currency; `null` where none is wanted. */
  readonly deposit: { readonly fromMinor: number; readonly percent: number } | null;
}

export async function formFacts(deps: Deps, window: ShopWindow, rule: DepositRule | null): Promise<FormFacts> {
  const rates = await selectRates(deps.database);
  const fromMinor = window.auctionId === null ? null : depositFrom(rule, window.currency, rates, deps.clock());
  return {
    currencies: currenciesFor(window, rates),
    deposit: rule === null || fromMinor === null ? null : { fromMinor, percent: rule.percent },
  };
}

/** The currencies that an offer may be made in: the listing's own, and those that a rate leads to. */
export function currenciesFor({ currency, takesOffers }: ShopWindow, rates: readonly Rate[]): string[] {
  const known = rates.flatMap((rate) =>
    rate.currency === currency ? [rate.into] : rate.into === currency ? [rate.currency] : [],
  );
  return takesOffers ? [...new Set([currency, ...known.sort()])] : [currency];
}
