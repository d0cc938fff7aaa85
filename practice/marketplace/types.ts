import type { MarketplaceListing, MarketplaceListingState } from '@/connectors/marketplace/port';
import type { Auction, Figure, Handover } from '@/core/selling';
import type { Ms } from '../world/calendar';

/** A listing here. */
export interface MarketListing extends MarketplaceListing {
  readonly code: string;
  status: MarketplaceListingState['status'];
  provedBy: MarketplaceListingState['provedBy'];
  reviewUntil: Ms | null;
  reason: string | null;
  auction: Auction | null;
  /** The outcome of the auction has been told. */
  closed: boolean;
}

export interface MarketThread {
  readonly id: number;
  readonly name: string;
  readonly buyer: string;
  readonly currency: string;
  readonly figures: (Figure & { readonly id: number; readonly key: string | null })[];
  open: boolean;
  /** The sale that came of it. */
  sale: number | null;
}

export type MarketStage =
  | 'to agree'
  | 'agreed'
  | 'paid'
  | 'buyer known'
  | 'handed over'
  | 'arrived'
  | 'released'
  | 'not paid'
  | 'refused';

export interface MarketSale {
  readonly id: number;
  readonly name: string;
  readonly buyer: string;
  readonly minor: number;
  readonly currency: string;
  readonly how: 'offer' | 'bid' | 'buy now';
  readonly thread: number | null;
  stage: MarketStage;
  since: Ms;
  handover: Handover | null;
  account: string | null;
}

/** What a buyer does, and when. */
export type BuyerAct = { readonly at: Ms; readonly buyer: string } & (
  | { readonly do: 'offer'; readonly minor: number; readonly days: number }
  | { readonly do: 'bid'; readonly maxMinor: number }
  | { readonly do: 'buy' }
);

/** What a buyer says to the owner's figure. */
export type BuyerReply =
  | { readonly do: 'accept' }
  | { readonly do: 'decline' }
  | { readonly do: 'offer'; readonly minor: number };

/** The people who buy here. */
export interface Buyers {
  /** What they do on a day about a listing that is live. */
  acts(listing: MarketListing, dayStart: Ms): readonly BuyerAct[];
  /** What one says to a figure of the owner. */
  reply(listing: MarketListing | undefined, thread: MarketThread, minor: number): BuyerReply;
  pays(buyer: string): boolean;
}

/** Something that will happen at an instant. */
export type MarketDue = { readonly at: Ms } & (
  | { readonly what: 'act'; readonly name: string; readonly act: BuyerAct }
  | { readonly what: 'reply'; readonly thread: number; readonly figure: number }
  | { readonly what: 'sale'; readonly sale: number; readonly from: MarketStage }
);

/** A marketplace of the practice world: everything in it can be written as JSON. */
export interface Market {
  nextId: number;
  /** The last day whose buyers were asked what they do. */
  plannedDay: number;
  readonly events: {
    readonly id: number;
    readonly at: string;
    readonly kind: string;
    readonly [more: string]: unknown;
  }[];
  readonly listings: Record<string, MarketListing>;
  readonly threads: Record<string, MarketThread>;
  readonly sales: Record<string, MarketSale>;
  due: MarketDue[];
  /** What was paid out to the office, by currency. */
  readonly paidOut: Record<string, number>;
}
