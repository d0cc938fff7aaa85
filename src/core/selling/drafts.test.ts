import { describe, expect, test } from 'vitest';
import { addDays, type Day, instant } from '../time';
import {
  applyRule,
  comparablesOf,
  type Draft,
  draftsIn,
  firstDrafts,
  type PricedName,
  type Pricing,
  priceDraft,
  returnOf,
  soldAt,
  withPrice,
} from './drafts';
import type { PriceName } from './listing';

const NOW = instant('2026-11-24T09:12:00Z');
const day = (text: string) => text as Day;

const name = (nameId: number, more: Partial<PricedName> = {}): PricedName => ({
  nameId,
  ascii: `kelpkiln${nameId}.com`,
  unicode: `kelpkiln${nameId}.com`,
  account: 'Quaymark',
  spent: [{ minor: 2000, currency: 'USD' }],
  entries: [{ day: day('2025-11-24'), minor: 2000, currency: 'USD' }],
  asking: null,
  termEnd: addDays(NOW, 300),
  lockedUntil: null,
  atAccount: true,
  ...more,
});

const HALL = {
  id: 7,
  currencies: ['USD'],
  feesCurrency: 'USD',
  percent: 10,
  floorMinor: 0,
  steps: [],
  saleFeeMinor: 0,
  listingFeeMinor: 600,
  wholeUnits: true,
  auctionDays: [7],
  reviewHours: 0,
  payoutSet: true,
  attributes: [{ label: 'Paid placement', options: [{ label: 'first page', minor: 1000 }] }],
  categoryMinor: 200,
};

const pricing = (names: readonly PricedName[], more: Partial<Pricing> = {}): Pricing => ({
  names,
  listings: [],
  marketplaces: [HALL],
  rates: [{ from: day('2026-01-01'), currency: 'EUR', into: 'USD', factor: 1.1 }],
  sales: [
    {
      ascii: 'kelpkeel.com',
      price: { minor: 90_000, currency: 'USD' },
      day: day('2026-01-01'),
      marketplace: 'Hall',
      own: false,
    },
  ],
  homeCurrency: 'USD',
  now: NOW,
  ...more,
});

const draftsOf = (about: Pricing) => firstDrafts(about, 7, 'USD');
const withPrices = (draft: Draft, prices: Partial<Record<PriceName, number>>): Draft => ({
  ...draft,
  prices: { ...draft.prices, ...prices },
});

describe('drafts', () => {
  test('begin from the asking price that the ledger has, in the same currency only', () => {
    const about = pricing([
      name(1, { asking: { minor: 120_000, currency: 'USD' } }),
      name(2, { asking: { minor: 120_000, currency: 'EUR' } }),
    ]);
    const drafts = draftsOf(about);
    expect(drafts.get(1)?.prices.asking).toBe(120_000);
    expect(drafts.get(2)?.prices.asking).toBeNull();
    expect(drafts.get(1)).toMatchObject({ kind: 'fixed price, offers too', auctionDays: 10 });
  });

  test('a price is set, unset, or kept as it was typed where it is no amount', () => {
    const draft = draftsOf(pricing([name(1)])).get(1) as Draft;
    const wrong = withPrice(withPrice(draft, 'asking', 120_000), 'asking', null, 'a lot');
    expect(wrong).toMatchObject({ prices: { asking: null }, unread: { asking: 'a lot' } });
    expect(withPrice(wrong, 'asking', 99_900)).toMatchObject({ prices: { asking: 99_900 }, unread: {} });
  });

  test('in another currency the figures stay, whatever its smallest unit is', () => {
    const draft = withPrice(draftsOf(pricing([name(1)])).get(1) as Draft, 'asking', 120_000);
    const yen = draftsIn(new Map([[1, draft]]), 'JPY');
    expect(yen.get(1)).toMatchObject({ currency: 'JPY', prices: { asking: 1200, minimum: null } });
    expect(draftsIn(yen, 'USD').get(1)).toEqual(draft);
  });

  test('by rule: on cost, on like sales, on asking; whose base is not known keeps its price', () => {
    const about = pricing([name(1), name(2, { spent: [{ minor: 5, currency: 'XAF' }] })]);
    const drafts = draftsOf(about);
    const rule = (base: 'cost' | 'comparable' | 'asking', factor: number) =>
      applyRule(drafts, [1, 2], 'asking', { base, factor, rounding: 'whole' }, 'USD', about);
    expect(rule('cost', 30)).toMatchObject({ set: 1 });
    expect(rule('cost', 30).drafts.get(1)?.prices.asking).toBe(60_000);
    expect(rule('cost', 30).drafts.get(2)?.prices.asking).toBeNull();
    expect(rule('comparable', 1).drafts.get(1)?.prices.asking).toBe(90_000);
    expect(rule('asking', 0.5).set).toBe(0);
    // What is not chosen is left alone, and the drafts before are as they were.
    expect(
      applyRule(drafts, [2], 'asking', { base: 'comparable', factor: 2, rounding: '50s' }, 'USD', about).drafts.get(1),
    ).toBe(drafts.get(1));
    expect(drafts.get(1)?.prices.asking).toBeNull();
    expect(comparablesOf(name(1), 'EUR', about)).toBeNull();
  });

  test('net proceeds hold what listing it costs there, once', () => {
    const about = pricing([name(1)]);
    const terms = soldAt(about, 7, 'USD');
    const draft = withPrices(draftsOf(about).get(1) as Draft, { asking: 100_000 });
    const asking = (one: Draft, of: Pricing) =>
      priceDraft(name(1), one, terms, of).rungs.find(({ kind }) => kind === 'asking');
    expect(asking(draft, about)?.net).toMatchObject({
      commissionMinor: 10_000,
      feesMinor: 600,
      proceedsMinor: 89_400,
    });
    const dear = { ...draft, attributes: { 'Paid placement': 'first page' }, categories: ['Sea', 'Trade'] };
    expect(asking(dear, about)?.net?.feesMinor).toBe(1800);
    const listed = pricing([name(1)], {
      listings: [{ nameId: 1, marketplaceId: 7, sentAt: NOW } as Pricing['listings'][number]],
    });
    expect(asking(dear, listed)?.net?.feesMinor).toBe(0);
    expect(priceDraft(name(1), draft, soldAt(about, null, 'USD'), about).rungs.at(-1)?.net?.proceedsMinor).toBe(
      100_000,
    );
  });

  test('a price that cannot be read draws no ladder, and stops', () => {
    const about = pricing([name(1)]);
    const draft = withPrice(draftsOf(about).get(1) as Draft, 'asking', null, 'a lot');
    const judged = priceDraft(name(1), draft, soldAt(about, 7, 'USD'), about);
    expect(judged.rungs).toEqual([]);
    expect(judged.findings[0]).toMatchObject({ code: 'price not read', price: 'asking', stops: true });
  });

  test('the return of a sale today; none where a rate is missing', () => {
    const about = pricing([name(1)]);
    expect(returnOf(name(1), 4000, 'USD', about)).toBeCloseTo(1, 6);
    expect(
      returnOf(name(1, { entries: [{ day: day('2025-11-24'), minor: 5, currency: 'XAF' }] }), 4000, 'USD', about),
    ).toBeNull();
  });
});
