import { isRefusal } from '../refusal';
import type { Instant } from '../time';
import { type Auction, type Increment, placeBid, USUAL_AUCTION } from './auction';

export const MINUTE = 60_000;
export const EXTENSION_MS = 5 * MINUTE;
export const CLOSE = 100 * MINUTE;
export const ONE_UNIT: readonly Increment[] = [{ fromMinor: 0, stepMinor: 1 }];

/** An auction of 100 minutes, with steps of ten, for tests. */
export function auction(more: Partial<Auction> = {}): Auction {
  return {
    opensAt: 0 as Instant,
    closesAt: CLOSE as Instant,
    seller: 'office',
    startMinor: 100,
    reserveMinor: null,
    buyNowMinor: null,
    increments: [{ fromMinor: 0, stepMinor: 10 }],
    unitMinor: 1,
    ...USUAL_AUCTION,
    bids: [],
    bought: null,
    cancelled: false,
    ...more,
  };
}

export type Try = readonly [bidder: string, max: number, minute?: number];

/** Bids in turn; answers the auction and the code of each refusal, or `null`. */
export function bidding(start: Auction, ...tries: readonly Try[]): { state: Auction; codes: (string | null)[] } {
  let state = start;
  const codes = tries.map(([bidder, maxMinor, minute], i) => {
    const next = placeBid(state, { bidder, maxMinor, at: ((minute ?? i + 1) * MINUTE) as Instant });
    if (isRefusal(next)) return next.code;
    state = next;
    return null;
  });
  return { state, codes };
}
