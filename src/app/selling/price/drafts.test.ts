import { describe, expect, test } from 'vitest';
import { USUAL_AUCTION } from '@/core/selling';
import { addDays, type Day, instant } from '@/core/time';
import { typedMinor } from '@/ui/text/figures';
import type { PricedName, Pricing } from '@/usecases/selling/pricing';
import { applyRule, comparablesOf, type Draft, firstDrafts, judge, requestOf, returnOf, termsAt } from './drafts';

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
  label: 'Hall',
  currencies: ['USD'],
  feesCurrency: 'USD',
  percent: 10,
  floorMinor: 0,
  steps: [],
  saleFeeMinor: 0,
  listingFeeMinor: 500,
  membershipMinor: 0,
  wholeUnits: true,
  auctionDays: [7],
  ...USUAL_AUCTION,
  reviewHours: 0,
  payoutSet: true,
  placements: [{ label: 'first page', minor: 1000 }],
  categories: ['Sea', 'Trade'],
  categoryMinor: 200,
  network: null,
  accountId: null,
  csvColumns: null,
  notes: '',
  linkUrl: null,
  linkCursor: 0,
  linkReadAt: null,
  linkProblem: null,
};

const pricing = (names: readonly PricedName[], more: Partial<Pricing> = {}): Pricing => ({
  names,
  listings: [],
  venues: [HALL],
  rates: [{ from: day('2026-01-01'), currency: 'EUR', into: 'USD', factor: 1.1 }],
  sales: [
    {
      ascii: 'kelpkeel.com',
      price: { minor: 90_000, currency: 'USD' },
      day: day('2026-01-01'),
      venue: 'Hall',
      own: false,
    },
  ],
  homeCurrency: 'USD',
  now: NOW,
  ...more,
});

const draftsOf = (about: Pricing) => firstDrafts(about, 7, 'USD');
const withPrices = (draft: Draft, prices: Partial<Draft['prices']>): Draft => ({
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
    expect(drafts.get(1)?.prices.asking).toBe('1200');
    expect(drafts.get(2)?.prices.asking).toBe('');
    expect(drafts.get(1)).toMatchObject({ kind: 'both', auctionDays: 14 });
  });

  test.each([
    ['', null],
    ['1200', 120_000],
    ['1,200', 120_000],
    ['12.345', Number.NaN],
    ['a lot', Number.NaN],
  ])('typed %o is %s', (text, minor) => {
    expect(typedMinor(text, 'USD')).toEqual(minor);
  });

  test('by rule: on cost, on like sales, on asking; whose base is not known keeps its price', () => {
    const about = pricing([name(1), name(2, { spent: [{ minor: 5, currency: 'XAF' }] })]);
    const drafts = draftsOf(about);
    const rule = (base: 'cost' | 'comparable' | 'asking', factor: number) =>
      applyRule(drafts, [1, 2], 'asking', { base, factor, rounding: 'whole' }, 'USD', about);
    expect(rule('cost', 30)).toMatchObject({ set: 1 });
    expect(rule('cost', 30).drafts.get(1)?.prices.asking).toBe('600');
    expect(rule('cost', 30).drafts.get(2)?.prices.asking).toBe('');
    expect(rule('comparable', 1).drafts.get(1)?.prices.asking).toBe('900');
    expect(rule('asking', 0.5).set).toBe(0);
    // What is not chosen is left alone, and the drafts before are as they were.
    expect(
      applyRule(drafts, [2], 'asking', { base: 'comparable', factor: 2, rounding: '50s' }, 'USD', about).drafts.get(1),
    ).toBe(drafts.get(1));
    expect(drafts.get(1)?.prices.asking).toBe('');
    expect(comparablesOf(name(1), 'EUR', about)).toBeNull();
  });

  test('what a price leaves holds what listing it costs there, once', () => {
    const about = pricing([name(1)]);
    const terms = termsAt(about, 7, 'USD');
    const draft = withPrices(draftsOf(about).get(1) as Draft, { asking: '1000' });
    const asking = (one: Draft, of: Pricing) =>
      judge(name(1), one, terms, of).rungs.find(({ kind }) => kind === 'asking');
    expect(asking(draft, about)?.leaves).toMatchObject({
      commissionMinor: 10_000,
      feesMinor: 500,
      proceedsMinor: 89_500,
    });
    const dear = { ...draft, placement: 'first page', categories: ['Sea', 'Trade'] };
    expect(asking(dear, about)?.leaves?.feesMinor).toBe(1700);
    const listed = pricing([name(1)], {
      listings: [{ nameId: 1, venueId: 7, sentAt: NOW } as Pricing['listings'][number]],
    });
    expect(asking(dear, listed)?.leaves?.feesMinor).toBe(0);
    expect(judge(name(1), draft, termsAt(about, null, 'USD'), about).rungs.at(-1)?.leaves?.proceedsMinor).toBe(100_000);
  });

  test('a price that cannot be read draws no ladder, and stops', () => {
    const about = pricing([name(1)]);
    const draft = withPrices(draftsOf(about).get(1) as Draft, { asking: 'a lot' });
    const judged = judge(name(1), draft, termsAt(about, 7, 'USD'), about);
    expect(judged.rungs).toEqual([]);
    expect(judged.findings[0]).toMatchObject({ stops: true });
  });

  test('the return of a sale today; none where a rate is missing', () => {
    const about = pricing([name(1)]);
    expect(returnOf(name(1), 4000, 'USD', about)).toBeCloseTo(1, 6);
    expect(
      returnOf(name(1, { entries: [{ day: day('2025-11-24'), minor: 5, currency: 'XAF' }] }), 4000, 'USD', about),
    ).toBeNull();
  });

  test('the request holds what is typed, without grouping, and the venue where there is one', () => {
    const about = pricing([name(1)]);
    const drafts = new Map([[1, withPrices(draftsOf(about).get(1) as Draft, { asking: '1,200' })]]);
    expect(requestOf(drafts, 7, 'USD', true)).toMatchObject({
      venueId: 7,
      send: true,
      listings: [{ nameId: 1, currency: 'USD', prices: { asking: '1200.00', minimum: '' } }],
    });
    expect(requestOf(drafts, null, 'USD', false)).not.toHaveProperty('venueId');
  });
});
