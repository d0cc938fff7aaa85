import { describe, expect, test } from 'vitest';
import type { TodaySummary, Unknowns } from '@/core/ledger';
import { amount } from '@/core/money';
import { type Day, instant } from '@/core/time';
import { chargedWords, countOf, countWords, lostWords, restsWords, unknownLines } from './todayWords';

const style = { zone: 'UTC', today: '2026-11-24' as Day };
const summary = (more: Partial<TodaySummary> = {}): TodaySummary => ({
  lost: 0,
  lostBy: null,
  saving: [],
  savingUnpriced: 0,
  charges: 0,
  charged: [],
  unpriced: 0,
  fails: 0,
  failsFrom: null,
  ...more,
});
const said = (more: Partial<TodaySummary>, resting = 0) => {
  const { lost, rest } = lostWords(summary(more), { resting }, style);
  return [lost, rest].filter(Boolean).join(' ');
};

test('counts begin a sentence as words up to twelve', () => {
  expect([0, 1, 12, 13, 1400].map(countWords)).toEqual(['No', 'One', 'Twelve', '13', '1,400']);
  expect(countOf(1, 'name is', 'names are')).toBe('One name is');
  expect(countOf(4, 'name is', 'names are')).toBe('Four names are');
});

describe('what today comes to', () => {
  test('what is lost by which last good day, and what saves it', () => {
    const lostBy = instant('2026-12-17T10:00:00Z');
    expect(said({ lost: 4, lostBy, saving: [amount(700, 'GBP'), amount(25_036, 'USD')] })).toBe(
      'Four names are lost by 16 Dec. £7.00 + $250.36 would save them.',
    );
    expect(said({ lost: 1, lostBy, saving: [amount(12_518, 'USD')] })).toBe(
      'One name is lost by 16 Dec. $125.18 would save it.',
    );
  });

  test('a name without a known price is not saved for nothing', () => {
    const lostBy = instant('2026-12-17T10:00:00Z');
    expect(said({ lost: 2, lostBy, saving: [amount(12_518, 'USD')], savingUnpriced: 1 })).toBe(
      'Two names are lost by 16 Dec. $125.18 would save them, besides one name without a known price.',
    );
    expect(said({ lost: 2, lostBy, savingUnpriced: 2 })).toBe(
      'Two names are lost by 16 Dec. No price is known that would keep them.',
    );
  });

  test('where nothing is lost, the first charge that fails; where none does, peace', () => {
    expect(said({ fails: 6, failsFrom: instant('2027-01-03T00:00:00Z') })).toBe(
      'Six charges fail within 60 days, the first on 3 Jan 2027.',
    );
    expect(said({ fails: 1, failsFrom: instant('2026-12-03T00:00:00Z') })).toBe(
      'One charge fails within 60 days, the first on 3 Dec.',
    );
    expect(said({})).toBe('Nothing is lost in the next 60 days.');
  });

  test('where a name cannot be foretold, that nothing is lost is only as far as is known', () => {
    expect(said({}, 1)).toBe('Nothing is lost in the next 60 days, as far as is known.');
  });
});

test.each([
  [{}, 'Nothing is charged in the next 60 days.'],
  [{ charges: 1, charged: [amount(1138, 'USD')] }, '$11.38 is charged in the next 60 days by 1 charge.'],
  [
    { charges: 5, unpriced: 2, charged: [amount(3414, 'USD')] },
    '$34.14 is charged in the next 60 days by 3 charges, besides 2 charges at a price not known.',
  ],
  [{ charges: 2, unpriced: 2 }, 'In the next 60 days there are 2 charges at a price not known.'],
])('what is charged: %j', (more, words) => {
  expect(chargedWords(summary(more))).toBe(words);
});

describe('what is not known yet', () => {
  const unknowns = (more: Partial<Unknowns>): Unknowns => ({
    ends: 0,
    settings: 0,
    unpriced: 0,
    prices: [],
    accounts: [],
    resting: 0,
    names: 412,
    ...more,
  });

  test('one short line for each thing, none for what is known', () => {
    const lines = unknownLines(
      unknowns({ ends: 28, unpriced: 28, accounts: [{ accountId: 1, names: 9 }], settings: 12, resting: 56 }),
    );
    expect(lines).toEqual([
      { about: 'ends', text: '28 ends of term' },
      { about: 'prices', text: 'prices of 28 names' },
      { about: 'means', text: 'what one account pays from' },
      { about: 'auto-renew', text: 'auto-renew of 12 names' },
    ]);
    expect(unknownLines(unknowns({}))).toEqual([]);
    expect(unknownLines(unknowns({ ends: 1 }))).toEqual([{ about: 'ends', text: 'one end of term' }]);
  });

  test('how much the forecast rests on', () => {
    expect(restsWords(unknowns({ resting: 56 }))).toBe('the forecast rests on 356 of 412 names');
    expect(restsWords(unknowns({}))).toBe('the forecast rests on all of 412 names');
    expect(restsWords(unknowns({ names: 1, resting: 1 }))).toBe('the forecast rests on 0 of one name');
  });
});
