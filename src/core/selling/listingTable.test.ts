import fc from 'fast-check';
import { expect, test } from 'vitest';
import { LISTING_KINDS, LISTING_STATES } from './listing';
import { type ListingLine, ListingTable, type ListingWish } from './listingTable';
import { listingColumns } from './sampleListing';

const maybe = fc.option(fc.integer({ min: 0, max: 3000 }), { nil: null });
const NAMES = ['aldernet.com', 'gullwharf.com', 'kelploft.io', 'xn--mwenkai-90a.com'] as const;
const anyLine = fc.record({
  name: fc.constantFrom(...NAMES),
  marketplace: fc.constantFrom('the office', 'Tidemark Hall', 'Capstan Row'),
  kind: fc.constantFrom(...LISTING_KINDS),
  currency: fc.constantFrom('EUR', 'USD'),
  status: fc.constantFrom(...LISTING_STATES),
  askedMinor: maybe,
  proceedsMinor: maybe,
  profitMinor: fc.option(fc.integer({ min: -3000, max: 3000 }), { nil: null }),
  bestMinor: maybe,
  visits: fc.integer({ min: 0, max: 9 }),
  termEnd: maybe,
});
const anyLines = fc.array(anyLine, { maxLength: 14 }).map((lines) =>
  lines
    .map((line, i) => ({ ...line, id: i + 1 }))
    .toSorted((a, b) => NAMES.indexOf(a.name) - NAMES.indexOf(b.name) || a.id - b.id)
    .map(
      ({ name, ...line }) =>
        ({
          ...line,
          nameId: 100 + NAMES.indexOf(name),
          ascii: name,
          unicode: name === 'xn--mwenkai-90a.com' ? 'möwenkai.com' : name,
        }) as ListingLine,
    ),
);

const KEYS: Readonly<Record<ListingWish['sort'], (line: ListingLine) => string | number | null>> = {
  name: ({ ascii }) => ascii,
  marketplace: ({ marketplace }) => marketplace,
  kind: ({ kind }) => kind,
  asked: ({ askedMinor }) => askedMinor,
  proceeds: ({ proceedsMinor }) => proceedsMinor,
  profit: ({ profitMinor }) => profitMinor,
  offer: ({ bestMinor }) => bestMinor,
  visits: ({ visits }) => visits,
  status: ({ status }) => LISTING_STATES.indexOf(status),
  term: ({ termEnd }) => termEnd,
};
const anyWish = fc.record<ListingWish>({
  text: fc.constantFrom('', 'a', 'möw', 'KELP', 'com', ' gull ', 'zz'),
  marketplace: fc.constantFrom(null, 'the office', 'Capstan Row', 'nobody'),
  sort: fc.constantFrom(...(Object.keys(KEYS) as ListingWish['sort'][])),
  descending: fc.boolean(),
});

test('a line comes out of the columns as it went in', () => {
  fc.assert(
    fc.property(anyLines, (lines) => {
      const table = new ListingTable(listingColumns(lines));
      expect(Array.from({ length: table.length }, (_, place) => table.line(place))).toEqual(lines);
      const ids = lines.map(({ id }) => id);
      expect(table.idsOf(table.placesOf([...ids, 999]))).toEqual(ids);
      expect(table.namesOf(table.placesOf(ids))).toEqual([...new Set(lines.map(({ nameId }) => nameId))]);
    }),
  );
});

test('lines are found and sorted as a list of objects would be, what is not known last either way', () => {
  fc.assert(
    fc.property(anyLines, anyWish, (lines, wish) => {
      const table = new ListingTable(listingColumns(lines));
      const [text, keyOf] = [wish.text.trim().toLowerCase(), KEYS[wish.sort]];
      const sign = wish.descending ? -1 : 1;
      const expected = lines
        .map((line, place) => ({ line, place }))
        .filter(
          ({ line }) =>
            (wish.marketplace === null || line.marketplace === wish.marketplace) &&
            (line.ascii.includes(text) || line.unicode.includes(text)),
        )
        .toSorted((a, b) => {
          const [x, y] = [keyOf(a.line), keyOf(b.line)];
          if (wish.sort === 'name') return sign * (a.place - b.place);
          if (x === y) return a.place - b.place;
          if (x === null || y === null) return x === null ? 1 : -1;
          return sign * (x < y ? -1 : 1);
        })
        .map(({ line }) => line);
      const places = table.matching(wish);
      const order = table.arrange(places, wish);
      const found = Array.from(order.slice(0, order.total), (place) => table.line(place));
      expect(found).toEqual(expected);
      const middle = Math.floor(found.length / 2);
      expect(Array.from(order.slice(middle, middle + 2), (place) => table.line(place))).toEqual(
        expected.slice(middle, middle + 2),
      );
    }),
  );
});

test('sums are those of what is shown: each currency by itself, and how many nobody can tell', () => {
  fc.assert(
    fc.property(anyLines, anyWish, (lines, wish) => {
      const table = new ListingTable(listingColumns(lines));
      const places = table.matching(wish);
      const shown = Array.from(places, (place) => lines[place] as ListingLine);
      const of = (currency: string) =>
        shown.filter((line) => line.currency === currency && line.proceedsMinor !== null);
      expect(table.sums(places)).toEqual({
        count: shown.length,
        proceeds: ['EUR', 'USD'].flatMap((currency) =>
          of(currency).length === 0
            ? []
            : [{ currency, minor: of(currency).reduce((sum, { proceedsMinor }) => sum + (proceedsMinor ?? 0), 0) }],
        ),
        notKnown: shown.filter((line) => line.askedMinor !== null && line.proceedsMinor === null).length,
      });
    }),
  );
});
