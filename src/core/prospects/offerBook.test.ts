import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { EVERY_NAME, indexRules, LedgerDay, type LedgerName, type LedgerRules, projectLedger } from '../ledger';
import { nameWith, rulesWith, TODAY } from '../ledger/sampleLedger';
import { amount } from '../money';
import { chanceOfSale, USUAL_ASSUMPTIONS } from '../odds';
import { addDays, type Day } from '../time';
import {
  bandOf,
  dropPlan,
  groupOf,
  NO_OFFER_FACTS,
  type OfferFacts,
  offerBook,
  rankedName,
  rankNames,
  STANDS,
  valuing,
} from './index';

const END = '2027-06-01T00:00:00Z';
const asked = (units: number) => amount(units * 100, 'USD');

function ledgerOf(names: readonly LedgerName[], rules: Partial<LedgerRules> = {}): LedgerDay {
  const sorted = [...names].sort((a, b) => (a.ascii < b.ascii ? -1 : 1));
  return new LedgerDay(projectLedger(indexRules(rulesWith(rules)), sorted, TODAY), TODAY);
}
const bookOf = (
  today: LedgerDay,
  facts: Partial<OfferFacts> = {},
  more: Partial<typeof USUAL_ASSUMPTIONS> = {},
  view = null as typeof EVERY_NAME | null,
) => offerBook(today, { facts: { ...NO_OFFER_FACTS, ...facts }, assumptions: { ...USUAL_ASSUMPTIONS, ...more }, view });

describe('groups', () => {
  test.each([
    ['ending', { ending: 'com', tags: ['sea'], askingMinor: 1, isInView: false }, 'com'],
    ['tag', { ending: 'com', tags: ['wind', 'craft'], askingMinor: 1, isInView: false }, 'craft'],
    ['tag', { ending: 'com', tags: [], askingMinor: 1, isInView: false }, ''],
    ['view', { ending: 'com', tags: [], askingMinor: 1, isInView: true }, 'yes'],
    ['asking', { ending: 'com', tags: [], askingMinor: 49_999, isInView: false }, '0'],
    ['asking', { ending: 'com', tags: [], askingMinor: 50_000, isInView: false }, '1'],
    ['asking', { ending: 'com', tags: [], askingMinor: 1_000_000, isInView: false }, '3'],
    ['asking', { ending: 'com', tags: [], askingMinor: null, isInView: false }, '0'],
  ] as const)('by %s: %j is in %s', (grouping, name, key) => {
    expect(groupOf(grouping, name, 'USD')).toBe(key);
  });
  test('a band says its bounds, and a currency without cents has the same ones', () => {
    expect(['0', '1', '2', '3'].map(bandOf)).toEqual([
      [null, 500],
      [500, 2000],
      [2000, 10_000],
      [10_000, null],
    ]);
    expect(groupOf('asking', { ending: '', tags: [], askingMinor: 500, isInView: false }, 'JPY')).toBe('1');
  });
});

describe('the book of offers', () => {
  const names = [
    nameWith('a.com', END, { asking: asked(1000) }),
    nameWith('b.com', END),
    nameWith('c.net', END, { asking: asked(500), ending: 'net' }),
    nameWith('d.com', END, { asking: amount(90_000, 'EUR') }),
  ];
  const [a, , c] = names as [LedgerName, LedgerName, LedgerName, LedgerName];
  const today = ledgerOf(names);

  test('holds what is asked for in a currency that can be told; the rest is counted', () => {
    const book = bookOf(today);
    expect([...book.places]).toEqual([0, 2]);
    expect(book.noRate).toBe(1);
    const rates = [{ from: '2026-01-01' as Day, currency: 'EUR', into: 'USD', factor: 1.1 }];
    expect([...bookOf(ledgerOf(names, { rates })).asking]).toEqual([100_000, 99_000, 50_000]);
  });

  test('a name that is being sold is none of it', () => {
    const book = bookOf(today, { selling: Int32Array.of(a.id) });
    expect([...book.places]).toEqual([2]);
    expect(book.selling.has(0)).toBe(true);
  });

  test('own sales and years on offer make the rate firmer, those of names that are gone too', () => {
    const facts = {
      since: { nameId: Int32Array.of(a.id, c.id), years: Float64Array.of(3, 2) },
      gone: [{ ending: 'com', tags: [], asking: asked(1), years: 7 }],
      sales: [
        { ascii: 'x.com', ending: 'com', tags: [], price: asked(300), askedMinor: 50_000, day: '2026-05-01' as Day },
      ],
    };
    const [com, net] = bookOf(today, facts).groups;
    expect(com).toMatchObject({
      key: 'com',
      names: 1,
      seen: { sales: 1, nameYears: 10 },
      rate: { sales: 3, nameYears: 110 },
    });
    expect(net).toMatchObject({ key: 'net', seen: { sales: 0, nameYears: 2 }, rate: { sales: 2, nameYears: 102 } });
    expect(bookOf(today, facts, { countOwnSales: false }).groups[0]?.rate).toEqual({ sales: 2, nameYears: 100 });
  });

  test('five own sales say what share is paid; four do not, and what was said outranks both', () => {
    const sale = (share: number) => ({
      ascii: 'x.com',
      ending: 'com',
      tags: [],
      price: amount(share * 1000, 'USD'),
      askedMinor: 100_000,
      day: '2026-05-01' as Day,
    });
    const five = { sales: [40, 50, 60, 70, 100].map(sale) };
    expect(bookOf(today, { sales: five.sales.slice(1) })).toMatchObject({
      shareFrom: 'usual',
      share: { median: 0.6, sigma: 0.5 },
    });
    const own = bookOf(today, five);
    expect(own.shareFrom).toBe('own sales');
    expect(own.share.median).toBeCloseTo(0.6, 12);
    expect(bookOf(today, five, { medianShare: 0.9 })).toMatchObject({ shareFrom: 'said', share: { median: 0.9 } });
  });

  test('the least offer of a listing, its fees, and its review are taken over', () => {
    const facts = {
      listed: {
        nameId: Int32Array.of(a.id),
        minimumMinor: Float64Array.of(150_000),
        currency: Uint8Array.of(0),
        seenFrom: Float64Array.of(addDays(TODAY, 10)),
        marketplace: Int32Array.of(0),
      },
      currencies: ['USD'],
      marketplaces: [
        {
          label: 'The hall',
          currencies: [],
          wholeUnits: false,
          auctionDays: [],
          reviewHours: 72,
          payoutSet: true,
          percent: 20,
          floorMinor: 0,
          steps: [],
          saleFeeMinor: 500,
          listingFeeMinor: 900,
          feesCurrency: 'USD',
        },
      ],
    };
    const book = bookOf(today, facts);
    // Never more than what is asked.
    expect(book.minimum[0]).toBe(100_000);
    expect(book.feeList[book.fees[0] as number]).toMatchObject({ percent: 20, saleFeeMinor: 500, listingFeeMinor: 0 });
    expect(book.from[0]).toBeGreaterThan(book.from[1] as number);
  });

  test('what its owner says of a name’s chance is its chance, whatever its offers', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.001, max: 0.95, noNaN: true }), (saleChance) => {
        const own = ledgerOf([nameWith('own.com', END, { asking: asked(10), saleChance })]);
        const id = own.projection.names.columns.id[0] as number;
        const book = bookOf(
          own,
          { offers: { nameId: Int32Array.of(id), count: Int32Array.of(4) } },
          { offerFactor: 3 },
        );
        const rate = book.groups[0]?.rate ?? { sales: 0, nameYears: 1 };
        expect(chanceOfSale(rate, book.factor[0] as number, 0)).toBeCloseTo(saleChance, 9);
        expect(book.offers.get(0)).toBe(4);
      }),
      { numRuns: 50 },
    );
  });

  test('a name whose window is opened often enough counts for more, on top of its offers', () => {
    const own = ledgerOf(['a.com', 'b.com', 'c.com'].map((name) => nameWith(name, END, { asking: asked(10) })));
    const [a, b, c] = [...own.projection.names.columns.id] as [number, number, number];
    const facts = {
      offers: { nameId: Int32Array.of(b), count: Int32Array.of(1) },
      visits: { nameId: Int32Array.of(a, b, c), count: Int32Array.of(29, 30, 400) },
    };
    const book = bookOf(own, facts, { offerFactor: 3, visitFactor: 2, visitsFrom: 30 });
    expect([0, 1, 2].map((place) => book.factor[book.at[place] as number])).toEqual([1, 6, 2]);
    expect([...bookOf(own, facts).factor]).toEqual([1, 1, 1]);
    expect(book.visits.get(2)).toBe(400);
  });

  test('a saved view makes two groups', () => {
    const book = bookOf(today, {}, { grouping: 'view' }, { ...EVERY_NAME, endings: ['net'] });
    expect(book.groups.map(({ key, names: count }) => [key, count])).toEqual([
      ['no', 1],
      ['yes', 1],
    ]);
  });
});

describe('ranking', () => {
  const names = [
    nameWith('dear.com', END, { asking: asked(9000) }),
    nameWith('cheap.com', END, { asking: asked(100) }),
    nameWith('cheapsail.com', END, { asking: asked(90) }),
    nameWith('unasked.com', END),
    nameWith('used.com', END, { purpose: 'in use', asking: asked(10) }),
    nameWith('dropped.com', END, { purpose: 'drop', asking: asked(10) }),
    nameWith('endless.com', null, { asking: asked(900) }),
  ];
  const today = ledgerOf(names);
  const facts: OfferFacts = {
    ...NO_OFFER_FACTS,
    past: [{ ascii: 'fairsail.com', price: asked(5000), day: '2026-01-01' as Day, marketplace: '', own: false }],
  };
  const judge = valuing(today, { facts, assumptions: USUAL_ASSUMPTIONS, view: null });
  const ranking = rankNames(judge, facts);
  const ascii = (place: number) => today.projection.names.ascii(place);
  const standOf = (name: string) => STANDS[ranking.stand[today.projection.names.placeOfAscii(name)] as number];

  test('what wants a decision comes first, and what is let go is not ranked', () => {
    expect(standOf('dear.com')).toBe('worth it');
    expect(standOf('unasked.com')).toBe('undecided');
    expect(standOf('endless.com')).toBe('undecided');
    expect(standOf('used.com')).toBe('always kept');
    expect(standOf('dropped.com')).toBeUndefined();
    expect([...ranking.order].map((place) => STANDS.indexOf(standOf(ascii(place)) as (typeof STANDS)[number]))).toEqual(
      [...ranking.order].map((place) => ranking.stand[place]).sort(),
    );
  });

  test('underpriced is what like names were sold for more than it needs; else it is not worth it', () => {
    expect(standOf('cheapsail.com')).toBe('underpriced');
    const place = today.projection.names.placeOfAscii('cheapsail.com');
    const told = rankedName(judge, facts, ranking, place);
    expect(told.leastAskingMinor).toBeLessThanOrEqual(told.likeMinor ?? 0);
    expect(told.worth?.keep.value).toBeLessThan(0);
  });

  test('the drop list holds just what is not worth it, and its sums are the ranking’s', () => {
    const none = { ...facts, past: [] };
    const alone = valuing(today, { facts: none, assumptions: USUAL_ASSUMPTIONS, view: null });
    const ranked = rankNames(alone, none);
    const plan = dropPlan(alone, ranked);
    expect(
      plan
        .flatMap(({ places }) => places)
        .map(ascii)
        .sort(),
    ).toEqual(['cheap.com', 'cheapsail.com']);
    expect(plan.map(({ month, names: count }) => [month, count])).toEqual([['2027-05', 2]]);
    expect(plan[0]?.savesMinor).toBe(ranked.savesMinor);
    expect(plan[0]?.gainMinor).toBe(ranked.gainMinor);
    expect(ranked.savesMinor).toBe(2 * 1138);
  });
});
