import {
  type ListingColumns,
  type ListingLine,
  type ListingSums,
  ListingTable,
  type ListingWish,
} from '@/core/selling';
import { type Arrangement, type Places, unpacked } from '@/core/table';

/** Listings as they were arranged, with what they come to. */
export interface ArrangedListings {
  readonly rows: readonly ListingLine[];
  readonly sums: ListingSums;
}

/** Those of some chosen listings that are there, what they come to, and the first of their names. */
export interface ChosenListings {
  readonly ids: readonly number[];
  readonly sums: ListingSums;
  readonly nameIds: readonly number[];
}

const NOTHING: Arrangement = { total: 0, slice: () => new Int32Array(0) };

/** The list of listings, kept in the worker once it was asked for. */
export function listingsWork() {
  let table: ListingTable | null = null;
  let order: Arrangement = NOTHING;
  let loading = Promise.resolve();
  const read = async () => {
    const response = await fetch('/selling/data', { cache: 'no-store' });
    if (!response.ok) throw new Error(`the listings answered ${response.status}`);
    table = new ListingTable(unpacked<ListingColumns>(await response.arrayBuffer()));
    order = NOTHING;
  };
  const lines = (places: Places) => (table ? Array.from(places, (place) => (table as ListingTable).line(place)) : []);
  const current = (): ListingTable => {
    if (!table) throw new Error('the listings have not been loaded');
    return table;
  };
  return {
    /** Reads the listings as they are now. One reading comes after the other: none overtakes a later one. */
    loadListings(): Promise<void> {
      const next = loading.then(read, read);
      loading = next;
      return next;
    },

    /** Filters and sorts the listings, and answers the rows from `from` to `to`. */
    arrangeListings(wish: ListingWish, from: number, to: number): ArrangedListings {
      const listings = current();
      const places = listings.matching(wish);
      order = listings.arrange(places, wish);
      return { rows: lines(order.slice(from, to)), sums: listings.sums(places) };
    },

    /** Rows of the last arrangement. */
    listings(from: number, to: number): ListingLine[] {
      return lines(order.slice(from, to));
    },

    /** Ids of the rows of the last arrangement, in its order. */
    listingIds(from: number, to: number): number[] {
      return current().idsOf(order.slice(from, to));
    },

    /** What some listings come to, whatever the arrangement, with at most so many of their names. */
    chosenListings(ids: readonly number[], names: number): ChosenListings {
      const listings = current();
      const places = listings.placesOf(ids);
      return {
        ids: listings.idsOf(places),
        sums: listings.sums(places),
        nameIds: listings.namesOf(places).slice(0, names),
      };
    },
  };
}
