import { describe, expect, test } from 'vitest';
import { type Auction, buyNow, lowerReserve, outcomeOf, placeBid, standingOf } from '@/core/selling';
import type { Instant } from '@/core/time';

import { auction, bidding, CLOSE, EXTENSION_MS, MINUTE, type Try } from './sampleAuction';

describe('the rules of an auction', () => {
  test.each<[string, Partial<Auction>, readonly Try[], (string | null)[], Partial<ReturnType<typeof standingOf>>]>([
    ['the first bid has to reach the start', {}, [['Ann', 99]], ['bid-too-low'], { priceMinor: null, leader: null }],
    [
      'the first bid stands at the start, whatever its maximum',
      {},
      [['Ann', 400]],
      [null],
      { priceMinor: 100, leader: 'Ann' },
    ],
    [
      'the next has to reach the price and a step',
      {},
      [
        ['Ann', 400],
        ['Ben', 109],
      ],
      [null, 'bid-too-low'],
      { priceMinor: 100 },
    ],
    [
      'the price is the second maximum and a step',
      {},
      [
        ['Ann', 400],
        ['Ben', 200],
      ],
      [null, null],
      { priceMinor: 210, leader: 'Ann' },
    ],
    [
      '… but never more than the first maximum',
      {},
      [
        ['Ann', 205],
        ['Ben', 200],
      ],
      [null, null],
      { priceMinor: 205, leader: 'Ann' },
    ],
    [
      'of two alike the earlier leads',
      {},
      [
        ['Ann', 200],
        ['Ben', 200],
      ],
      [null, null],
      { priceMinor: 200, leader: 'Ann' },
    ],
    [
      'a higher one takes the lead',
      {},
      [
        ['Ann', 200],
        ['Ben', 300],
      ],
      [null, null],
      { priceMinor: 210, leader: 'Ben' },
    ],
    [
      'who leads can raise the maximum',
      {},
      [
        ['Ann', 200],
        ['Ann', 300],
        ['Ben', 250],
      ],
      [null, null, null],
      { priceMinor: 260, leader: 'Ann' },
    ],
    [
      '… but not lower it',
      {},
      [
        ['Ann', 200],
        ['Ann', 150],
      ],
      [null, 'bid-not-raised'],
      { priceMinor: 100 },
    ],
    [
      'a raise alone leaves the price',
      {},
      [
        ['Ann', 200],
        ['Ann', 900],
      ],
      [null, null],
      { priceMinor: 100 },
    ],
    [
      'a raise takes its new place: an equal maximum in between comes first',
      {},
      [
        ['Ann', 200],
        ['Ben', 300],
        ['Ann', 300],
      ],
      [null, null, null],
      { priceMinor: 300, leader: 'Ben' },
    ],
    ['the seller cannot bid', {}, [['office', 200]], ['own-auction'], {}],
    [
      'nothing before it opens',
      { opensAt: (5 * MINUTE) as Instant },
      [
        ['Ann', 200, 4],
        ['Ann', 200, 5],
      ],
      ['auction-not-open', null],
      {},
    ],
    ['nothing at the close or after', {}, [['Ann', 200, 100]], ['auction-closed'], {}],
    [
      'below the reserve the price is as without one',
      { reserveMinor: 500 },
      [
        ['Ann', 400],
        ['Ben', 200],
      ],
      [null, null],
      { priceMinor: 210, reserveMet: false },
    ],
    [
      'a maximum at the reserve lifts the price to it',
      { reserveMinor: 500 },
      [
        ['Ann', 200],
        ['Ben', 700],
      ],
      [null, null],
      { priceMinor: 500, reserveMet: true },
    ],
    [
      'above the reserve the second maximum counts again',
      { reserveMinor: 500 },
      [
        ['Ann', 900],
        ['Ben', 600],
      ],
      [null, null],
      { priceMinor: 610 },
    ],
    [
      'buy-now stays open until the reserve is met',
      { reserveMinor: 500, buyNowMinor: 1000 },
      [['Ann', 400]],
      [null],
      { buyNowOpen: true },
    ],
    ['… and closes then', { reserveMinor: 500, buyNowMinor: 1000 }, [['Ann', 500]], [null], { buyNowOpen: false }],
    ['without a reserve the first bid closes it', { buyNowMinor: 1000 }, [['Ann', 100]], [null], { buyNowOpen: false }],
    [
      'while it is open a maximum that reaches it is refused with that hint',
      { buyNowMinor: 1000 },
      [['Ann', 1000]],
      ['bid-reaches-buy-now'],
      { priceMinor: null },
    ],
    [
      'once it is closed a maximum may pass it',
      { buyNowMinor: 1000 },
      [
        ['Ann', 100],
        ['Ben', 2000],
      ],
      [null, null],
      { leader: 'Ben' },
    ],
  ])('%s', (_, more, tries, codes, standing) => {
    const result = bidding(auction(more), ...tries);
    expect(result.codes).toEqual(codes);
    expect(standingOf(result.state)).toMatchObject(standing);
  });

  test('a bid in the last five minutes moves the close; the moment before does not', () => {
    const early = bidding(auction(), ['Ann', 200, 94.99]).state;
    expect(early.closesAt).toBe(CLOSE);
    const late = bidding(auction(), ['Ann', 200, 95]).state;
    expect(late.closesAt).toBe(95 * MINUTE + EXTENSION_MS);
    expect(bidding(late, ['Ben', 150, 99.999]).state.closesAt).toBe(99.999 * MINUTE + EXTENSION_MS);
  });

  test('a raise by who leads moves it only when the price moves', () => {
    const led = bidding(auction(), ['Ann', 200, 1]).state;
    expect(bidding(led, ['Ann', 900, 99]).state.closesAt).toBe(CLOSE);
    const reserved = bidding(auction({ reserveMinor: 500 }), ['Ann', 200, 1]).state;
    expect(bidding(reserved, ['Ann', 600, 99]).state.closesAt).toBe(99 * MINUTE + EXTENSION_MS);
  });

  test('the outcome is the same however late somebody looks', () => {
    const { state } = bidding(auction({ reserveMinor: 500 }), ['Ann', 700], ['Ben', 650]);
    expect(outcomeOf(state, (CLOSE - 1) as Instant)).toBeNull();
    for (const at of [CLOSE, CLOSE + 1, CLOSE * 1000])
      expect(outcomeOf(state, at as Instant)).toEqual({ kind: 'sold', to: 'Ann', priceMinor: 660, how: 'bid' });
  });

  test('a reserve that is not met leaves the name unsold, and tells who bid most and not how much they would have', () => {
    const { state } = bidding(auction({ reserveMinor: 500 }), ['Ann', 480], ['Ben', 200]);
    expect(outcomeOf(state, CLOSE as Instant)).toEqual({ kind: 'unsold', highest: 'Ann', priceMinor: 210 });
    expect(outcomeOf(auction(), CLOSE as Instant)).toEqual({ kind: 'unsold', highest: null, priceMinor: null });
  });

  test('the reserve only falls; with it the price may rise to it', () => {
    const { state } = bidding(auction({ reserveMinor: 500 }), ['Ann', 480], ['Ben', 200]);
    expect(lowerReserve(state, 600, (5 * MINUTE) as Instant)).toMatchObject({ code: 'reserve-rises' });
    expect(lowerReserve(state, 50, (5 * MINUTE) as Instant)).toMatchObject({ code: 'reserve-below-start' });
    const lowered = lowerReserve(state, 300, (5 * MINUTE) as Instant) as Auction;
    expect(standingOf(lowered)).toMatchObject({ priceMinor: 300, reserveMet: true, leader: 'Ann' });
    expect(lowerReserve(lowered, null, (5 * MINUTE) as Instant)).toMatchObject({ reserveMinor: null });
    expect(lowerReserve(auction(), 10, (5 * MINUTE) as Instant)).toMatchObject({ code: 'reserve-rises' });
  });

  test('bought at buy-now it is over', () => {
    const open = auction({ buyNowMinor: 1000 });
    const bought = buyNow(open, 'Ann', MINUTE as Instant) as Auction;
    expect(outcomeOf(bought, (2 * MINUTE) as Instant)).toEqual({
      kind: 'sold',
      to: 'Ann',
      priceMinor: 1000,
      how: 'buy now',
    });
    expect(placeBid(bought, { bidder: 'Ben', maxMinor: 2000, at: (3 * MINUTE) as Instant })).toMatchObject({
      code: 'auction-bought',
    });
    expect(buyNow(bidding(open, ['Ann', 200]).state, 'Ben', (9 * MINUTE) as Instant)).toMatchObject({
      code: 'buy-now-over',
    });
    expect(buyNow(open, 'office', MINUTE as Instant)).toMatchObject({ code: 'own-auction' });
  });
});
