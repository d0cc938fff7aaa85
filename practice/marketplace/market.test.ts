import { demoBuyers } from '@practice/marketplace/buyers';
import * as market from '@practice/marketplace/market';
import type { BuyerAct, Buyers } from '@practice/marketplace/types';
import { passTo } from '@practice/world/days';
import { blankDomain } from '@practice/world/domain';
import { practiceCustomers, practiceRegistrars } from '@practice/world/registrars';
import { makeWorld } from '@practice/world/world';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { commissionOn, type MarketplaceFees, NO_PRICES } from '@/core/selling';
import { addDays, HOUR_MS, instant } from '@/core/time';

const NOW = instant('2026-11-24T00:00:00Z');
const NAME = 'kelpkiln.com';
const USUAL = {
  name: NAME,
  kind: 'fixed price, offers too',
  currency: 'USD',
  prices: { ...NO_PRICES, minimum: 20_000, asking: 50_000, buyNow: 60_000 },
  auctionDays: 4,
  reserveShown: false,
  withSite: false,
  categories: [],
  pitch: '',
  description: '',
  attributes: {},
} as const;

function world(acts: readonly BuyerAct[] = [], more: Partial<Buyers> = {}) {
  const made = makeWorld(NOW, practiceRegistrars(NOW), practiceCustomers(NOW), [
    blankDomain(NAME, 'quaymark', NOW - 4e10, addDays(NOW, 400)),
  ]);
  made.buyers = {
    acts: (_, start) => acts.filter(({ at }) => at >= start && at < start + 86_400_000),
    reply: () => ({ do: 'decline' }),
    pays: () => true,
    ...more,
  };
  return made;
}
const kinds = (made: ReturnType<typeof world>) => made.market.events.map(({ kind }) => kind);
const days = (made: ReturnType<typeof world>, until: number) => {
  for (let day = 1; day <= until; day += 1) passTo(made, addDays(NOW, day));
};

/** The stand-in keeps to the protocol of docs/marketplace-link.md and the rules of docs/selling.md. */
describe('the practice marketplace', () => {
  test('proved, then reviewed within 72 hours, then live', () => {
    const made = world();
    market.list(made, USUAL);
    expect(made.market.listings[NAME]?.status).toBe('unproved');
    days(made, 4);
    expect(made.market.listings[NAME]?.status).toBe('unproved');
    market.prove(made, NAME, 'txt');
    passTo(made, addDays(NOW, 7));
    expect(made.market.listings[NAME]?.status).toBe('live');
    const [proved, live] = made.market.events;
    expect(Date.parse(live?.at ?? '') - Date.parse(proved?.at ?? '')).toBeLessThanOrEqual(72 * HOUR_MS);
    // Listed again it keeps its proof and is reviewed anew.
    market.list(made, { ...USUAL, prices: { ...USUAL.prices, asking: 55_000 } });
    expect(made.market.listings[NAME]).toMatchObject({ status: 'in review', provedBy: 'txt' });
  });

  test.each([
    ['prices out of order', { prices: { ...NO_PRICES, minimum: 90_000, asking: 50_000 } }],
    ['no price', { kind: 'fixed price', prices: NO_PRICES }],
    ['a currency that it does not take', { currency: 'JPY' }],
    ['a length that it does not have', { kind: 'auction', auctionDays: 9, prices: { ...NO_PRICES, start: 100 } }],
  ] as const)('%s is refused', (_, more) => {
    expect(() => market.list(world(), { ...USUAL, ...more })).toThrow(market.MarketRefusal);
  });

  test('an offer below the minimum never arrives; one above it does; at the buy-now price it is a purchase', () => {
    const at = (hours: number) => addDays(NOW, 5) + hours * HOUR_MS;
    const made = world([
      { at: at(1), buyer: 'Low', do: 'offer', minor: 19_900, days: 7 },
      { at: at(2), buyer: 'Ann', do: 'offer', minor: 20_000, days: 7 },
      { at: at(3), buyer: 'Ben', do: 'offer', minor: 90_000, days: 7 },
      { at: at(4), buyer: 'Cleo', do: 'buy' },
    ]);
    market.list(made, USUAL);
    market.prove(made, NAME, 'account');
    days(made, 6);
    expect(kinds(made)).toEqual(['listing', 'listing', 'offer', 'purchase']);
    expect(made.market.events.at(-1)).toMatchObject({ buyer: 'Ben', minor: 60_000, how: 'buy now' });
  });

  test('accepted twice it is one sale; a counter with a key is taken once', () => {
    const made = world([{ at: addDays(NOW, 5) + HOUR_MS, buyer: 'Ann', do: 'offer', minor: 30_000, days: 7 }]);
    market.list(made, USUAL);
    market.prove(made, NAME, 'txt');
    days(made, 6);
    const [thread] = Object.values(made.market.threads);
    const figure = String(thread?.figures[0]?.id);
    market.counter(made, String(thread?.id), 'one', 45_000, null);
    market.counter(made, String(thread?.id), 'one', 45_000, null);
    expect(thread?.figures).toHaveLength(2);
    expect(() => market.accept(made, String(thread?.id), figure)).toThrow('no longer on the table');
    days(made, 9);
    expect(thread?.open).toBe(false);
    expect(kinds(made).at(-1)).toBe('declined');
  });

  test('a buyer who does not pay is given seven days', () => {
    const made = world([{ at: addDays(NOW, 5) + HOUR_MS, buyer: 'Ivo', do: 'buy' }], { pays: () => false });
    market.list(made, USUAL);
    market.prove(made, NAME, 'txt');
    days(made, 6);
    const [sale] = Object.values(made.market.sales);
    market.answerSale(made, String(sale?.id), 'agreed');
    market.answerSale(made, String(sale?.id), 'agreed');
    days(made, 12);
    expect(sale?.stage).toBe('agreed');
    days(made, 14);
    expect(sale?.stage).toBe('not paid');
    expect(kinds(made).at(-1)).toBe('not paid');
  });

  test('with bids an auction can neither be changed nor withdrawn; its reserve can fall', () => {
    const made = world([{ at: addDays(NOW, 4) + HOUR_MS, buyer: 'Ann', do: 'bid', maxMinor: 30_000 }]);
    const listing = { ...USUAL, kind: 'auction', prices: { ...NO_PRICES, start: 10_000, reserve: 50_000 } } as const;
    market.list(made, listing);
    market.prove(made, NAME, 'txt');
    days(made, 5);
    expect(() => market.withdraw(made, NAME)).toThrow('runs to its close');
    expect(() => market.list(made, listing)).toThrow('only the reserve');
    expect(() => market.lowerTheReserve(made, NAME, 60_000)).toThrow('only fall');
    market.lowerTheReserve(made, NAME, 25_000);
    days(made, 12);
    expect(made.market.listings[NAME]?.status).toBe('sold');
    expect(kinds(made).slice(-2)).toEqual(['closed', 'purchase']);
  });

  /** What the marketplace pays out is worked out there on its own; what the ledger expects comes from the core. They agree on every price. */
  test('what it pays out is what the rules of the marketplace leave', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 20_000 }), (units) => {
        const made = world([{ at: addDays(NOW, 5) + HOUR_MS, buyer: 'Ann', do: 'buy' }]);
        market.list(made, { ...USUAL, kind: 'fixed price', prices: { ...NO_PRICES, asking: units * 100 } });
        market.prove(made, NAME, 'txt');
        days(made, 6);
        const [sale] = Object.values(made.market.sales);
        market.answerSale(made, String(sale?.id), 'agreed');
        days(made, 12);
        const own = made.domains.get(NAME);
        if (own) {
          own.owner = 'stranger';
          own.holder = 'Ann';
        }
        market.handedOver(made, String(sale?.id), null);
        days(made, 18);
        const kept = commissionOn(units * 100, market.MARKETPLACE_RULES.fees as MarketplaceFees);
        expect(made.market.paidOut.USD).toBe(units * 100 - kept);
      }),
      { numRuns: 60 },
    );
  });

  test('the same demo goes the same way each time', () => {
    const play = () => {
      const made = world();
      made.buyers = demoBuyers;
      market.list(made, USUAL);
      market.prove(made, NAME, 'txt');
      days(made, 60);
      return JSON.stringify(made.market.events);
    };
    expect(play()).toBe(play());
  });
});
