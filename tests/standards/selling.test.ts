import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import xirr from 'xirr';
import { convert, type Rate } from '@/core/money';
import {
  answerByRule,
  buyPrice,
  type CheckedListing,
  checkListing,
  commissionOn,
  compareSales,
  dueAt,
  type Figure,
  HANDOVER_DAYS,
  hasFailed,
  ladderOf,
  leavesOf,
  liveFigure,
  middleOf,
  NO_FEES,
  NO_PRICES,
  nextStages,
  orderAgenda,
  type PastSale,
  placeOn,
  priceAt,
  priceByRule,
  priceToLeave,
  quantile,
  receive,
  refuseAnswer,
  refuseStage,
  roundPrice,
  scaleOf,
  sharedWord,
  turnAt,
  type VenueFees,
  type VenueRules,
  yearlyReturn,
} from '@/core/selling';
import { addDays, type Day, instant, startOfDay } from '@/core/time';

const NOW = instant('2026-11-24T09:12:00Z');
const day = (text: string) => text as Day;
const FEES: VenueFees = { percent: 15, floorMinor: 2500, steps: [], saleFeeMinor: 0, listingFeeMinor: 0 };
const VENUE: VenueRules = {
  currencies: ['USD'],
  wholeUnits: true,
  auctionDays: [7, 14],
  reviewHours: 72,
  payoutSet: true,
  fees: FEES,
};

function listing(
  more: Partial<Omit<CheckedListing, 'offered'>> & Partial<CheckedListing['offered']> = {},
): CheckedListing {
  const { kind = 'both', currency = 'USD', prices = NO_PRICES, auctionDays = 14, ...rest } = more;
  return {
    offered: { kind, currency, prices, auctionDays },
    costMinor: 5000,
    unitMinor: 100,
    venue: VENUE,
    pitch: '',
    description: '',
    now: NOW,
    termEnd: addDays(NOW, 300),
    lockedUntil: null,
    atAccount: true,
    ...rest,
  };
}
const codes = (checked: CheckedListing) => checkListing(checked).map(({ code }) => code);
const prices = (more: Partial<typeof NO_PRICES>) => ({ ...NO_PRICES, ...more });

/** The order of prices, whole. Source: minimum ≤ asking ≤ buy-now; start ≤ reserve < buy-now (docs/selling.md). */
describe('the order of prices', () => {
  test.each([
    ['minimum', 'asking', false, 'both'],
    ['asking', 'buyNow', false, 'both'],
    ['minimum', 'buyNow', false, 'both'],
    ['start', 'reserve', false, 'auction'],
    ['reserve', 'buyNow', true, 'auction'],
    ['start', 'buyNow', true, 'auction'],
  ] as const)('%s against %s', (lower, upper, strictly, kind) => {
    const base = kind === 'both' ? { asking: null } : { start: null };
    const at = (low: number, high: number) =>
      checkListing(listing({ kind, prices: prices({ ...base, [lower]: low, [upper]: high }) })).filter(
        ({ code }) => code === 'order of prices',
      );
    expect(at(50_000, 60_000)).toEqual([]);
    expect(at(50_000, 50_000)).toHaveLength(strictly ? 1 : 0);
    expect(at(60_000, 50_000)).toMatchObject([{ price: lower, other: upper, stops: true }]);
  });

  test('prices that the kind does not use are not looked at', () => {
    expect(
      codes(listing({ kind: 'fixed price', prices: prices({ asking: 50_000, minimum: 90_000, reserve: 1 }) })),
    ).toEqual([]);
  });
});

describe('what is checked of a listing', () => {
  const fine = prices({ minimum: 20_000, asking: 50_000 });
  test.each<[string, Parameters<typeof listing>[0], string[]]>([
    ['nothing is wrong', { prices: fine }, []],
    ['an asking price is missing', { kind: 'fixed price' }, ['price missing']],
    ['a start is missing', { kind: 'auction' }, ['price missing']],
    ['open to offers needs no price', { kind: 'open to offers' }, []],
    ['not whole', { prices: prices({ asking: 50_050 }) }, ['price not whole']],
    ['nothing', { prices: prices({ asking: 0 }) }, ['price not whole', 'below cost']],
    ['another currency', { prices: fine, currency: 'EUR' }, ['currency not taken']],
    [
      'any currency where the venue names none',
      { prices: fine, currency: 'EUR', venue: { ...VENUE, currencies: [] } },
      [],
    ],
    ['too long an auction', { kind: 'auction', auctionDays: 31, prices: prices({ start: 9000 }) }, ['auction length']],
    [
      'no auction of a day and a half',
      { kind: 'auction', auctionDays: 1.5, prices: prices({ start: 9000 }) },
      ['auction length'],
    ],
    [
      'a length that the venue does not have',
      { kind: 'auction', auctionDays: 10, prices: prices({ start: 9000 }) },
      ['auction length'],
    ],
    [
      'a venue without auctions',
      { kind: 'auction', prices: prices({ start: 9000 }), venue: { ...VENUE, auctionDays: [] } },
      ['no auctions here'],
    ],
    ['too long a pitch', { prices: fine, pitch: 'x'.repeat(121) }, ['too long']],
    ['too long a description', { prices: fine, description: 'x'.repeat(4001) }, ['too long']],
    ['payout not set', { prices: fine, venue: { ...VENUE, payoutSet: false } }, ['payout not set']],
    ['cost not known', { prices: fine, costMinor: null }, ['cost not known']],
    ['below cost', { prices: prices({ asking: 4900 }) }, ['below cost']],
    ['below cost after commission', { prices: prices({ asking: 5800 }) }, ['proceeds below cost']],
    [
      'a start below cost under a reserve above it',
      { kind: 'auction', prices: prices({ start: 100, reserve: 9000 }) },
      [],
    ],
    ['a start below cost without one', { kind: 'auction', prices: prices({ start: 100 }) }, ['below cost']],
    [
      'the term ends before it could be handed over',
      { prices: fine, termEnd: addDays(NOW, 3 + HANDOVER_DAYS - 1) },
      ['term too short'],
    ],
    ['… just not', { prices: fine, termEnd: addDays(NOW, 3 + HANDOVER_DAYS) }, []],
    [
      '… with the auction before it',
      { kind: 'auction', prices: prices({ start: 9000 }), termEnd: addDays(NOW, 30) },
      ['term too short'],
    ],
    ['locked for sixty days', { prices: fine, lockedUntil: addDays(NOW, 9) }, ['transfer lock']],
    ['a lock that has passed', { prices: fine, lockedUntil: NOW }, []],
    ['not where it is believed', { prices: fine, atAccount: false }, ['not at the account']],
  ])('%s', (_, more, expected) => {
    expect(codes(listing(more))).toEqual(expected);
  });

  test('figures: the loss, and the least price that leaves none', () => {
    expect(checkListing(listing({ prices: prices({ asking: 4000 }) }))).toMatchObject([{ figure: 1000, stops: false }]);
    // 50.00 after the least commission of 25.00 takes 75.00.
    expect(checkListing(listing({ prices: prices({ asking: 6000 }) }))).toMatchObject([{ figure: 7500 }]);
    expect(HANDOVER_DAYS).toBe(15);
  });
});

/** Worked by hand: 15 % of 1,000.00 is 150.00; at least 25.00; above 5,000.00 only 10 % of what lies above. */
describe('what a price leaves', () => {
  test.each([
    [100_000, FEES, 15_000],
    [10_000, FEES, 2500],
    [2000, FEES, 2000],
    [0, FEES, 0],
    [333, { ...FEES, floorMinor: 0 }, 50],
    [1_000_000, { ...FEES, steps: [{ fromMinor: 500_000, percent: 10 }] }, 125_000],
    [500_000, { ...FEES, steps: [{ fromMinor: 500_000, percent: 10 }] }, 75_000],
    [
      3_000_000,
      {
        ...FEES,
        steps: [
          { fromMinor: 500_000, percent: 10 },
          { fromMinor: 2_500_000, percent: 5 },
        ],
      },
      300_000,
    ],
    [100_000, NO_FEES, 0],
  ] as const)('commission on %d', (price, fees, expected) => {
    expect(commissionOn(price, fees)).toBe(expected);
  });

  test('fees come off besides', () => {
    expect(leavesOf(100_000, { ...FEES, saleFeeMinor: 500, listingFeeMinor: 1000 })).toEqual({
      priceMinor: 100_000,
      commissionMinor: 15_000,
      feesMinor: 1500,
      proceedsMinor: 83_500,
    });
  });

  test('backwards: the least whole price that leaves what is wanted', () => {
    const fees = fc.record({
      percent: fc.integer({ min: 0, max: 60 }),
      floorMinor: fc.integer({ min: 0, max: 5000 }),
      steps: fc.constantFrom([], [{ fromMinor: 100_000, percent: 5 }]),
      saleFeeMinor: fc.integer({ min: 0, max: 900 }),
      listingFeeMinor: fc.integer({ min: 0, max: 900 }),
    });
    fc.assert(
      fc.property(fees, fc.integer({ min: 1, max: 1_000_000 }), (rules, wanted) => {
        const price = priceToLeave(wanted, rules, 100) as number;
        expect(price % 100).toBe(0);
        expect(leavesOf(price, rules).proceedsMinor).toBeGreaterThanOrEqual(wanted);
        expect(leavesOf(price - 100, rules).proceedsMinor).toBeLessThan(wanted);
      }),
    );
    expect(priceToLeave(1, { ...NO_FEES, percent: 100 }, 100)).toBeNull();
  });
});

/** Checked against the general-purpose package `xirr` (internal rate of return over dated amounts). */
describe('the yearly return', () => {
  test('agrees with the package on random histories of a name', () => {
    const past = fc.record({ back: fc.integer({ min: 60, max: 4000 }), minor: fc.integer({ min: 500, max: 60_000 }) });
    fc.assert(
      fc.property(
        fc.array(past, { minLength: 1, maxLength: 9 }),
        fc.integer({ min: 5000, max: 5_000_000 }),
        (spent, sold) => {
          const money = [
            ...spent.map(({ back, minor }) => ({ at: addDays(NOW, -back), minor: -minor })),
            { at: NOW, minor: sold },
          ];
          const own = yearlyReturn(
            money.map(({ at, minor }) => ({ day: day(new Date(at).toISOString().slice(0, 10)), minor })),
          );
          let other: number | null = null;
          try {
            other = xirr(
              money.map(({ at, minor }) => ({
                amount: minor,
                when: new Date(startOfDay(day(new Date(at).toISOString().slice(0, 10)))),
              })),
            );
          } catch {
            // The package does not converge on some; those are not compared.
          }
          if (other !== null && Number.isFinite(other) && other > -0.99)
            expect((1 + (own ?? 0)) / (1 + other)).toBeCloseTo(1, 5);
        },
      ),
      { numRuns: 300 },
    );
  });

  test('a doubling within a year is a hundred percent; what cannot be told is null', () => {
    expect(
      yearlyReturn([
        { day: day('2025-01-01'), minor: -100 },
        { day: day('2026-01-01'), minor: 200 },
      ]),
    ).toBeCloseTo(1, 9);
    expect(yearlyReturn([{ day: day('2025-01-01'), minor: -100 }])).toBeNull();
    expect(yearlyReturn([{ day: day('2025-01-01'), minor: 100 }])).toBeNull();
    expect(
      yearlyReturn([
        { day: day('2025-01-01'), minor: -100 },
        { day: day('2025-01-01'), minor: 200 },
      ]),
    ).toBeNull();
    expect(yearlyReturn([])).toBeNull();
  });
});

describe('prices by rule', () => {
  test.each([
    [123_456, 'whole', 123_500],
    [123_449, 'whole', 123_400],
    [30, 'whole', 100],
    [123_456, '50s', 125_000],
    [1000, '50s', 5000],
    [123_456, '99s', 119_900],
    [125_000, '99s', 129_900],
    [1000, '99s', 9900],
  ] as const)('%d rounded to %s', (minor, rounding, expected) => {
    expect(roundPrice(minor, rounding, 100)).toBe(expected);
  });

  test('a factor on what is known; nothing on what is not', () => {
    expect(priceByRule(5000, { base: 'cost', factor: 20, rounding: '99s' }, 100)).toBe(99_900);
    expect(priceByRule(null, { base: 'comparable', factor: 1, rounding: 'whole' }, 100)).toBeNull();
    expect(priceByRule(0, { base: 'cost', factor: 20, rounding: 'whole' }, 100)).toBeNull();
  });
});

describe('the ladder', () => {
  test('rungs rise, each with what it leaves', () => {
    const rungs = ladderOf(listing({ prices: prices({ minimum: 20_000, asking: 50_000 }) }).offered, 5000, FEES, 100);
    expect(rungs.map(({ kind, minor, profitMinor }) => [kind, minor, profitMinor])).toEqual([
      ['cost', 5000, -2500],
      ['no loss', 7500, 0],
      ['minimum', 20_000, 12_000],
      ['asking', 50_000, 37_500],
    ]);
    expect(ladderOf(listing({ prices: prices({ asking: 50_000 }) }).offered, null, FEES, 100)).toMatchObject([
      { kind: 'asking', profitMinor: null },
    ]);
  });

  test('a price that is dragged lands where it is drawn, to two digits', () => {
    const scale = scaleOf([5000, 50_000, 500_000], 100);
    for (const price of [7500, 12_000, 95_000, 500_000]) expect(priceAt(scale, placeOn(scale, price), 100)).toBe(price);
    expect(placeOn(scale, 0)).toBe(0);
    expect(placeOn(scale, 1e9)).toBe(1);
    expect(scaleOf([], 100).lowMinor).toBeGreaterThan(0);
  });
});

/** Source of the quartiles: Hyndman and Fan, "Sample Quantiles in Statistical Packages", 1996, definition 7; R's `quantile(1:4)` is 1.75, 2.5, 3.25. */
describe('comparables', () => {
  test('quartiles', () => {
    expect([0.25, 0.5, 0.75].map((share) => quantile([4, 2, 1, 3], share))).toEqual([1.75, 2.5, 3.25]);
    expect(quantile([7], 0.25)).toBe(7);
  });

  test('the likest names come first, of the same currency only', () => {
    const sale = (ascii: string, minor: number, currency = 'USD'): PastSale => ({
      ascii,
      price: { minor, currency },
      day: day('2026-01-01'),
      venue: '',
      own: false,
    });
    const found = compareSales(
      'copperbuoy.com',
      [
        sale('copperkeel.com', 80_000),
        sale('tidewick.com', 40_000),
        sale('x1-99.io', 900_000),
        sale('saltbuoy.com', 60_000),
        sale('copperbuoy.com', 1),
        sale('copperwharf.com', 70_000, 'EUR'),
      ],
      'USD',
    );
    expect(found?.sales.map(({ ascii }) => ascii)).toEqual(['copperkeel.com', 'saltbuoy.com', 'tidewick.com']);
    expect(found).toMatchObject({ lowerMinor: 50_000, medianMinor: 60_000, upperMinor: 70_000 });
    expect(compareSales('copperbuoy.com', [], 'USD')).toBeNull();
    expect(sharedWord('copperbuoy', 'saltbuoy')).toBe('buoy');
    expect(sharedWord('abc', 'abc')).toBe('');
  });
});

describe('offers', () => {
  const both = {
    kind: 'both',
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

describe('the handover', () => {
  test('from stage to stage, whose turn and by when', () => {
    expect([turnAt('agreed'), turnAt('money held'), turnAt('buyer known'), turnAt('arrived'), turnAt('done')]).toEqual([
      'buyer',
      'buyer',
      'owner',
      'venue',
      'nobody',
    ]);
    expect(dueAt('buyer known', NOW)).toBe(addDays(NOW, 3));
    expect(dueAt('done', NOW)).toBeNull();
    expect(refuseStage('agreed', 'money held')).toBeNull();
    expect(refuseStage('agreed', 'handed over')).toMatchObject({ code: 'stage-out-of-order' });
    expect(refuseStage('done', 'dispute')).toMatchObject({ code: 'stage-out-of-order' });
    expect(nextStages('dispute')).toContain('arrived');
    expect(hasFailed('not paid')).toBe(true);
    expect(hasFailed('dispute')).toBe(false);
  });
});

test('what awaits the owner: by kind, then by date, then by worth', () => {
  const item = (kind: 'offer to answer' | 'never listed', ascii: string, by: number | null, minor: number) => ({
    kind,
    nameId: 1,
    ascii,
    unicode: ascii,
    by: by === null ? null : addDays(NOW, by),
    minor,
    currency: 'USD',
    who: '',
    href: '',
  });
  expect(
    orderAgenda([
      item('never listed', 'd.com', null, 9),
      item('never listed', 'c.com', null, 90),
      item('offer to answer', 'b.com', 5, 1),
      item('offer to answer', 'a.com', 2, 1),
    ]).map(({ ascii }) => ascii),
  ).toEqual(['a.com', 'b.com', 'c.com', 'd.com']);
});

test('rates: the one in force on the day, or its inverse; none is told as none', () => {
  const rates: Rate[] = [
    { from: day('2026-01-01'), currency: 'EUR', into: 'USD', factor: 1.1 },
    { from: day('2026-06-01'), currency: 'EUR', into: 'USD', factor: 1.2 },
  ];
  const eur = { minor: 10_000, currency: 'EUR' };
  expect(convert(eur, 'USD', rates, day('2026-05-31'))).toEqual({ minor: 11_000, currency: 'USD' });
  expect(convert(eur, 'USD', rates, day('2026-06-01'))).toEqual({ minor: 12_000, currency: 'USD' });
  expect(convert({ minor: 12_000, currency: 'USD' }, 'EUR', rates, day('2026-07-01'))).toEqual(eur);
  expect(convert(eur, 'USD', rates, day('2025-12-31'))).toBeNull();
  expect(
    convert(eur, 'JPY', [{ from: day('2026-01-01'), currency: 'EUR', into: 'JPY', factor: 160 }], day('2026-02-01')),
  ).toEqual({ minor: 16_000, currency: 'JPY' });
  expect(convert(eur, 'EUR', [], day('2026-02-01'))).toEqual(eur);
});
