import type { AuctionOutcome, Handover, ListingTerms } from '@/core/selling';
import type { Instant } from '@/core/time';

/** What came of asking a marketplace. `unknown`: no answer came, and nobody can say whether it was done. */
export type MarketplaceOutcome<T> =
  | { readonly kind: 'done'; readonly value: T }
  | { readonly kind: 'refused'; readonly reason: string }
  | { readonly kind: 'unknown'; readonly cause: string };

/** A listing as it is sent: its terms, with the name in A-labels. */
export interface MarketplaceListing extends ListingTerms {
  readonly name: string;
}

export const MARKETPLACE_STATES = ['unproved', 'in review', 'live', 'refused', 'sold', 'withdrawn', 'ended'] as const;
export type MarketplaceState = (typeof MARKETPLACE_STATES)[number];

/** How a listing stands at the marketplace. */
export interface MarketplaceListingState {
  readonly name: string;
  readonly status: MarketplaceState;
  /** The TXT record that proves ownership. */
  readonly proof: { readonly host: string; readonly text: string } | null;
  readonly provedBy: 'txt' | 'mail' | 'account' | null;
  readonly reviewUntil: Instant | null;
  /** Why it was refused, or not proved. */
  readonly reason: string | null;
  readonly auction: { readonly opensAt: Instant; readonly closesAt: Instant } | null;
}

/** What happened at the marketplace. Each has a number; a reader asks for those after the last it has. */
export type MarketplaceEvent = { readonly id: number; readonly at: Instant } & (
  | { readonly kind: 'listing'; readonly state: MarketplaceListingState }
  | {
      readonly kind: 'offer';
      readonly name: string;
      readonly thread: string;
      readonly figure: string;
      readonly buyer: string;
      readonly minor: number;
      readonly currency: string;
      readonly lapsesAt: Instant | null;
    }
  /** The buyer gave up, or declined the owner's figure. */
  | { readonly kind: 'declined'; readonly thread: string }
  | {
      readonly kind: 'bid';
      readonly name: string;
      readonly bid: string;
      readonly bidder: string;
      readonly priceMinor: number;
      readonly leader: string;
      readonly reserveMet: boolean;
      /** The least next bid; `null` where the marketplace does not name it. */
      readonly nextMinor: number | null;
      readonly closesAt: Instant;
    }
  | { readonly kind: 'closed'; readonly name: string; readonly outcome: AuctionOutcome }
  /** Somebody takes the name; the seller has to agree before it is a sale. */
  | {
      readonly kind: 'purchase';
      readonly name: string;
      readonly sale: string;
      readonly how: 'offer' | 'bid' | 'buy now';
      readonly thread: string | null;
      readonly buyer: string;
      readonly minor: number;
      readonly currency: string;
    }
  | { readonly kind: 'paid' | 'not paid' | 'arrived'; readonly sale: string }
  | { readonly kind: 'buyer'; readonly sale: string; readonly handover: Handover; readonly account: string }
  | { readonly kind: 'dispute'; readonly sale: string; readonly note: string }
  | {
      readonly kind: 'released';
      readonly sale: string;
      readonly commissionMinor: number;
      readonly feesMinor: number;
      readonly proceedsMinor: number;
    }
);

/** An event that could not be understood: it is kept all the same. */
export interface UnreadEvent {
  readonly id: number;
  readonly at: Instant;
  readonly kind: 'unread';
}

/** One account at one marketplace. Everything may be sent again: it is carried out once. */
export interface MarketplaceLink {
  /** Answers the marketplace's own title. */
  test(): Promise<MarketplaceOutcome<string>>;
  list(listing: MarketplaceListing): Promise<MarketplaceOutcome<MarketplaceListingState>>;
  withdraw(name: string): Promise<MarketplaceOutcome<true>>;
  /** Asks the marketplace to look for the proof; `by` mail sends a code first, and then takes it. */
  prove(name: string, by: 'txt' | 'mail', code: string | null): Promise<MarketplaceOutcome<MarketplaceListingState>>;
  lowerReserve(name: string, reserveMinor: number | null): Promise<MarketplaceOutcome<true>>;
  /** Accepts the buyer's figure; answers the marketplace's sale. */
  accept(thread: string, figure: string): Promise<MarketplaceOutcome<string>>;
  counter(thread: string, key: string, minor: number, lapsesAt: Instant | null): Promise<MarketplaceOutcome<true>>;
  decline(thread: string): Promise<MarketplaceOutcome<true>>;
  /** Offers the name to the highest bidder of an auction that closed unsold. */
  offerTo(name: string, key: string, minor: number, lapsesAt: Instant): Promise<MarketplaceOutcome<string>>;
  answerSale(sale: string, answer: 'agreed' | 'refused'): Promise<MarketplaceOutcome<true>>;
  handedOver(sale: string, code: string | null): Promise<MarketplaceOutcome<true>>;
  /** The events after `cursor`, in their order. */
  events(cursor: number): Promise<MarketplaceOutcome<readonly (MarketplaceEvent | UnreadEvent)[]>>;
}

/** Where and with which key a marketplace is asked. */
export interface MarketplaceAddress {
  readonly url: string;
  readonly key: string;
  /** Hosts that may be asked although they are not at a public address. */
  readonly allowedHosts: readonly string[];
}
