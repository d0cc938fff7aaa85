import { buyPrice, type ListingKind, type ListingPrices, usedPrices } from './listing';

/** What a buyer may do about a name, and for how much; amounts in minor units of `currency`. */
export interface WindowTerms {
  readonly currency: string;
  /** The price at which it can be had now; `null` where there is none. */
  readonly priceMinor: number | null;
  readonly takesOffers: boolean;
  /** The least that an offer may be, where the owner says it. */
  readonly minimumMinor: number | null;
  readonly auction: WindowAuction | null;
}

/** An auction as buyers see it: never its reserve, unless the owner shows it. */
export interface WindowAuction {
  readonly closesAt: number;
  /** The price so far; `null` before the first bid. */
  readonly priceMinor: number | null;
  /** The least next bid. */
  readonly leastMinor: number;
  readonly reserve: 'none' | 'met' | 'not met';
  readonly reserveMinor: number | null;
}

/** What is said of a listing in a buyer's window. */
export interface WindowListing {
  readonly kind: ListingKind;
  readonly currency: string;
  readonly prices: ListingPrices;
  readonly reserveShown: boolean;
}

/**
 * What a buyer may do about a listed name: a fixed price is a price, an auction its standing, offers their minimum. `auction` is the running one.
 * `null` where nothing can be done: an auction that does not run yet, a fixed price that nobody has said.
 */
export function windowTerms(
  { kind, currency, prices: said, reserveShown }: WindowListing,
  auction: (WindowAuction & { readonly buyNowMinor: number | null }) | null,
): WindowTerms | null {
  if (kind === 'auction') {
    if (auction === null) return null;
    const { buyNowMinor, reserveMinor, ...shown } = auction;
    return {
      currency,
      priceMinor: buyNowMinor,
      takesOffers: false,
      minimumMinor: null,
      auction: { ...shown, reserveMinor: reserveShown ? reserveMinor : null },
    };
  }
  const takesOffers = kind !== 'fixed price';
  const priceMinor = buyPrice({ kind, prices: said });
  if (!takesOffers && priceMinor === null) return null;
  return { currency, priceMinor, takesOffers, minimumMinor: usedPrices({ kind, prices: said }).minimum, auction: null };
}
