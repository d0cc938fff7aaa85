import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { placeBid, standingOf, usualIncrements } from '@/core/selling';
import { auction, ONE_UNIT } from '@/core/selling/sampleAuction';
import type { Instant } from '@/core/time';

/**
 * An auction as a room would hold it, written without looking at the core: the price is called step by step, and each
 * maximum answers the call of the other until one falls silent.
 */
function slowPrice(
  bids: readonly { bidder: string; max: number }[],
  start: number,
  reserve: number | null,
  stepAt: (price: number) => number,
): { price: number; leader: string } | null {
  const order: { bidder: string; max: number }[] = [];
  for (const bid of bids) {
    const at = order.findIndex(({ bidder }) => bidder === bid.bidder);
    if (at >= 0) order.splice(at, 1);
    order.push(bid);
  }
  let leader: { bidder: string; max: number } | null = null;
  for (const one of order) if (leader === null || one.max > leader.max) leader = one;
  if (leader === null) return null;
  let price = start;
  const rivals = order.filter(({ bidder }) => bidder !== leader.bidder);
  if (rivals.length > 0) {
    let loudest = 0;
    for (const { max } of rivals) while (loudest < max) loudest += 1;
    let called = loudest;
    for (let i = 0; i < stepAt(loudest) && called < leader.max; i += 1) called += 1;
    price = called;
  }
  if (reserve !== null && leader.max >= reserve) while (price < reserve) price += 1;
  return { price, leader: leader.bidder };
}

const tries = fc.array(fc.tuple(fc.constantFrom('Ann', 'Ben', 'Cleo', 'Dov'), fc.integer({ min: 1, max: 1500 })), {
  maxLength: 14,
});

describe('auctions against an independent simulation', () => {
  test('price and leader are those of a room that calls every unit', () => {
    fc.assert(
      fc.property(
        tries,
        fc.integer({ min: 1, max: 300 }),
        fc.option(fc.integer({ min: 300, max: 900 }), { nil: null }),
        (list, startMinor, reserveMinor) => {
          const increments = usualIncrements(1);
          const stepAt = (price: number) => {
            let step = 1;
            for (const { fromMinor, stepMinor } of increments) if (price >= fromMinor) step = stepMinor;
            return step;
          };
          let state = auction({ startMinor, reserveMinor, increments });
          list.forEach(([bidder, maxMinor], i) => {
            const next = placeBid(state, { bidder, maxMinor, at: i as Instant });
            if (!isRefusal(next)) state = next;
            const taken = state.bids.map(({ bidder: who, maxMinor: max }) => ({ bidder: who, max }));
            const slow = slowPrice(taken, startMinor, reserveMinor, stepAt);
            const { priceMinor, leader } = standingOf(state);
            expect([priceMinor, leader]).toEqual([slow?.price ?? null, slow?.leader ?? null]);
          });
        },
      ),
      { numRuns: 1000 },
    );
  });

  test('the price never falls, and never passes the highest maximum', () => {
    fc.assert(
      fc.property(tries, (list) => {
        let state = auction({ startMinor: 1, increments: usualIncrements(1), reserveMinor: 700 });
        let before = 0;
        list.forEach(([bidder, maxMinor], i) => {
          const next = placeBid(state, { bidder, maxMinor, at: i as Instant });
          if (!isRefusal(next)) state = next;
          const price = standingOf(state).priceMinor ?? 0;
          expect(price).toBeGreaterThanOrEqual(before);
          expect(price).toBeLessThanOrEqual(Math.max(0, ...state.bids.map((bid) => bid.maxMinor)));
          before = price;
        });
      }),
      { numRuns: 500 },
    );
  });

  /** Theory: Vickrey, "Counterspeculation, Auctions, and Competitive Sealed Tenders", Journal of Finance 16 (1961): proxies make it a second-price auction. */
  test('with steps of one unit the highest maximum wins at the second-highest plus at most one; ties go to the earlier', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 1000 }), { minLength: 2, maxLength: 8 }), (values) => {
        let state = auction({ startMinor: 1, increments: ONE_UNIT });
        values.forEach((maxMinor, i) => {
          const next = placeBid(state, { bidder: `bidder ${i}`, maxMinor, at: i as Instant });
          if (!isRefusal(next)) state = next;
        });
        const sorted = [...values].sort((a, b) => b - a);
        const { leader, priceMinor } = standingOf(state);
        expect(leader).toBe(`bidder ${values.indexOf(sorted[0] ?? 0)}`);
        const second = Math.max(0, ...state.bids.filter((bid) => bid.bidder !== leader).map((bid) => bid.maxMinor));
        expect([second, second + 1, 1]).toContain(priceMinor);
        // A bid that was refused was too low to reach the price of the moment.
        expect(priceMinor).toBeLessThanOrEqual((sorted[1] ?? 0) + 1);
        expect(priceMinor).toBeGreaterThanOrEqual(Math.min(sorted[1] ?? 0, sorted[0] ?? 0));
      }),
      { numRuns: 1000 },
    );
  });
});
