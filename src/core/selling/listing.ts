/** How a name is listed for sale. A name without a listing is not offered. */
export const LISTING_KINDS = ['fixed price', 'open to offers', 'fixed price, offers too', 'auction'] as const;
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

/** Over: the name may be listed there anew. A unique index keeps one that is not over for each name and marketplace. */
export const OVER_LISTINGS: readonly ListingStatus[] = ['withdrawn', 'sold', 'ended'];

/** Over, or on their way there. */
export const LEAVING_LISTINGS: readonly ListingStatus[] = ['withdrawing', ...OVER_LISTINGS];

/** The marketplace has them, refused ones too: a change has to be told there. */
export const TOLD_LISTINGS: readonly ListingStatus[] = ['unproved', 'in review', 'live', 'refused'];

/** The marketplace shows them, or may come to. */
export const STANDING_LISTINGS: readonly ListingStatus[] = ['sending', 'unproved', 'in review', 'live'];

/** Nobody sees them before the owner does something. */
export const UNSEEN_LISTINGS: readonly ListingStatus[] = ['unproved', 'refused'];

/** The prices of a listing, in the order in which they must rise. */
export const PRICE_NAMES = ['minimum', 'start', 'reserve', 'asking', 'buyNow'] as const;
export type PriceName = (typeof PRICE_NAMES)[number];

/** Minor units of the listing's currency; `null` where none is set. */
export type ListingPrices = Readonly<Record<PriceName, number | null>>;

export const NO_PRICES: ListingPrices = { minimum: null, start: null, reserve: null, asking: null, buyNow: null };

/**
 * What a listing may hold. Which lengths of auction there are is each marketplace's own matter; no auction runs longer than
 * `auctionDays.most`. Letters are counted as UTF-16 units, as a form counts them.
 */
export const LISTING_LIMITS = {
  auctionDays: { least: 1, most: 90 },
  pitch: 120,
  description: 4000,
  categories: 10,
  attributes: 20,
} as const;

/** What is offered, for how much. */
export interface Offered {
  readonly kind: ListingKind;
  readonly currency: string;
  readonly prices: ListingPrices;
  /** Whole days, where it is an auction. */
  readonly auctionDays: number;
}

/** Everything that the owner says of a listing: the one shape of it, from the form to the marketplace. */
export interface ListingTerms extends Offered {
  /** True where buyers see what the reserve is, not only that there is one. */
  readonly reserveShown: boolean;
  /** Sold with what stands at it, not the name alone. */
  readonly withSite: boolean;
  readonly categories: readonly string[];
  /** What was chosen of each attribute that the marketplace asks for, by its label. */
  readonly attributes: Readonly<Record<string, string>>;
  /** One line. */
  readonly pitch: string;
  readonly description: string;
}

/** Why each price is as it is, in the owner's words. */
export type PriceReasons = Readonly<Partial<Record<PriceName, string>>>;

/** Where a listing begins of which nobody has said anything. */
export const FRESH_TERMS: Omit<ListingTerms, 'currency'> = {
  kind: 'fixed price, offers too',
  prices: NO_PRICES,
  auctionDays: 10,
  reserveShown: false,
  withSite: false,
  categories: [],
  attributes: {},
  pitch: '',
  description: '',
};

/** The terms alone, of something that holds more than them. */
export function termsOf(listing: ListingTerms): ListingTerms {
  const { kind, currency, prices, auctionDays, reserveShown, withSite, categories, attributes, pitch, description } =
    listing;
  return { kind, currency, prices, auctionDays, reserveShown, withSite, categories, attributes, pitch, description };
}

const USED: Readonly<Record<ListingKind, readonly PriceName[]>> = {
  'fixed price': ['asking'],
  'open to offers': ['minimum', 'asking'],
  'fixed price, offers too': ['minimum', 'asking', 'buyNow'],
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
    case 'fixed price, offers too':
      return prices.buyNow ?? prices.asking;
    case 'auction':
      return prices.buyNow;
    case 'open to offers':
      return null;
  }
}

/** The prices of a kind that count as asked, the first of them that is set. */
export function askedFirst(kind: ListingKind): readonly PriceName[] {
  return kind === 'auction' ? ['buyNow', 'reserve', 'start'] : ['asking'];
}

/** The price in the ledger's column: what is asked, or else what a buyer could have it for. */
export function askedPrice({ kind, prices }: Pick<Offered, 'kind' | 'prices'>): number | null {
  for (const price of askedFirst(kind)) if (prices[price] !== null) return prices[price];
  return null;
}
