import type { Amount } from '../money';
import { sumByCurrency } from '../money';
import { type Arrangement, byPlace, inOrder, type Places, ranksOf, Spellings } from '../table';
import type { Instant } from '../time';
import { LISTING_STATES, type ListingKind, type ListingStatus } from './listing';

/** A listing as it stands in the list of them. */
export interface ListingLine {
  readonly id: number;
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly marketplace: string;
  readonly kind: ListingKind;
  readonly currency: string;
  readonly askedMinor: number | null;
  /** The net proceeds at the asked price. */
  readonly proceedsMinor: number | null;
  /** Proceeds less cost; `null` when the cost is not known in this currency. */
  readonly profitMinor: number | null;
  readonly status: ListingStatus;
  readonly bestMinor: number | null;
  /** How often its window was opened in 30 days, robots left out. */
  readonly visits: number;
  readonly termEnd: Instant | null;
}

/** What many listings have alike. */
export type ListedAs = Pick<ListingLine, 'marketplace' | 'kind' | 'currency' | 'status'>;

/**
 * Listings in columns, in the order of their names' A-labels, those of one name as they were made. Amounts are minor units of the
 * listing's currency, instants milliseconds; `NaN` where there is none or it is not known.
 */
export interface ListingColumns {
  /** A-labels, each followed by a line feed. */
  readonly ascii: string;
  /** U-labels where they differ, by place. */
  readonly unicode: Readonly<Record<number, string>>;
  readonly id: Int32Array;
  readonly nameId: Int32Array;
  /** Each combination that there is, and the one of each listing. */
  readonly listedAs: readonly ListedAs[];
  readonly as: Int32Array;
  readonly asked: Float64Array;
  readonly proceeds: Float64Array;
  readonly profit: Float64Array;
  readonly best: Float64Array;
  readonly visits: Int32Array;
  readonly termEnd: Float64Array;
}

/** Which listings are shown, and in which order. */
export interface ListingWish {
  /** A part of their names. */
  readonly text: string;
  /** `null`: all marketplaces. */
  readonly marketplace: string | null;
  readonly sort:
    | 'name'
    | 'marketplace'
    | 'kind'
    | 'asked'
    | 'proceeds'
    | 'profit'
    | 'offer'
    | 'visits'
    | 'status'
    | 'term';
  readonly descending: boolean;
}

/** What some listings come to. */
export interface ListingSums {
  readonly count: number;
  /** Their net proceeds, an amount for each currency. */
  readonly proceeds: readonly Amount[];
  /** Those with an asked price of which nobody knows what it leaves: a rate is missing for their fees. */
  readonly notKnown: number;
}

/** What listings are sorted by that is a figure. */
const FIGURES = {
  asked: 'asked',
  proceeds: 'proceeds',
  profit: 'profit',
  offer: 'best',
  visits: 'visits',
  term: 'termEnd',
} as const;

const known = (value: number) => (Number.isNaN(value) ? null : value);

/** The listings of a ledger, by place. */
export class ListingTable {
  readonly length: number;
  readonly #columns: ListingColumns;
  readonly #spellings: Spellings;
  #placeById: ReadonlyMap<number, number> | null = null;

  constructor(columns: ListingColumns) {
    this.#columns = columns;
    this.length = columns.id.length;
    this.#spellings = new Spellings(columns.ascii, this.length, columns.unicode);
  }

  line(place: number): ListingLine {
    const { id, nameId, asked, proceeds, profit, best, visits, termEnd } = this.#columns;
    return {
      ...this.#as(place),
      id: id[place] as number,
      nameId: nameId[place] as number,
      ascii: this.#spellings.ascii(place),
      unicode: this.#spellings.unicode(place),
      askedMinor: known(asked[place] as number),
      proceedsMinor: known(proceeds[place] as number),
      profitMinor: known(profit[place] as number),
      bestMinor: known(best[place] as number),
      visits: visits[place] as number,
      termEnd: known(termEnd[place] as number) as Instant | null,
    };
  }

  /** The places of some listings; those that are not there are left out. */
  placesOf(ids: readonly number[]): Places {
    this.#placeById ??= new Map(Array.from(this.#columns.id, (id, place) => [id, place]));
    return Int32Array.from(ids.flatMap((id) => this.#placeById?.get(id) ?? []));
  }

  idsOf(places: Places): number[] {
    return Array.from(places, (place) => this.#columns.id[place] as number);
  }

  /** The names of some listings, each once. */
  namesOf(places: Places): number[] {
    return [...new Set(Array.from(places, (place) => this.#columns.nameId[place] as number))];
  }

  /** The places of the listings that fit, in order. */
  matching({ text, marketplace }: Pick<ListingWish, 'text' | 'marketplace'>): Places {
    const { as, listedAs } = this.#columns;
    const fits = listedAs.map((one) => marketplace === null || one.marketplace === marketplace);
    const found = new Int32Array(this.length);
    let count = 0;
    const keep = (place: number): true => {
      if (fits[as[place] as number]) {
        found[count] = place;
        count += 1;
      }
      return true;
    };
    const wanted = text.trim().toLowerCase();
    if (wanted === '') for (let place = 0; place < this.length; place += 1) keep(place);
    else this.#spellings.eachWith(wanted, keep);
    return found.subarray(0, count);
  }

  /** Listings in the order of a key, then by name; what is not known stands last, whichever way they are sorted. */
  arrange(places: Places, { sort, descending }: Pick<ListingWish, 'sort' | 'descending'>): Arrangement {
    if (sort === 'name') return byPlace(places, descending);
    const keyOf = this.#keysFor(sort, places);
    const sign = descending ? -1 : 1;
    const keys = Float64Array.from(places, (place) => {
      const key = keyOf(place);
      return Number.isNaN(key) ? Number.POSITIVE_INFINITY : sign * key;
    });
    return inOrder(places, keys);
  }

  sums(places: Places): ListingSums {
    const { asked, proceeds } = this.#columns;
    const byCurrency = new Map<string, number>();
    let notKnown = 0;
    for (const place of places) {
      const minor = proceeds[place] as number;
      if (Number.isNaN(minor)) {
        if (!Number.isNaN(asked[place])) notKnown += 1;
        continue;
      }
      const { currency } = this.#as(place);
      byCurrency.set(currency, (byCurrency.get(currency) ?? 0) + minor);
    }
    const sums = Array.from(byCurrency, ([currency, minor]) => ({ minor, currency }));
    return { count: places.length, proceeds: sumByCurrency(sums), notKnown };
  }

  #as(place: number): ListedAs {
    return this.#columns.listedAs[this.#columns.as[place] as number] as ListedAs;
  }

  #keysFor(sort: Exclude<ListingWish['sort'], 'name'>, places: Places): (place: number) => number {
    const { as, listedAs } = this.#columns;
    if (sort === 'status') {
      const ranks = listedAs.map(({ status }) => LISTING_STATES.indexOf(status));
      return (place) => ranks[as[place] as number] as number;
    }
    if (sort === 'marketplace' || sort === 'kind') {
      const ranks = ranksOf(as, (place) => this.#as(place)[sort], places);
      return (place) => ranks[as[place] as number] as number;
    }
    const figures = this.#columns[FIGURES[sort]];
    return (place) => figures[place] as number;
  }
}
