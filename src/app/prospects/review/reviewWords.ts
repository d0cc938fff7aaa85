import type { ReviewBy, ReviewPart } from '@/core/journal';
import type { Review } from '@/usecases/prospects/review';

export const BY_WORDS: Readonly<Record<ReviewBy, string>> = {
  year: 'year',
  ending: 'ending',
  tag: 'tag',
  account: 'account',
};

export const PART_WORDS: Readonly<Record<ReviewPart, string>> = {
  cost: 'Cost',
  price: 'Prices of sales',
  fee: 'Fees of sales',
};

/** A group by its key. */
export function keyWords(by: ReviewBy, key: string): string {
  if (by === 'ending') return `.${key}`;
  return by === 'tag' && key === '' ? 'no tag' : key;
}

/** The page that opens a figure to its entries; without a key all of a period, without a part all kinds. */
export function entriesHref(
  { year, by }: Pick<Review, 'year' | 'by'>,
  key: string | null,
  part: ReviewPart | null,
): string {
  const query = new URLSearchParams({ year: year === null ? 'all' : String(year), by });
  if (key !== null) query.set('key', key);
  if (part !== null) query.set('part', part);
  return `/prospects/review/entries?${query}`;
}
