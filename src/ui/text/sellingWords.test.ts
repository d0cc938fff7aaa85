import { describe, expect, test } from 'vitest';
import { addDays, type Day, instant } from '@/core/time';
import { AGENDA_WORDS, findingWords, returnWords, STAGE_WORDS, sentWords } from './sellingWords';

const NOW = instant('2026-11-24T09:12:00Z');
const style = { zone: 'UTC', today: '2026-11-24' as Day };
const finding = { stops: true, price: null, other: null, figure: null, at: null } as const;

test.each([
  [{ ...finding, code: 'price missing', price: 'asking' }, 'Set the asking price.'],
  [
    { ...finding, code: 'order of prices', price: 'minimum', other: 'asking' },
    'The minimum offer price has to be no more than the asking price.',
  ],
  [
    { ...finding, code: 'order of prices', price: 'reserve', other: 'buyNow' },
    'The reserve price has to be below the buy now price.',
  ],
  [{ ...finding, code: 'currency not taken' }, 'This marketplace does not sell in USD.'],
  [{ ...finding, code: 'auction length', figure: 14 }, 'Choose another length: 14 days at most here.'],
  [
    { ...finding, code: 'below cost', price: 'asking', figure: 1050 },
    'The asking price is $10.50 below what the name has cost.',
  ],
  [
    { ...finding, code: 'proceeds below cost', price: 'asking', figure: 7500 },
    'At the asking price a loss is left after fees: no loss from $75.',
  ],
  [
    { ...finding, code: 'term too short', at: addDays(NOW, 20) },
    'The term ends before 14 Dec, when a sale would be handed over.',
  ],
  [
    { ...finding, code: 'transfer lock', at: addDays(NOW, 40) },
    'Until 3 Jan 2027 it can only be pushed inside its registrar.',
  ],
  [{ ...finding, code: 'too long', figure: 4000 }, '4,000 letters at most.'],
] as const)('%o', (one, words) => {
  expect(findingWords(one, 'USD', style)).toBe(words);
});

test('every finding is a sentence, and none shouts', () => {
  const codes = [
    'price not whole',
    'no auctions here',
    'payout not set',
    'cost not known',
    'not at the account',
  ] as const;
  for (const code of codes) {
    const words = findingWords({ ...finding, code, price: 'start' }, 'EUR', style);
    expect(words).toMatch(/^[A-Z].*\.$/);
    expect(words).not.toMatch(/!|successfully/);
  }
  for (const words of [...Object.values(AGENDA_WORDS), ...Object.values(STAGE_WORDS)]) expect(words).not.toContain('!');
});

test.each([
  [null, '–'],
  [0.254, '25 % a year'],
  [-0.5, '-50 % a year'],
  [12.4, '×13 a year'],
  [5000, 'over ×1,000'],
])('a return of %s', (rate, words) => {
  expect(returnWords(rate)).toBe(words);
});

describe('what came of sending kept drafts', () => {
  const stopped = (ascii: string) => ({ ascii, findings: [] });
  test.each([
    [{ listingIds: [1], sent: 1, stopped: [] }, 'One sent.'],
    [{ listingIds: [1, 2], sent: 2, stopped: [] }, '2 sent.'],
    [
      { listingIds: [1], sent: 0, stopped: [stopped('kelpkiln.com')] },
      '0 sent. kelpkiln.com stays a draft: its prices have something to mend, see Price.',
    ],
    [
      { listingIds: [1, 2, 3], sent: 1, stopped: [stopped('kelpkiln.com'), stopped('tidewick.com')] },
      'One sent. kelpkiln.com and 1 more stay drafts: their prices have something to mend, see Price.',
    ],
  ])('%j', (listed, words) => {
    expect(sentWords(listed)).toBe(words);
  });
});
