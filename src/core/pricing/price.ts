import type { Day } from '../time';
import type { FirstYearCondition } from './condition';

/** `extra`: something that is charged each year beside a name, by its own name. */
export const PRICE_ACTIONS = ['register', 'renew', 'transfer', 'restore', 'privacy', 'extra'] as const;
export type PriceAction = (typeof PRICE_ACTIONS)[number];

/** How a price came to be known. `inferred` prices come from imported renewal prices and from entries. */
export type PriceOrigin = 'list' | 'by hand' | 'inferred';

/** One row of a price list: what one account asks for one action under one ending, from a day on. */
export interface Price {
  readonly accountId: number;
  /** A name's own (premium) price, which outranks the ending's for every action. */
  readonly nameId: number | null;
  readonly ending: string;
  readonly action: PriceAction;
  readonly currency: string;
  /** Minor units for one year (once, for `restore`). */
  readonly yearMinor: number;
  /** Totals in minor units for particular terms, by number of years: `{ 2: 1990 }`. */
  readonly termTotals: Readonly<Record<string, number>> | null;
  readonly firstYearMinor: number | null;
  readonly firstYearCondition: FirstYearCondition | null;
  /** True when the yearly registry fee is already part of the price. */
  readonly feeIncluded: boolean;
  readonly from: Day;
  readonly origin: PriceOrigin;
  /** What an `extra` is called; empty for anything else. */
  readonly item: string;
  /** What comes with it, in words. */
  readonly included: string;
  /** Where it was seen, in words. */
  readonly source: string;
}

/** What most prices have: no totals, no first price, nothing beside it. */
export const PLAIN_PRICE = {
  termTotals: null,
  firstYearMinor: null,
  firstYearCondition: null,
  feeIncluded: false,
  item: '',
  included: '',
  source: '',
} as const satisfies Partial<Price>;

/** A number of steps off the price: never off the registry fee. */
export interface Promotion {
  readonly code: string;
  /** Percent (0-100) off the covered years, or an amount off the whole. */
  readonly off:
    | { readonly kind: 'percent'; readonly percent: number }
    | { readonly kind: 'amount'; readonly minor: number };
  /** How many years of the term it covers; `null` for all. */
  readonly years: number | null;
}

/** Whose price is asked for: a name of its own (or `null` for the ending alone) at one account. */
export interface Priced {
  readonly accountId: number;
  readonly nameId: number | null;
  readonly ending: string;
}

/** All known prices, by what they are for, newest first. */
export type PriceList = ReadonlyMap<string, readonly Price[]>;

/** Puts prices in the order in which they are looked up. */
export function indexPrices(prices: Iterable<Price>): PriceList {
  const list = new Map<string, Price[]>();
  for (const price of prices) {
    const key = keyOf(price, price.nameId, price.action === 'extra' ? `extra ${price.item}` : price.action);
    const rows = list.get(key);
    if (rows) rows.push(price);
    else list.set(key, [price]);
  }
  for (const rows of list.values()) rows.sort((a, b) => (a.from < b.from ? 1 : -1));
  return list;
}

/** The price in force on `day`: the name's own, else the ending's; `null` when none is known, since nothing is invented. */
export function priceInForce(list: PriceList, of: Priced, action: PriceAction, day: Day): Price | null {
  const own = of.nameId === null ? undefined : list.get(keyOf(of, of.nameId, action));
  return newest(own, day) ?? newest(list.get(keyOf(of, null, action)), day);
}

function keyOf(of: { accountId: number; ending: string }, nameId: number | null, action: string): string {
  return `${of.accountId}/${nameId ?? ''}/${of.ending}/${action}`;
}

/** The newest row already in force; the oldest one known when the day lies before all of them. */
function newest(rows: readonly Price[] | undefined, day: Day): Price | null {
  return rows?.find((row) => row.from <= day) ?? rows?.at(-1) ?? null;
}
