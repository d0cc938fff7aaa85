import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { ListingLine, ListingWish } from '@/core/selling';
import { listingColumns } from '@/core/selling/sampleListing';
import { packed } from '@/core/table';
import { listingsWork } from './listingsWork';

const line = (id: number, ascii: string, more: Partial<ListingLine> = {}): ListingLine => ({
  id,
  nameId: 100 + id,
  ascii,
  unicode: ascii,
  marketplace: 'Capstan Row',
  kind: 'fixed price',
  currency: 'USD',
  askedMinor: 1000 * id,
  proceedsMinor: 900 * id,
  profitMinor: null,
  status: 'live',
  bestMinor: null,
  visits: 0,
  termEnd: null,
  ...more,
});
const LINES = [
  line(3, 'aldernet.com'),
  line(1, 'gullwharf.com', { marketplace: 'the office' }),
  line(2, 'kelploft.com', { currency: 'EUR' }),
];
const ALL: ListingWish = { text: '', marketplace: null, sort: 'name', descending: false };

let work: ReturnType<typeof listingsWork>;
let lines: readonly ListingLine[];
beforeEach(() => {
  lines = LINES;
  work = listingsWork();
  vi.stubGlobal('fetch', async () => new Response(packed(listingColumns(lines))));
});
// Other files go on in the same process.
afterEach(() => {
  vi.unstubAllGlobals();
});

test('listings are arranged, and more of the last arrangement is read by place', async () => {
  await work.loadListings();
  const { rows, sums } = work.arrangeListings({ ...ALL, sort: 'asked', descending: true }, 0, 2);
  expect(rows).toEqual([LINES[0], LINES[2]]);
  expect(sums).toEqual({
    count: 3,
    proceeds: [
      { minor: 1800, currency: 'EUR' },
      { minor: 3600, currency: 'USD' },
    ],
    notKnown: 0,
  });
  expect(work.listings(1, 9)).toEqual([LINES[2], LINES[1]]);
  expect(work.listingIds(0, 3)).toEqual([3, 2, 1]);
});

test('what is chosen and has gone meanwhile is neither counted nor acted on', async () => {
  await work.loadListings();
  expect(work.chosenListings([2, 3], 1)).toMatchObject({ ids: [2, 3], sums: { count: 2 }, nameIds: [102] });
  lines = LINES.slice(0, 2);
  await work.loadListings();
  expect(work.chosenListings([2, 3], 9)).toMatchObject({ ids: [3], sums: { count: 1 }, nameIds: [103] });
});

test('readings come one after the other: an answer that was asked for first never stands over a later one', async () => {
  const waiting: (() => void)[] = [];
  vi.stubGlobal('fetch', async () => {
    const now = lines;
    await new Promise<void>((go) => waiting.push(go));
    return new Response(packed(listingColumns(now)));
  });
  const first = work.loadListings();
  await vi.waitFor(() => expect(waiting).toHaveLength(1));
  lines = LINES.slice(1);
  const second = work.loadListings();
  waiting[0]?.();
  await first;
  await vi.waitFor(() => expect(waiting).toHaveLength(2));
  waiting[1]?.();
  await second;
  expect(work.arrangeListings(ALL, 0, 9).rows).toEqual(LINES.slice(1));
});

test('what cannot be read is told, and what was there stays until it can', async () => {
  expect(() => work.arrangeListings(ALL, 0, 9)).toThrow('have not been loaded');
  await work.loadListings();
  work.arrangeListings(ALL, 0, 9);
  vi.stubGlobal('fetch', async () => new Response(null, { status: 503 }));
  await expect(work.loadListings()).rejects.toThrow('the listings answered 503');
  expect(work.listings(0, 9)).toEqual(LINES);
});
