import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addDays, type Instant, instant } from '../time';
import { type Auction, buyNow, standingOf, USUAL_AUCTION } from './auction';
import { buyPrice, NO_PRICES } from './listing';
import { type AnswerRule, answerByRule, type Figure, liveFigure, middleOf, receive, refuseAnswer } from './offers';

const rule = (more: Partial<AnswerRule>): AnswerRule => ({
  acceptFrom: null,
  counterWith: null,
  counterDays: 7,
  ...more,
});

describe('answers by rule', () => {
  test('fractions are exact: 7 of 100 at seven percent is accepted', () => {
    expect(answerByRule(rule({ acceptFrom: 0.07 }), 7, 100, false, 1)).toEqual({ kind: 'accept' });
    expect(answerByRule(rule({ acceptFrom: 0.07 }), 6, 100, false, 1)).toBeNull();
    // Every whole percent of every asking price, against integers.
    for (let percent = 1; percent <= 100; percent += 1)
      for (const asking of [1, 7, 33, 100, 1999, 12_345, 999_999_99]) {
        const least = Math.ceil((asking * percent) / 100 - 1e-9);
        const exact = (BigInt(asking) * BigInt(percent) + 99n) / 100n;
        expect(answerByRule(rule({ acceptFrom: percent / 100 }), Number(exact), asking, false, 1)).toEqual({
          kind: 'accept',
        });
        expect(answerByRule(rule({ acceptFrom: percent / 100 }), Number(exact) - 1, asking, false, 1)).toBeNull();
        expect(Number(exact)).toBe(least);
      }
  });
});

function auction(more: Partial<Auction>): Auction {
  return {
    opensAt: 0 as Instant,
    closesAt: 1e9 as Instant,
    seller: 'the office',
    startMinor: 100,
    reserveMinor: 300,
    buyNowMinor: 800,
    increments: [{ fromMinor: 0, stepMinor: 10 }],
    unitMinor: 1,
    ...USUAL_AUCTION,
    bids: [],
    bought: null,
    cancelled: false,
    ...more,
  };
}
const bid = (maxMinor: number) => ({ bidder: 'Ann', maxMinor, at: 1 as Instant });

describe('an offer beside an auction', () => {
  const listed = {
    kind: 'auction',
    currency: 'USD',
    auctionDays: 7,
    prices: { ...NO_PRICES, start: 100, reserve: 300, buyNow: 800 },
  } as const;
  const elsewhere = {
    ...listed,
    kind: 'fixed price, offers too',
    prices: { ...NO_PRICES, minimum: 50, asking: 500, buyNow: 600 },
  } as const;

  test('the auction’s buy-now price may be taken as long as it is open', () => {
    expect(receive(900, listed, auction({}))).toEqual({ kind: 'purchase', minor: 800 });
    expect(receive(900, listed, auction({ bids: [bid(200)] }))).toEqual({ kind: 'purchase', minor: 800 });
    expect(receive(900, listed, auction({ bids: [bid(400)] }))).toEqual({ kind: 'open' });
    expect(receive(900, listed, auction({ reserveMinor: null, bids: [bid(100)] }))).toEqual({ kind: 'open' });
    expect(receive(900, listed, auction({ buyNowEnds: 'first bid', bids: [bid(200)] }))).toEqual({ kind: 'open' });
    expect(receive(900, listed, auction({ buyNowEnds: 'close', bids: [bid(400)] }))).toEqual({
      kind: 'purchase',
      minor: 800,
    });
    expect(receive(900, listed, null)).toEqual({ kind: 'declined' });
  });

  test('another listing of the name sells nothing, and declines nothing, beside bids', () => {
    expect(receive(700, elsewhere, auction({}))).toEqual({ kind: 'purchase', minor: 600 });
    expect(receive(700, elsewhere, auction({ bids: [bid(200)] }))).toEqual({ kind: 'open' });
    expect(receive(10, elsewhere, auction({ bids: [bid(200)] }))).toEqual({ kind: 'open' });
  });

  test('an offer buys in an auction exactly when a bidder could, whatever the bids and the marketplace’s rule', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 100, max: 790 }), { maxLength: 4 }),
        fc.constantFrom(null, 200, 500),
        fc.constantFrom('reserve met', 'first bid', 'close' as const),
        (maxima, reserveMinor, buyNowEnds) => {
          const state = auction({
            reserveMinor,
            buyNowEnds: buyNowEnds as Auction['buyNowEnds'],
            bids: maxima.map(bid),
          });
          const bought = buyNow(state, 'Cas', 2 as Instant);
          const offered = { ...listed, prices: { ...listed.prices, reserve: reserveMinor } };
          expect(receive(800, offered, state).kind === 'purchase').toBe('bought' in bought);
          expect(standingOf(state).buyNowOpen).toBe('bought' in bought);
        },
      ),
    );
  });
});

const NOW = instant('2026-11-24T09:12:00Z');
const prices = (more: Partial<typeof NO_PRICES>) => ({ ...NO_PRICES, ...more });

describe('offers', () => {
  const both = {
    kind: 'fixed price, offers too',
    currency: 'USD',
    auctionDays: 14,
    prices: prices({ minimum: 20_000, asking: 50_000, buyNow: 60_000 }),
  } as const;
  test.each([
    [19_999, { kind: 'declined' }],
    [20_000, { kind: 'open' }],
    [59_999, { kind: 'open' }],
    [60_000, { kind: 'purchase', minor: 60_000 }],
    [90_000, { kind: 'purchase', minor: 60_000 }],
  ])('an offer of %d', (minor, expected) => {
    expect(receive(minor, both, null)).toEqual(expected);
  });

  test('other kinds of listing', () => {
    expect(receive(1, { ...both, kind: 'open to offers', prices: NO_PRICES }, null)).toEqual({ kind: 'open' });
    expect(receive(49_999, { ...both, kind: 'fixed price' }, null)).toEqual({ kind: 'declined' });
    expect(receive(50_000, { ...both, kind: 'fixed price' }, null)).toEqual({ kind: 'purchase', minor: 50_000 });
    expect(buyPrice({ ...both, prices: prices({ asking: 50_000 }) })).toBe(50_000);
  });

  const figure = (by: Figure['by'], minor: number, more: Partial<Figure> = {}): Figure => ({
    by,
    minor,
    at: NOW,
    lapsesAt: addDays(NOW, 7),
    state: 'live',
    ...more,
  });

  test('only who received the live figure answers it, until the instant it lapses', () => {
    const figures = [figure('buyer', 20_000, { state: 'voided' }), figure('owner', 40_000)];
    expect(refuseAnswer(figures, 'buyer', NOW)).toBeNull();
    expect(refuseAnswer(figures, 'owner', NOW)).toMatchObject({ code: 'own-figure' });
    expect(refuseAnswer(figures, 'buyer', addDays(NOW, 7))).toMatchObject({ code: 'figure-lapsed' });
    expect(refuseAnswer([], 'owner', NOW)).toMatchObject({ code: 'no-live-figure' });
    expect(liveFigure(figures, addDays(NOW, 6.99))?.minor).toBe(40_000);
    expect(liveFigure(figures, addDays(NOW, 7))).toBeNull();
    expect(middleOf(figures, 100)).toBe(30_000);
    expect(middleOf([figure('buyer', 1)], 100)).toBeNull();
  });

  test.each([
    [46_000, false, { kind: 'accept' }],
    [45_000, false, { kind: 'accept' }],
    [30_000, false, { kind: 'counter', minor: 40_000 }],
    [30_000, true, null],
    [44_000, true, null],
    [41_000, false, { kind: 'accept' }],
  ] as const)('by rule, %d with a counter before: %s', (minor, hasCountered, expected) => {
    expect(
      answerByRule({ acceptFrom: 0.9, counterWith: 0.8, counterDays: 5 }, minor, 50_000, hasCountered, 100),
    ).toEqual(expected);
  });

  test('no rule without an asking price', () => {
    expect(answerByRule({ acceptFrom: 0.1, counterWith: 0.8, counterDays: 5 }, 1, null, false, 100)).toBeNull();
  });
});
