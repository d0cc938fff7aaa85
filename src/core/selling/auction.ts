import { type Refusal, refuse } from '../refusal';
import { DAY_MS, type Instant, MINUTE_MS } from '../time';

/** From a price on, the step to the next bid. Both in minor units. */
export interface Increment {
  readonly fromMinor: number;
  readonly stepMinor: number;
}

/** A maximum that somebody has bid. */
export interface Bid {
  readonly bidder: string;
  readonly maxMinor: number;
  readonly at: Instant;
}

/** An auction with its accepted bids, in the order in which they were accepted. */
export interface Auction {
  readonly opensAt: Instant;
  readonly closesAt: Instant;
  readonly seller: string;
  readonly startMinor: number;
  readonly reserveMinor: number | null;
  readonly buyNowMinor: number | null;
  readonly increments: readonly Increment[];
  /** Bids are whole multiples of this: one unit where the marketplace takes whole units only, else 1. */
  readonly unitMinor: number;
  /** A bid in the last so many minutes moves the close by as many from then. */
  readonly extensionMinutes: number;
  readonly buyNowEnds: BuyNowEnd;
  readonly bids: readonly Bid[];
  /** Set when it was bought at its buy-now price, which ends it. */
  readonly bought: { readonly bidder: string; readonly at: Instant } | null;
  readonly cancelled: boolean;
}

/** An auction may be cancelled, and its name taken off sale, while it has no more bids than this: a bid is a promise to its bidder. */
export const MOST_BIDS_TO_CANCEL = 0;

/** Until when a name can be bought at once: until the reserve is met (without a reserve, until somebody bids), until the first bid, or to the close. */
export const BUY_NOW_ENDS = ['reserve met', 'first bid', 'close'] as const;
export type BuyNowEnd = (typeof BUY_NOW_ENDS)[number];

/** Rules of an auction where its marketplace says nothing else. */
export const USUAL_AUCTION: Pick<Auction, 'extensionMinutes' | 'buyNowEnds'> = {
  extensionMinutes: 5,
  buyNowEnds: 'reserve met',
};

/** How an auction stands. */
export interface Standing {
  /** `null` before the first bid. */
  readonly priceMinor: number | null;
  readonly leader: string | null;
  readonly reserveMet: boolean;
  readonly buyNowOpen: boolean;
  /** The least that the next bidder has to bid. */
  readonly leastMinor: number;
  readonly bidders: number;
}

/** How an auction ended. An unsold one names who bid most, to whom the seller may offer the name. */
export type AuctionOutcome =
  | { readonly kind: 'sold'; readonly to: string; readonly priceMinor: number; readonly how: 'bid' | 'buy now' }
  | { readonly kind: 'unsold'; readonly highest: string | null; readonly priceMinor: number | null }
  | { readonly kind: 'cancelled' };

/** Steps of whole units from which marketplaces differ: of our own making. */
export function usualIncrements(unitMinor: number): Increment[] {
  return [
    [0, 1],
    [100, 5],
    [500, 10],
    [1000, 25],
    [2500, 50],
    [5000, 100],
    [10_000, 250],
  ].map(([from, step]) => ({ fromMinor: (from ?? 0) * unitMinor, stepMinor: (step ?? 1) * unitMinor }));
}

/** When an auction of so many days closes that opens now. */
export function closingAt(opensAt: Instant, days: number): Instant {
  return (opensAt + days * DAY_MS) as Instant;
}

/** The step at a price: that of the last line at or below it. */
export function incrementAt(minor: number, increments: readonly Increment[]): number {
  return increments.findLast(({ fromMinor }) => fromMinor <= minor)?.stepMinor ?? increments[0]?.stepMinor ?? 1;
}

/** The highest maximum of each bidder, highest first; of two alike, the one that was bid earlier. */
function maxima(bids: readonly Bid[]): Bid[] {
  const latest = new Map<string, { bid: Bid; order: number }>();
  for (const [order, bid] of bids.entries()) latest.set(bid.bidder, { bid, order });
  return [...latest.values()]
    .sort((a, b) => b.bid.maxMinor - a.bid.maxMinor || a.order - b.order)
    .map(({ bid }) => bid);
}

/** Price, leader and what the next bid must be. The price is the second maximum and a step, within the first, at least a met reserve. */
export function standingOf(auction: Auction): Standing {
  const [first, second] = maxima(auction.bids);
  const { startMinor, reserveMinor, increments } = auction;
  const reserveMet = first !== undefined && (reserveMinor === null || first.maxMinor >= reserveMinor);
  let priceMinor: number | null = null;
  if (first) {
    priceMinor = second
      ? Math.min(first.maxMinor, second.maxMinor + incrementAt(second.maxMinor, increments))
      : startMinor;
    if (reserveMet && reserveMinor !== null) priceMinor = Math.max(priceMinor, reserveMinor);
  }
  return {
    priceMinor,
    leader: first?.bidder ?? null,
    reserveMet,
    buyNowOpen: isBuyNowOpen(auction, first !== undefined, reserveMet),
    leastMinor: priceMinor === null ? startMinor : priceMinor + incrementAt(priceMinor, increments),
    bidders: new Set(auction.bids.map(({ bidder }) => bidder)).size,
  };
}

function isBuyNowOpen(
  { buyNowMinor, bought, buyNowEnds, reserveMinor }: Omit<Auction, 'bids'>,
  hasBids: boolean,
  reserveMet: boolean,
): boolean {
  if (buyNowMinor === null || bought !== null) return false;
  if (buyNowEnds === 'close') return true;
  return buyNowEnds === 'first bid' || reserveMinor === null ? !hasBids : !reserveMet;
}

/** What a marketplace shows of an auction that it holds: maxima stay secret there, so its own figures count. */
export interface Shown {
  readonly priceMinor: number | null;
  readonly leader: string | null;
  readonly reserveMet: boolean;
  /** The least next bid that it named; `null` where it names none. */
  readonly nextMinor: number | null;
}

/** How an auction stands that is followed at a marketplace: as shown there, the next bid a usual step above where it names none. */
export function standingAsShown(auction: Auction, shown: Shown): Standing {
  const { priceMinor, leader, reserveMet, nextMinor } = shown;
  return {
    priceMinor,
    leader,
    reserveMet,
    buyNowOpen: isBuyNowOpen(auction, priceMinor !== null, reserveMet),
    leastMinor:
      nextMinor ??
      (priceMinor === null ? auction.startMinor : priceMinor + incrementAt(priceMinor, auction.increments)),
    bidders: new Set(auction.bids.map(({ bidder }) => bidder)).size,
  };
}

function refuseAt(auction: Auction, bidder: string, at: Instant): Refusal | null {
  if (auction.cancelled) return refuse('auction-cancelled', 'This auction was cancelled.');
  if (auction.bought) return refuse('auction-bought', 'The name was bought at its buy-now price.');
  if (at < auction.opensAt) return refuse('auction-not-open', 'This auction has not opened yet.');
  if (at >= auction.closesAt) return refuse('auction-closed', 'This auction has closed.');
  if (bidder === auction.seller) return refuse('own-auction', 'Who sells a name cannot bid on it.');
  return null;
}

/** Takes a maximum, or refuses it with what would be taken. A bid cannot be taken back. */
export function placeBid(auction: Auction, bid: Bid): Auction | Refusal {
  const refused = refuseAt(auction, bid.bidder, bid.at);
  if (refused) return refused;
  if (bid.maxMinor % auction.unitMinor !== 0)
    return refuse('bid-not-whole', 'Bids are made in whole units here.', 'max');
  const before = standingOf(auction);
  if (before.buyNowOpen && bid.maxMinor >= (auction.buyNowMinor ?? 0))
    return refuse('bid-reaches-buy-now', 'The name can be bought at once for that: take the buy-now price.', 'max');
  if (before.leader === bid.bidder) {
    const own = Math.max(...auction.bids.filter(({ bidder }) => bidder === bid.bidder).map(({ maxMinor }) => maxMinor));
    if (bid.maxMinor <= own) return refuse('bid-not-raised', 'Who leads can only raise the maximum.', 'max');
  } else if (bid.maxMinor < before.leastMinor)
    return refuse('bid-too-low', 'The next bid has to reach the price and a step.', 'max');
  const next = { ...auction, bids: [...auction.bids, bid] };
  const isQuietRaise = before.leader === bid.bidder && standingOf(next).priceMinor === before.priceMinor;
  const extensionMs = auction.extensionMinutes * MINUTE_MS;
  const isLate = bid.at >= auction.closesAt - extensionMs;
  return isLate && !isQuietRaise
    ? { ...next, closesAt: Math.max(next.closesAt, bid.at + extensionMs) as Instant }
    : next;
}

/** Buys the name at its buy-now price, while that is open. */
export function buyNow(auction: Auction, bidder: string, at: Instant): Auction | Refusal {
  const refused = refuseAt(auction, bidder, at);
  if (refused) return refused;
  if (!standingOf(auction).buyNowOpen)
    return refuse('buy-now-over', 'The buy-now price is no longer open: there are bids.');
  return { ...auction, bought: { bidder, at } };
}

/** Lowers the reserve, or drops it, while the auction is not over. It never rises. */
export function lowerReserve(auction: Auction, reserveMinor: number | null, at: Instant): Auction | Refusal {
  const refused = refuseAt(auction, '', at);
  if (refused && refused.code !== 'auction-not-open') return refused;
  if (auction.reserveMinor === null || (reserveMinor !== null && reserveMinor > auction.reserveMinor))
    return refuse('reserve-rises', 'A reserve can only fall while the auction runs.', 'reserve');
  if (reserveMinor !== null && reserveMinor < auction.startMinor)
    return refuse('reserve-below-start', 'A reserve cannot fall below the start.', 'reserve');
  if (reserveMinor !== null && reserveMinor % auction.unitMinor !== 0)
    return refuse('reserve-not-whole', 'Prices are in whole units here.', 'reserve');
  return { ...auction, reserveMinor };
}

/** How an auction ended; `null` while it is open at `at`. Only bids before the close were taken, so any later moment says the same. */
export function outcomeOf(auction: Auction, at: Instant): AuctionOutcome | null {
  if (auction.cancelled) return { kind: 'cancelled' };
  if (auction.bought)
    return { kind: 'sold', to: auction.bought.bidder, priceMinor: auction.buyNowMinor as number, how: 'buy now' };
  if (at < auction.closesAt) return null;
  const { leader, priceMinor, reserveMet } = standingOf(auction);
  return leader !== null && priceMinor !== null && reserveMet
    ? { kind: 'sold', to: leader, priceMinor, how: 'bid' }
    : { kind: 'unsold', highest: leader, priceMinor };
}
