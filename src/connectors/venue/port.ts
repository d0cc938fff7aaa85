import type { AuctionOutcome, Handover, ListingKind, ListingPrices } from '@/core/selling';
import type { Instant } from '@/core/time';

/** What came of asking a venue. `unknown`: no answer came, and nobody can say whether it was done. */
export type VenueOutcome<T> =
  | { readonly kind: 'done'; readonly value: T }
  | { readonly kind: 'refused'; readonly reason: string }
  | { readonly kind: 'unknown'; readonly cause: string };

/** A listing as it is sent. Amounts are minor units of `currency`. */
export interface VenueListing {
  readonly name: string;
  readonly kind: ListingKind;
  readonly currency: string;
  readonly prices: ListingPrices;
  readonly auctionDays: number;
  readonly reserveShown: boolean;
  readonly withSite: boolean;
  readonly categories: readonly string[];
  readonly pitch: string;
  readonly description: string;
  readonly adult: boolean;
  readonly network: boolean;
}

export const VENUE_STATES = ['unproved', 'in review', 'live', 'refused', 'sold', 'withdrawn', 'ended'] as const;
export type VenueState = (typeof VENUE_STATES)[number];

/** How a listing stands at the venue. */
export interface VenueListingState {
  readonly name: string;
  readonly status: VenueState;
  /** The TXT record that proves ownership. */
  readonly proof: { readonly host: string; readonly text: string } | null;
  readonly provedBy: 'txt' | 'mail' | 'account' | null;
  readonly reviewUntil: Instant | null;
  /** Why it was refused, or not proved. */
  readonly reason: string | null;
  readonly auction: { readonly opensAt: Instant; readonly closesAt: Instant } | null;
}

/** What happened at the venue. Each has a number; a reader asks for those after the last it has. */
export type VenueEvent = { readonly id: number; readonly at: Instant } & (
  | { readonly kind: 'listing'; readonly state: VenueListingState }
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
      /** The least next bid; `null` where the venue does not name it. */
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

/** One account at one venue. Everything may be sent again: it is carried out once. */
export interface VenueLink {
  /** Answers the venue's own title. */
  test(): Promise<VenueOutcome<string>>;
  list(listing: VenueListing): Promise<VenueOutcome<VenueListingState>>;
  withdraw(name: string): Promise<VenueOutcome<true>>;
  /** Asks the venue to look for the proof; `by` mail sends a code first, and then takes it. */
  prove(name: string, by: 'txt' | 'mail', code: string | null): Promise<VenueOutcome<VenueListingState>>;
  lowerReserve(name: string, reserveMinor: number | null): Promise<VenueOutcome<true>>;
  /** Accepts the buyer's figure; answers the venue's sale. */
  accept(thread: string, figure: string): Promise<VenueOutcome<string>>;
  counter(thread: string, key: string, minor: number, lapsesAt: Instant | null): Promise<VenueOutcome<true>>;
  decline(thread: string): Promise<VenueOutcome<true>>;
  /** Offers the name to the highest bidder of an auction that closed unsold. */
  offerTo(name: string, key: string, minor: number, lapsesAt: Instant): Promise<VenueOutcome<string>>;
  answerSale(sale: string, answer: 'agreed' | 'refused'): Promise<VenueOutcome<true>>;
  handedOver(sale: string, code: string | null): Promise<VenueOutcome<true>>;
  /** The events after `cursor`, in their order. */
  events(cursor: number): Promise<VenueOutcome<readonly (VenueEvent | UnreadEvent)[]>>;
}

/** Where and with which key a venue is asked. */
export interface VenueAddress {
  readonly url: string;
  readonly key: string;
  /** Hosts that may be asked although they are not at a public address. */
  readonly allowedHosts: readonly string[];
}
