import { describe, expect, test } from 'vitest';
import type { Fan, Forecast } from '@/core/prospects';
import {
  groupWords,
  ofHundred,
  outlookAnswer,
  roughGain,
  roughly,
  seenWords,
  shareWords,
  signed,
  yearsInWords,
} from './prospectWords';

test.each([
  [0, '0 %'],
  [0.0004, 'under 0.1 %'],
  [0.0191, '1.9 %'],
  [0.02, '2 %'],
  [0.123, '12 %'],
  [1, '100 %'],
])('a share of %f is %s', (share, words) => {
  expect(shareWords(share)).toBe(words);
});

test.each([
  [0, 'no'],
  [0.001, 'under 1 of 100'],
  [0.624, '62 of 100'],
  [0.999, 'over 99 of 100'],
  [1, '100 of 100'],
])('%f of all is %s', (share, words) => {
  expect(ofHundred(share)).toBe(words);
});

test('what is only about so much is told in whole units, small sums with their cents', () => {
  expect(roughly(64_132.4, 'USD')).toBe('$641');
  expect(roughly(895, 'USD')).toBe('$8.95');
  expect(roughly(-0.2, 'USD')).toBe('$0');
  expect(roughGain(-1_276_347, 'USD')).toBe('−$12,763');
  expect(signed({ minor: 1250, currency: 'USD' })).toBe('+$12.50');
});

test.each([
  ['ending', 'com', '.com'],
  ['tag', '', 'no tag'],
  ['view', 'yes', 'in “The dear ones”'],
  ['view', 'no', 'all others'],
  ['asking', '0', 'asked under 500 USD'],
  ['asking', '2', 'asked 2,000 to 10,000 USD'],
  ['asking', '3', 'asked 10,000 USD and more'],
] as const)('a group by %s of %s is %s', (grouping, key, words) => {
  expect(groupWords(grouping, key, 'USD', 'The dear ones')).toBe(words);
});

test('years in words, and what was seen', () => {
  expect([1, 5, 10].map(yearsInWords)).toEqual(['one year', 'five years', 'ten years']);
  expect(seenWords(1, 4.25)).toBe('1 sale in 4.3 name-years on offer');
});

describe('the answer of an outlook', () => {
  const fan = { carries: 0.62, short: [0, 0.02, 0.08], usuallyShort: 1 } as unknown as Fan;
  const forecast = (more: Partial<Forecast>): Forecast =>
    ({
      months: ['2026-11', '2026-12', '2027-01', ...Array.from({ length: 57 }, () => '2031-01')],
      lacking: { unpricedCount: 0, balances: [], currencies: [] },
      fans: [fan],
      ...more,
    }) as unknown as Forecast;
  test('says how often sales carry the charges, and when the money runs out', () => {
    expect(outlookAnswer(forecast({}))).toBe(
      'Over five years sales carry what is charged on 62 of 100 paths; on 8 of 100 the money runs out, half of the time by Dec 2026.',
    );
    expect(outlookAnswer(forecast({ fans: [{ ...fan, short: [0], usuallyShort: null }] }))).toMatch(
      /on none does the money run out\.$/,
    );
  });
  test('says what is lacking', () => {
    const lacking = (unpricedCount: number, balances: number[], currencies: string[] = []) =>
      outlookAnswer(
        forecast({ fans: [], lacking: { unpricedCount, balances, currencies } as unknown as Forecast['lacking'] }),
      );
    expect(lacking(1, [])).toBe('There is no outlook yet: a renewal price is not known.');
    expect(lacking(0, [4, 5])).toBe('There is no outlook yet: 2 balances are not known.');
    expect(lacking(3, [4])).toBe('There is no outlook yet: 3 renewal prices and a balance are not known.');
    expect(lacking(0, [], ['EUR'])).toBe('There is no outlook yet: a rate is not known.');
    expect(lacking(3, [4], ['EUR', 'GBP'])).toBe(
      'There is no outlook yet: 3 renewal prices, a balance and 2 rates are not known.',
    );
  });
});
