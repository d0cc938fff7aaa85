import { expect, test } from 'vitest';
import type { RankedName } from '@/core/prospects';
import { type Day, instant } from '@/core/time';
import { leastWords, whyWords } from './standWords';

const STYLE = { zone: 'UTC', today: '2026-11-24' as Day };
const next = { firstAt: instant('2027-03-03T00:00:00Z'), costs: [1138] };
const keep = { value: -820, years: 0, chance: 0.0191, leastProceeds: 59_000 };
const ranked = (more: Partial<RankedName>): RankedName => ({
  place: 0,
  stand: 'not worth it',
  worth: { keep, next, proceeds: 18_705.4 },
  next,
  leastAskingMinor: 112_553,
  likeMinor: null,
  factor: 1,
  offers: 0,
  ...more,
});
const why = (more: Partial<RankedName> = {}) => whyWords(ranked(more), 'USD', STYLE);

test('a name that is not worth its year says what it costs, how likely it sells, and by how much that is less', () => {
  expect(why()).toBe(
    'Costs $11.38 on 3 Mar 2027; 1.9 % a year to sell for about $187 after fees: $8.20 less than it costs.',
  );
  expect(leastWords(ranked({}), 'USD')).toBe('from $1,126 asked');
  expect(leastWords(ranked({ leastAskingMinor: null }), 'USD')).toBe('at no price');
});

test('one that is worth it says for how long; what speaks for it stands beside its chance', () => {
  const worth = { keep: { ...keep, value: 3910, years: 10 }, next, proceeds: 90_000 };
  expect(why({ stand: 'worth it', worth, factor: 2, offers: 3 })).toBe(
    'Costs $11.38 on 3 Mar 2027; 1.9 % a year (3 offers and bidders within a year, × 2) to sell for about $900 after fees: worth $39.10 over its cost, for ten years and more.',
  );
  expect(leastWords(ranked({ worth }), 'USD')).toBe('');
});

test('an underpriced one says what names like it were sold for', () => {
  expect(why({ stand: 'underpriced', likeMinor: 250_000 })).toMatch(/ Names like it were sold for \$2,500\.$/);
});

test('what nobody can judge says why', () => {
  expect(why({ stand: 'undecided', worth: null })).toBe('Costs $11.38 on 3 Mar 2027; nothing is asked for it.');
  expect(why({ stand: 'always kept', worth: null })).toMatch(/in use, or never to be lost\.$/);
  expect(why({ stand: 'undecided', worth: null, next: null })).toBe(
    'When its term ends, or what it costs, is not known.',
  );
});
