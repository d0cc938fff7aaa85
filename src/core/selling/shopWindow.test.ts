import { expect, test } from 'vitest';
import { windowTerms } from '.';

const prices = { minimum: 500_00, start: 100_00, reserve: 800_00, asking: 1_200_00, buyNow: 1_500_00 };
const listing = { currency: 'EUR', prices, reserveShown: false };
const running = {
  closesAt: 1_000,
  priceMinor: 300_00,
  leastMinor: 310_00,
  reserve: 'not met' as const,
  reserveMinor: 800_00,
  buyNowMinor: 1_500_00,
};

test('a fixed price is a price, and says no minimum that was left from before', () => {
  expect(windowTerms({ ...listing, kind: 'fixed price' }, null)).toEqual({
    currency: 'EUR',
    priceMinor: 1_200_00,
    takesOffers: false,
    minimumMinor: null,
    auction: null,
  });
});

test('open to offers: the least that an offer may be, and no price that the owner only hopes for', () => {
  expect(windowTerms({ ...listing, kind: 'open to offers' }, null)).toMatchObject({
    priceMinor: null,
    takesOffers: true,
    minimumMinor: 500_00,
  });
});

test('both: what it can be had for at once, and the least offer', () => {
  expect(windowTerms({ ...listing, kind: 'fixed price, offers too' }, null)).toMatchObject({
    priceMinor: 1_500_00,
    takesOffers: true,
    minimumMinor: 500_00,
  });
});

test('an auction shows how it stands, and its reserve only where the owner shows it', () => {
  const hidden = windowTerms({ ...listing, kind: 'auction' }, running);
  expect(hidden).toMatchObject({ priceMinor: 1_500_00, takesOffers: false, minimumMinor: null });
  expect(hidden?.auction).toEqual({
    closesAt: 1_000,
    priceMinor: 300_00,
    leastMinor: 310_00,
    reserve: 'not met',
    reserveMinor: null,
  });
  expect(JSON.stringify(hidden)).not.toContain('80000');
  const shown = windowTerms({ ...listing, kind: 'auction', reserveShown: true }, running);
  expect(shown?.auction?.reserveMinor).toBe(800_00);
});

test('what nobody can do anything about has no window', () => {
  expect(windowTerms({ ...listing, kind: 'auction' }, null)).toBeNull();
  expect(windowTerms({ ...listing, kind: 'fixed price', prices: { ...prices, asking: null } }, null)).toBeNull();
});
