import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  cheapestPath,
  cheapestPaths,
  crossings,
  type Held,
  type PaidAction,
  type YearPrices,
  type YearTerms,
} from './overYears';

const EVERY = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10];
const TERMS: YearTerms = { register: EVERY, renew: EVERY, ceilingYears: 10 };
const NEW: Held = { kind: 'new' };
const heldAt = (accountId: number, yearsLeft = 0.25): Held => ({ kind: 'held', accountId, yearsLeft });

interface Asked {
  readonly register?: number;
  readonly renew: number;
  readonly transfer?: number;
  readonly transferYears?: number;
  /** The first year of a registration, and the shortest term with which it is given. */
  readonly first?: number;
  readonly firstFrom?: number;
  /** Rise of every price in a year, as a share. */
  readonly rise?: number;
}

/** An account that asks so much a year, in minor units. */
function account(
  accountId: number,
  { renew, register = renew, transfer, transferYears = 1, first, firstFrom = 1, rise = 0 }: Asked,
): YearPrices {
  return {
    accountId,
    transferYears,
    pay: (action, years, { yearsFromNow, isFirst }) => {
      const listed =
        action === 'transfer'
          ? transfer
          : action === 'renew'
            ? renew * years
            : (isFirst && first !== undefined && years >= firstFrom ? first : register) + register * (years - 1);
      return listed === undefined ? null : Math.round(listed * (1 + rise) ** yearsFromNow);
    },
  };
}

const totals = (one: YearPrices, held: Held = NEW) =>
  cheapestPaths({ held, years: 10, prices: [one], terms: TERMS }).map((path) => path?.totalMinor ?? null);

/** Arithmetic of invented figures: a cheap first year, what it is bound to, and what it comes to over ten years. */
describe('a cheap first year, over ten years', () => {
  test.each<[string, YearPrices, (number | null)[]]>([
    // 1.10 with three years at least, else 16.40 a year.
    [
      '1.10 bound to three years, then 16.40',
      account(1, { renew: 1640, first: 110, firstFrom: 3 }),
      [1640, 3280, 3390, 5030, 6670, 8310, 9950, 11590, 13230, 14870],
    ],
    ['flat 11.30', account(2, { renew: 1130 }), [1130, 2260, 3390, 4520, 5650, 6780, 7910, 9040, 10170, 11300]],
    [
      '8.40 for new customers, then 12.10',
      account(3, { renew: 1210, first: 840 }),
      [840, 2050, 3260, 4470, 5680, 6890, 8100, 9310, 10520, 11730],
    ],
  ])('%s', (_what, one, expected) => expect(totals(one)).toEqual(expected));

  test('flat is cheaper for one and two years, equal at three, cheaper again from four on', () => {
    const [bound, flat] = [
      totals(account(1, { renew: 1640, first: 110, firstFrom: 3 })),
      totals(account(2, { renew: 1130 })),
    ];
    expect(crossings(bound, flat)).toEqual([
      { years: 3, cheaper: 'equal' },
      { years: 4, cheaper: 'second' },
    ]);
  });

  test('what has to be paid now stands beside the total: the cheap first year is bought with all three', () => {
    const bound = account(1, { renew: 1640, first: 110, firstFrom: 3 });
    expect(cheapestPath({ held: NEW, years: 4, prices: [bound], terms: TERMS })).toMatchObject({
      totalMinor: 5030,
      nowMinor: 3390,
      payments: [
        { action: 'register', years: 3, minor: 3390, after: 0, isNow: true },
        { action: 'renew', years: 1, minor: 1640, after: 3, isNow: false },
      ],
    });
  });
});

describe('moving on the way', () => {
  const dear = account(1, { renew: 1640, transfer: 1640 });
  const cheap = account(2, { renew: 1100, transfer: 900 });

  test('to where it is cheaper, at the first charge: the transfer buys its year', () => {
    expect(cheapestPath({ held: heldAt(1), years: 3, prices: [dear, cheap], terms: TERMS })).toEqual({
      totalMinor: 900 + 1100 + 1100,
      nowMinor: 0,
      years: 3,
      payments: [
        { action: 'transfer', accountId: 2, years: 1, after: 0, isNow: false, minor: 900 },
        { action: 'renew', accountId: 2, years: 1, after: 1, isNow: false, minor: 1100 },
        { action: 'renew', accountId: 2, years: 1, after: 2, isNow: false, minor: 1100 },
      ],
    });
  });

  test('a move that adds no year is made with a renewal there, never alone', () => {
    const none = account(3, { renew: 1000, transfer: 0, transferYears: 0 });
    const path = cheapestPath({ held: heldAt(1), years: 2, prices: [dear, none], terms: TERMS });
    expect(path?.payments.map(({ action, years, after }) => [action, years, after])).toEqual([
      ['transfer', 0, 0],
      ['renew', 1, 0],
      ['renew', 1, 1],
    ]);
  });

  test('the same price: fewer moves, then the later end, then the lower number', () => {
    const same = account(2, { renew: 1640, transfer: 1640 });
    expect(cheapestPath({ held: heldAt(1), years: 2, prices: [dear, same], terms: TERMS })?.payments).toMatchObject([
      { accountId: 1 },
      { accountId: 1 },
    ]);
    const both = [account(4, { renew: 1000, register: 1000 }), account(3, { renew: 1000, register: 1000 })];
    expect(cheapestPath({ held: NEW, years: 1, prices: both, terms: TERMS })?.payments).toMatchObject([
      { accountId: 3 },
    ]);
  });

  test('prices that rise are bought ahead, as far as the ceiling lets them', () => {
    const rising = account(1, { renew: 1000, rise: 0.1 });
    // Nine years at the charge that comes before the end, since a tenth would reach beyond ten years from the payment.
    expect(cheapestPath({ held: heldAt(1, 0.5), years: 9, prices: [rising], terms: TERMS })).toMatchObject({
      totalMinor: 9000,
      payments: [{ years: 9, isNow: false }],
    });
    expect(cheapestPath({ held: heldAt(1, 0.5), years: 10, prices: [rising], terms: TERMS })).toMatchObject({
      // One year at the first charge and nine at the next, a year dearer: nine and one would cost 113.58.
      totalMinor: 1000 + 9 * 1100,
    });
    expect(cheapestPath({ held: heldAt(1, -0.05), years: 10, prices: [rising], terms: TERMS })).toMatchObject({
      totalMinor: 10_000,
      nowMinor: 1000,
    });
    // With three and a half years left: today's price holds for six more, the next charge is three years dearer.
    expect(cheapestPath({ held: heldAt(1, 3.5), years: 6, prices: [rising], terms: TERMS })).toMatchObject({
      totalMinor: 6000,
      nowMinor: 6000,
    });
  });

  test('terms in steps of two: three years are had with four', () => {
    const even = { ...TERMS, renew: [2, 4, 6, 8, 10] };
    expect(
      cheapestPath({ held: heldAt(1), years: 3, prices: [account(1, { renew: 1000 })], terms: even }),
    ).toMatchObject({ totalMinor: 4000, years: 4 });
  });

  test('nobody sells it: there is no way', () => {
    expect(cheapestPath({ held: heldAt(9), years: 2, prices: [dear], terms: TERMS })).toMatchObject({
      payments: [{ action: 'transfer' }, { action: 'renew' }],
    });
    expect(cheapestPath({ held: heldAt(9), years: 2, prices: [], terms: TERMS })).toBeNull();
    expect(cheapestPath({ held: heldAt(9), years: 2, prices: [account(1, { renew: 1000 })], terms: TERMS })).toBeNull();
  });
});

/** Every way there is, tried one by one: what the cheapest costs. Written from the rule, without the search. */
function triedOut(
  held: Held & { kind: 'held' },
  years: number,
  prices: readonly YearPrices[],
  terms: readonly number[],
  mustMove = false,
): number {
  const go = (bought: number, at: number, spent: number, isFirst: boolean): number => {
    if (bought >= years) return spent;
    let least = Number.POSITIVE_INFINITY;
    const moments =
      isFirst && held.yearsLeft > 0
        ? [0, Math.floor(held.yearsLeft)]
        : [isFirst ? 0 : Math.floor(held.yearsLeft + bought)];
    for (const [moment, yearsFromNow] of moments.entries()) {
      const most = !isFirst || moment === 1 ? 9 : Math.floor(10 - Math.max(0, held.yearsLeft));
      for (const place of prices) {
        const isMove = place.accountId !== at;
        if (isFirst && mustMove && !isMove) continue;
        const ask = (action: PaidAction, term: number, first: boolean) =>
          place.pay(action, term, { yearsFromNow, isFirst: first });
        const moved = isMove ? ask('transfer', place.transferYears, isFirst) : 0;
        if (moved === null) continue;
        const added = isMove ? place.transferYears : 0;
        for (const term of [0, ...terms]) {
          if (added + term === 0 || added + term > most) continue;
          const renewed = term === 0 ? 0 : ask('renew', term, isFirst && !isMove);
          if (renewed === null) continue;
          least = Math.min(least, go(bought + added + term, place.accountId, spent + moved + renewed, false));
        }
      }
    }
    return least;
  };
  return go(0, held.accountId, 0, true);
}

test('the same as trying every way: five accounts, six years, any prices, rises and terms', () => {
  const cents = fc.integer({ min: 0, max: 3000 });
  const any = fc.record({
    renew: cents,
    transfer: fc.option(cents, { nil: undefined }),
    transferYears: fc.constantFrom(0, 1, 1, 1),
    rise: fc.constantFrom(0, 0, 0.07, -0.04),
  });
  fc.assert(
    fc.property(
      fc.array(any, { minLength: 1, maxLength: 5 }),
      fc.integer({ min: 1, max: 6 }),
      fc.constantFrom(-0.1, 0, 0.3, 1.5, 4.2),
      fc.constantFrom([1, 2, 3], [2, 4], [1, 9], [1]),
      (asked, years, yearsLeft, renew) => {
        const prices = asked.map((one, i) => account(i + 1, one as Asked));
        const held = heldAt(1, yearsLeft) as Held & { kind: 'held' };
        const path = cheapestPath({ held, years, prices, terms: { ...TERMS, renew } });
        expect(path?.totalMinor ?? Number.POSITIVE_INFINITY).toBe(triedOut(held, years, prices, renew));
        const moved = cheapestPath({ held, years, prices, terms: { ...TERMS, renew }, mustMove: true });
        expect(moved?.totalMinor ?? Number.POSITIVE_INFINITY).toBe(triedOut(held, years, prices, renew, true));
        if (moved) expect(moved.payments[0]?.action).toBe('transfer');
        if (!path) return;
        // What it says adds up: the payments are its total and its years.
        expect(path.payments.reduce((sum, { minor }) => sum + minor, 0)).toBe(path.totalMinor);
        expect(path.payments.reduce((sum, payment) => sum + payment.years, 0)).toBe(path.years);
        expect(path.years).toBeGreaterThanOrEqual(years);
      },
    ),
    { numRuns: 150 },
  );
});
