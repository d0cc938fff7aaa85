import type { Amount } from '../money';
import type { MarketplaceTerms, PastSale } from '../selling';
import type { Day } from '../time';

/** A name that was on offer and is not in the ledger any more: sold, dropped, or lost. */
export interface GoneOffer {
  readonly ending: string;
  readonly tags: readonly string[];
  readonly asking: Amount | null;
  /** How long it was on offer. */
  readonly years: number;
}

/** An own sale that is done. */
export interface OwnSale {
  readonly ascii: string;
  readonly ending: string;
  readonly tags: readonly string[];
  readonly price: Amount;
  /** What was asked when it was sold, in the currency of the price; `null` where nobody has said. */
  readonly askedMinor: number | null;
  readonly day: Day;
}

/** So many days back visits count as a signal. */
export const VISIT_DAYS = 90;

/**
 * What is known of own names on offer, beside the ledger: in columns by name id where there may be many. `years` is how long each name
 * of the ledger has been on offer; `minimumMinor` the least offer of its listing, in minor units of `currencies[currency]`, `NaN` for none.
 */
export interface OfferFacts {
  readonly since: { readonly nameId: Int32Array; readonly years: Float64Array };
  readonly listed: {
    readonly nameId: Int32Array;
    readonly minimumMinor: Float64Array;
    readonly currency: Uint8Array;
    /** When its listing is through review and can be seen; `NaN` where it can be by now. Milliseconds. */
    readonly seenFrom: Float64Array;
    /** The place of the marketplace in `marketplaces`; -1 for the office itself. */
    readonly marketplace: Int32Array;
  };
  readonly currencies: readonly string[];
  readonly marketplaces: readonly (MarketplaceTerms & { readonly label: string })[];
  /** Names somebody has made an offer for, or bid on, within a year, and how many did. */
  readonly offers: { readonly nameId: Int32Array; readonly count: Int32Array };
  /** Names whose windows were opened within `VISIT_DAYS`, and how often. */
  readonly visits: { readonly nameId: Int32Array; readonly count: Int32Array };
  /** Names that are being sold: their buyer is found. */
  readonly selling: Int32Array;
  readonly gone: readonly GoneOffer[];
  readonly sales: readonly OwnSale[];
  /** Own sales and those of others that were told. */
  readonly past: readonly PastSale[];
}

/** What is known of names nobody has offered yet. */
export const NO_OFFER_FACTS: OfferFacts = {
  since: { nameId: new Int32Array(0), years: new Float64Array(0) },
  listed: {
    nameId: new Int32Array(0),
    minimumMinor: new Float64Array(0),
    currency: new Uint8Array(0),
    seenFrom: new Float64Array(0),
    marketplace: new Int32Array(0),
  },
  currencies: [],
  marketplaces: [],
  offers: { nameId: new Int32Array(0), count: new Int32Array(0) },
  visits: { nameId: new Int32Array(0), count: new Int32Array(0) },
  selling: new Int32Array(0),
  gone: [],
  sales: [],
  past: [],
};
