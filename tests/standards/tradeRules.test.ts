import { describe, expect, test } from 'vitest';
import { GENERIC } from '@/core/ledger/sampleLedger';
import { greatestTerm, lifecycleMarks, type Policy, phaseAt, renewedEnd } from '@/core/lifecycle';
import { amount } from '@/core/money';
import { PLAIN_PRICE, type Price, readCondition, restoreCost, termCost } from '@/core/pricing';
import { isRefusal } from '@/core/refusal';
import { addDays, DAY_MS, type Day, formatInstant, type Instant, instant, type TermEnd } from '@/core/time';

const years = (least: number, greatest: number, step = 1) => ({ least, greatest, step });

const UK: Policy = {
  ...GENERIC,
  ending: 'uk',
  lateDays: 90,
  redemptionDays: 0,
  pendingDeleteDays: 0,
  refundableDays: 0,
};
const NL: Policy = {
  ...GENERIC,
  ending: 'nl',
  lateDays: 0,
  redemptionDays: 40,
  pendingDeleteDays: 0,
  refundableDays: 0,
};
const AI: Policy = { ...GENERIC, ending: 'ai', terms: { ...GENERIC.terms, renew: years(2, 10, 2) } };

const at = (text: string): TermEnd => ({ at: instant(text), precision: 'instant' });
const account = (lateDays: number, auctionDay: number | null = null) => ({ lateDays, auctionDay });
const marksOf = (end: string, policy = GENERIC, lateDays = 45) =>
  lifecycleMarks({ registeredAt: null, termEnd: at(end), observed: null }, policy, account(lateDays));

describe('a name that nobody renews (periods: common practice, no source)', () => {
  const marks = marksOf('2026-11-06T10:15:00Z');
  test('is deleted 45 days past its term, and free 80 days past it at the most', () => {
    expect(formatInstant(marks.deletion)).toBe('2026-12-21T10:15:00Z');
    expect(formatInstant(marks.redemptionEnd)).toBe('2027-01-20T10:15:00Z');
    expect(formatInstant(marks.release)).toBe('2027-01-25T10:15:00Z');
    expect(marks.release - marks.termEnd).toBe(80 * DAY_MS);
  });

  test.each([0, 1, 10, 30, 45])('deleted on day %i it is free on that day plus 35', (day) => {
    const early = marksOf('2026-11-06T10:15:00Z', GENERIC, day);
    expect(early.release - early.termEnd).toBe((day + 35) * DAY_MS);
  });

  test.each([
    ['termEnd', 'term', 'late'],
    ['deletion', 'late', 'redemption'],
    ['redemptionEnd', 'redemption', 'pending delete'],
    ['release', 'pending delete', 'available'],
  ] as const)(
    'changes phase exactly at its %s: a millisecond before it is in %s, at it in %s',
    (mark, before, after) => {
      const instantOf = marks[mark];
      expect(phaseAt(marks, null, (instantOf - 1) as Instant)).toBe(before);
      expect(phaseAt(marks, null, instantOf)).toBe(after);
      expect(phaseAt(marks, null, (instantOf + 1) as Instant)).toBe(after);
    },
  );
});

describe('endings and accounts differ (country endings: from memory)', () => {
  test('.uk has 90 late days, no redemption and no deletion', () => {
    const marks = marksOf('2026-11-06T10:15:00Z', UK, 400);
    expect(marks.release).toBe(addDays(marks.termEnd, 90));
    expect(phaseAt(marks, null, addDays(marks.termEnd, 89))).toBe('late');
    expect(phaseAt(marks, null, addDays(marks.termEnd, 90))).toBe('available');
  });

  test('.nl has 40 days of redemption from deletion', () => {
    const marks = marksOf('2026-11-06T10:15:00Z', NL);
    expect(phaseAt(marks, null, marks.termEnd)).toBe('redemption');
    expect(marks.release).toBe(addDays(marks.termEnd, 40));
  });

  test('a name past its term in a 30-day late window is restored from day 30', () => {
    const marks = marksOf('2026-11-06T10:15:00Z', GENERIC, 30);
    expect(phaseAt(marks, null, addDays(marks.termEnd, 29))).toBe('late');
    expect(phaseAt(marks, null, addDays(marks.termEnd, 30))).toBe('redemption');
  });

  test('an account without a late window deletes on the day', () => {
    const marks = marksOf('2026-11-06T10:15:00Z', GENERIC, 0);
    expect(phaseAt(marks, null, marks.termEnd)).toBe('redemption');
  });

  test('an auction mark stands only inside the late window', () => {
    const name = { registeredAt: null, termEnd: at('2026-11-06T10:15:00Z'), observed: null };
    expect(lifecycleMarks(name, GENERIC, account(45, 30)).auction).toBe(addDays(name.termEnd.at, 30));
    expect(lifecycleMarks(name, GENERIC, account(10, 30)).auction).toBeNull();
  });
});

describe('what was observed outranks what was computed', () => {
  const end = at('2026-11-06T10:15:00Z');
  const observe = (phase: 'redemption' | 'pending restore' | 'pending delete' | 'pending transfer', seen: string) => {
    const observed = { phase, at: instant(seen) };
    return { observed, marks: lifecycleMarks({ registeredAt: null, termEnd: end, observed }, GENERIC, account(45)) };
  };

  test('a restore report is due within 7 days, else redemption again (RFC 3915 section 4; days: registry practice)', () => {
    const { observed, marks } = observe('pending restore', '2026-12-25T00:00:00Z');
    expect(phaseAt(marks, observed, instant('2026-12-31T23:59:59Z'))).toBe('pending restore');
    expect(phaseAt(marks, observed, instant('2027-01-01T00:00:00Z'))).toBe('redemption');
  });

  test('a registrar that deletes early puts the name in redemption from then on', () => {
    const { observed, marks } = observe('redemption', '2026-11-20T00:00:00Z');
    expect(phaseAt(marks, observed, instant('2026-11-21T00:00:00Z'))).toBe('redemption');
    expect(marks.redemptionEnd).toBe(instant('2026-12-20T00:00:00Z'));
  });

  test('deletion seen is five days from free', () => {
    const { observed, marks } = observe('pending delete', '2027-01-10T00:00:00Z');
    expect(phaseAt(marks, observed, instant('2027-01-14T00:00:00Z'))).toBe('pending delete');
    expect(phaseAt(marks, observed, instant('2027-01-15T00:00:00Z'))).toBe('available');
  });
});

test('a refund lasts up to 5 days from registration (RFC 3915 add grace period; days: common practice)', () => {
  const registeredAt = instant('2026-11-22T08:00:00Z');
  const marks = lifecycleMarks(
    { registeredAt, termEnd: at('2027-11-22T08:00:00Z'), observed: null },
    GENERIC,
    account(45),
  );
  expect(phaseAt(marks, null, instant('2026-11-27T07:59:59Z'))).toBe('refundable');
  expect(phaseAt(marks, null, instant('2026-11-27T08:00:00Z'))).toBe('term');
});

describe('terms (contract: no term may run past ten years from now)', () => {
  const asOf = instant('2026-11-24T09:12:00Z');

  test('RFC 5731 section 3.2.3: five years from 2000-04-03 end on 2005-04-03', () => {
    const end = renewedEnd(at('2000-04-03T22:00:00Z'), 5, GENERIC, instant('2000-04-01T00:00:00Z'));
    expect(isRefusal(end) ? null : formatInstant(end.at)).toBe('2005-04-03T22:00:00Z');
  });

  test('with part of the term left nine years are the most, just past it ten (common practice, no source)', () => {
    expect(greatestTerm(at('2027-03-01T00:00:00Z'), GENERIC, asOf, 'renew')).toBe(9);
    expect(greatestTerm(at('2026-11-24T09:12:01Z'), GENERIC, asOf, 'renew')).toBe(9);
    expect(greatestTerm(at('2026-11-24T09:12:00Z'), GENERIC, asOf, 'renew')).toBe(10);
    expect(greatestTerm(at('2026-11-20T00:00:00Z'), GENERIC, asOf, 'renew')).toBe(10);
  });

  test('a term past the ceiling is refused with the most that can be had', () => {
    expect(renewedEnd(at('2030-01-01T00:00:00Z'), 8, GENERIC, asOf)).toMatchObject({
      code: 'term-past-ceiling',
      message: expect.stringContaining('6 years are the most'),
    });
  });

  test.each([0, -1, 1.5, 11, 99])('%d years are not sold', (count) => {
    expect(renewedEnd(at('2026-12-01T00:00:00Z'), count, GENERIC, asOf)).toMatchObject({ code: 'term-not-sold' });
  });

  test('.ai is renewed for two years at least, in steps of two (from memory)', () => {
    expect(renewedEnd(at('2026-12-01T00:00:00Z'), 1, AI, asOf)).toMatchObject({ code: 'term-not-sold' });
    expect(renewedEnd(at('2026-12-01T00:00:00Z'), 3, AI, asOf)).toMatchObject({ code: 'term-not-sold' });
    expect(isRefusal(renewedEnd(at('2026-12-01T00:00:00Z'), 4, AI, asOf))).toBe(false);
    expect(greatestTerm(at('2026-12-01T00:00:00Z'), AI, asOf, 'renew')).toBe(8);
  });
});

describe('costs (worked examples of the trade’s shapes, own figures)', () => {
  const price = (more: Partial<Price>): Price => ({
    accountId: 1,
    nameId: null,
    ending: 'com',
    action: 'renew',
    currency: 'USD',
    yearMinor: 1118,
    ...PLAIN_PRICE,
    from: '2024-01-01' as Day,
    origin: 'list',
    ...more,
  });
  const fee = { from: '2025-07-01' as Day, minor: 20, currency: 'USD', source: 'memory' as const };
  const total = (...args: Parameters<typeof termCost>) => termCost(...args)?.total.minor ?? null;

  test('the registry fee is added for each year, never discounted', () => {
    expect(total(price({}), { years: 1, fee })).toBe(1138);
    expect(total(price({}), { years: 3, fee })).toBe(3 * 1138);
    const half = { code: 'HALF', off: { kind: 'percent' as const, percent: 50 }, years: null };
    expect(total(price({}), { years: 1, fee, promotion: half })).toBe(559 + 20);
    const whole = { code: 'ALL', off: { kind: 'amount' as const, minor: 99_999 }, years: null };
    expect(total(price({}), { years: 2, fee, promotion: whole })).toBe(40);
  });

  test('a promotion that covers one year takes nothing off the others', () => {
    expect(
      total(price({}), {
        years: 3,
        fee: null,
        promotion: { code: 'ONE', off: { kind: 'percent', percent: 25 }, years: 1 },
      }),
    ).toBe(3 * 1118 - 280);
  });

  test('a cheap first year makes two years dearer than a flat price', () => {
    const cheap = price({
      action: 'register',
      firstYearMinor: 99,
      firstYearCondition: readCondition('any term'),
      yearMinor: 2299,
    });
    const flat = price({ action: 'register', yearMinor: 1150 });
    const two = { years: 2, fee: null, firstYear: true };
    expect(total(cheap, { ...two, years: 1 })).toBeLessThan(total(flat, { ...two, years: 1 }) ?? 0);
    expect(total(cheap, two)).toBe(2398);
    expect(total(flat, two)).toBe(2300);
  });

  test('a first price that needs a three-year term is not had for one', () => {
    const three = price({
      action: 'register',
      firstYearMinor: 299,
      firstYearCondition: readCondition('three years only'),
      yearMinor: 1299,
    });
    expect(total(three, { years: 3, fee: null, firstYear: true })).toBe(299 + 2 * 1299);
    expect(total(three, { years: 1, fee: null, firstYear: true })).toBe(1299);
  });

  test('six years at once with tax: rounded once, half away from zero', () => {
    expect(termCost(price({ yearMinor: 1179 }), { years: 6, fee, taxPercent: 23 })).toMatchObject({
      price: 7074,
      fee: 120,
      tax: 1655,
      total: amount(8849, 'USD'),
    });
  });

  test('a total for a term outranks so many single years', () => {
    expect(total(price({ termTotals: { 2: 1990 } }), { years: 2, fee: null })).toBe(1990);
    expect(total(price({ termTotals: { 2: 1990 } }), { years: 3, fee: null })).toBe(3354);
  });

  test('a fee in another currency is converted by a dated rate, and the cost is unknown without one', () => {
    const day = '2026-11-24' as Day;
    const rates = [{ from: '2026-01-01' as Day, currency: 'USD', into: 'EUR', factor: 0.9 }];
    const euro = price({ currency: 'EUR' });
    expect(total(euro, { years: 1, fee })).toBeNull();
    expect(total(euro, { years: 2, fee, rates, day })).toBe(2 * (1118 + 18));
    expect(total(euro, { years: 1, fee, rates, day: '2025-12-31' as Day })).toBeNull();
    expect(total(price({ feeIncluded: true, currency: 'EUR' }), { years: 1, fee })).toBe(1118);
    expect(total(euro, { years: 1, fee: null })).toBe(1118);
  });

  test('a restore costs about ten renewals, and the year (common practice, no source)', () => {
    const renewal = termCost(price({}), { years: 1, fee });
    if (!renewal) throw new Error('not priced');
    expect(restoreCost(null, renewal)).toMatchObject({ total: amount(12_518, 'USD'), ruleOfThumb: true });
    expect(restoreCost(price({ action: 'restore', yearMinor: 9000 }), renewal)).toMatchObject({
      total: amount(10_138, 'USD'),
      ruleOfThumb: false,
    });
  });
});
