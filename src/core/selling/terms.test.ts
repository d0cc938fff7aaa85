import { describe, expect, test } from 'vitest';
import type { Day, Instant } from '../time';
import { checkListing } from './checks';
import { ladderOf } from './ladder';
import { NO_PRICES } from './listing';
import { netProceedsOf } from './netProceeds';
import { type ListingFees, type MarketplaceTerms, saleFees, sellingTerms } from './terms';

const NOW = Date.parse('2026-06-01T12:00:00Z') as Instant;
const HALL: MarketplaceTerms & ListingFees = {
  percent: 10,
  floorMinor: 0,
  steps: [],
  saleFeeMinor: 0,
  listingFeeMinor: 2500,
  feesCurrency: 'USD',
  attributes: [{ label: 'Paid placement', options: [{ label: 'first page', minor: 4000 }] }],
  categoryMinor: 300,
  currencies: [],
  wholeUnits: true,
  auctionDays: [7],
  reviewHours: 24,
  payoutSet: true,
};
const DRAFT = { sentAt: null, attributes: {}, categories: [] };
const RATES = [{ from: '2026-01-01' as Day, currency: 'USD', into: 'EUR', factor: 0.9 }];

describe('what a sale costs', () => {
  test('the listing fee counts while it has not been booked, and then no more', () => {
    const left = (listing: Parameters<typeof saleFees>[1]) =>
      netProceedsOf(100_000, saleFees(HALL, listing, 'USD', [], NOW) ?? HALL).proceedsMinor;
    expect(left(DRAFT)).toBe(87_500);
    expect(left({ ...DRAFT, attributes: { 'Paid placement': 'first page' }, categories: ['a', 'b', 'c'] })).toBe(
      82_900,
    );
    expect(left({ ...DRAFT, sentAt: NOW })).toBe(90_000);
    expect(left(null)).toBe(90_000);
  });

  test('a fee in another currency goes through a dated rate; without one it is not known, never the bare figure', () => {
    expect(saleFees(HALL, DRAFT, 'EUR', RATES, NOW)).toMatchObject({ listingFeeMinor: 2250, percent: 10 });
    expect(saleFees(HALL, DRAFT, 'JPY', RATES, NOW)).toBeNull();
    // A plain percentage needs no rate.
    expect(saleFees({ ...HALL, listingFeeMinor: 0 }, { ...DRAFT, sentAt: NOW }, 'JPY', [], NOW)).toMatchObject({
      percent: 10,
    });
    expect(saleFees(null, null, 'JPY', [], NOW)).toMatchObject({ percent: 0, listingFeeMinor: 0 });
  });

  test('what rests on fees that are not known says so', () => {
    const offered = { kind: 'fixed price', currency: 'JPY', auctionDays: 7, prices: { ...NO_PRICES, asking: 90_000 } };
    const { rules, fees, unitMinor } = sellingTerms(HALL, DRAFT, 'JPY', RATES, NOW);
    const [rung] = ladderOf(offered as never, null, fees, unitMinor);
    expect(rung).toMatchObject({ kind: 'asking', net: null, profitMinor: null });
    const found = checkListing({
      offered: offered as never,
      costMinor: 5000,
      unitMinor,
      marketplace: rules,
      pitch: '',
      description: '',
      now: NOW,
      termEnd: null,
      lockedUntil: null,
      atAccount: true,
    });
    expect(found.map(({ code, stops }) => [code, stops])).toEqual([['fees not known', false]]);
  });
});
