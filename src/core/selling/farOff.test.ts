import { expect, test } from 'vitest';
import { farOff, pricesFarOff } from './farOff';
import { type ListingKind, type ListingPrices, NO_PRICES } from './listing';

test.each([
  [1_000_000, 50_000, { likeMinor: 50_000, times: 20, isMore: true }],
  [999_999, 50_000, null],
  [2500, 50_000, { likeMinor: 50_000, times: 20, isMore: false }],
  [2501, 50_000, null],
  [50_000, 50_000, null],
])('%i beside %i', (minor, like, wanted) => {
  expect(farOff(minor, like)).toEqual(wanted);
});

test('without a price, or without anything to hold it against, nothing is far off', () => {
  expect(farOff(null, 50_000)).toBeNull();
  expect(farOff(1_000_000, null)).toBeNull();
  expect(farOff(0, 50_000)).toBeNull();
  expect(farOff(50_000, 0)).toBeNull();
});

const LIKE = 90_000;
const prices = (kind: ListingKind, given: Partial<ListingPrices>) =>
  pricesFarOff({ kind, prices: { ...NO_PRICES, ...given } }, LIKE).map(({ price, times }) => `${price} ${times}`);

test('an auction that begins low is no slip where a reserve holds it; where none does it is asked about', () => {
  expect(prices('auction', { start: 1_000, reserve: 50_000 })).toEqual([]);
  expect(prices('auction', { start: 1_000 })).toEqual(['start 90']);
});

test('every price at which somebody may buy is asked about, not only the first', () => {
  expect(prices('auction', { start: 1_000, reserve: 2_000, buyNow: 4_500 })).toEqual(['reserve 45', 'buyNow 20']);
  expect(prices('fixed price, offers too', { asking: 90_000, buyNow: 9_000_000 })).toEqual(['buyNow 100']);
});

test('a least offer may be as low as one likes', () => {
  expect(prices('open to offers', { minimum: 100 })).toEqual([]);
  expect(prices('open to offers', { minimum: 100, asking: 100 })).toEqual(['asking 900']);
});

test('a price that the kind does not use is not asked about', () => {
  expect(prices('fixed price', { asking: 90_000, buyNow: 1, start: 1 })).toEqual([]);
});

test('nothing is asked about where no like sale is known', () => {
  expect(pricesFarOff({ kind: 'fixed price', prices: { ...NO_PRICES, asking: 1 } }, null)).toEqual([]);
});
