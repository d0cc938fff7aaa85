/** How a name is on offer. A name without a listing is not offered. */
export const LISTING_KINDS = ['fixed price', 'open to offers', 'both', 'auction'] as const;
export type ListingKind = (typeof LISTING_KINDS)[number];

/** How a listing stands, in the order in which it comes about. */
export const LISTING_STATES = [
  'draft',
  'sending',
  'unproved',
  'in review',
  'live',
  'refused',
  'withdrawing',
  'withdrawn',
  'sold',
  'ended',
] as const;
export type ListingStatus = (typeof LISTING_STATES)[number];

/** The prices of a listing, in the order in which they must rise. */
export const PRICE_NAMES = ['minimum', 'start', 'reserve', 'asking', 'buyNow'] as const;
export type PriceName = (typeof PRICE_NAMES)[number];

/** Minor units of the listing's currency; `null` where none is set. */
export type ListingPrices = Readonly<Record<PriceName, number | null>>;

export const NO_PRICES: ListingPrices = { minimum: null, start: null, reserve: null, asking: null, buyNow: null };

/** Lengths of an auction, in days. */
export const AUCTION_DAYS = { least: 1, most: 30, usual: 14 } as const;

/** Most letters of the one-line pitch and of the description. */
export const MOST_PITCH = 120;
export const MOST_DESCRIPTION = 4000;

/** What is offered, for how much. */
export interface Offered {
  readonly kind: ListingKind;
  readonly currency: string;
  readonly prices: ListingPrices;
  readonly auctionDays: number;
}

const USED: Readonly<Record<ListingKind, readonly PriceName[]>> = {
  'fixed price': ['asking'],
  'open to offers': ['minimum', 'asking'],
  both: ['minimum', 'asking', 'buyNow'],
  auction: ['start', 'reserve', 'buyNow'],
};

/** The prices that a kind of listing has. The others are kept and not used. */
export function pricesOf(kind: ListingKind): readonly PriceName[] {
  return USED[kind];
}

/** The price of a kind that must be set. */
export function leadingPrice(kind: ListingKind): PriceName | null {
  return kind === 'auction' ? 'start' : kind === 'open to offers' ? null : 'asking';
}

/** Only the prices that the kind uses; the others `null`. */
export function usedPrices({ kind, prices }: Pick<Offered, 'kind' | 'prices'>): ListingPrices {
  const used = new Set(pricesOf(kind));
  return Object.fromEntries(PRICE_NAMES.map((name) => [name, used.has(name) ? prices[name] : null])) as ListingPrices;
}

/** What a buyer pays who takes the name at once; `null` where that is not offered. */
export function buyPrice({ kind, prices }: Pick<Offered, 'kind' | 'prices'>): number | null {
  switch (kind) {
    case 'fixed price':
      return prices.asking;
    case 'both':
      return prices.buyNow ?? prices.asking;
    case 'auction':
      return prices.buyNow;
    case 'open to offers':
      return null;
  }
}

/** The price in the ledger's column: what is asked, or else what a buyer could have it for. */
export function askedPrice({ kind, prices }: Pick<Offered, 'kind' | 'prices'>): number | null {
  return kind === 'auction' ? (prices.buyNow ?? prices.reserve ?? prices.start) : prices.asking;
}
