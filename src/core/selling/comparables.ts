import type { Amount } from '../money';
import type { Day } from '../time';

/** A sale that was made: one's own, or one that was told. */
export interface PastSale {
  readonly ascii: string;
  readonly price: Amount;
  readonly day: Day;
  readonly marketplace: string;
  readonly own: boolean;
}

/** What makes two names alike for a buyer. */
export interface NameTraits {
  readonly ending: string;
  readonly length: number;
  readonly digits: number;
  readonly hyphens: number;
  readonly label: string;
}

/** The traits of a name in A-labels. Only the label that was registered counts. */
export function traitsOf(ascii: string): NameTraits {
  const dot = ascii.indexOf('.');
  const label = ascii.slice(0, dot);
  return {
    label,
    ending: ascii.slice(dot + 1),
    length: label.length,
    digits: label.replace(/\D/g, '').length,
    hyphens: label.split('-').length - 1,
  };
}

const LEAST_WORD = 4;

/** The longest run of letters that two labels share at the beginning or end of either, where words stand; '' below four letters. */
export function sharedWord(one: string, other: string): string {
  let longest = '';
  for (const word of affixes(one))
    if (word.length > longest.length && affixes(other).has(word) && /^[a-z]+$/.test(word)) longest = word;
  return longest;
}

function affixes(label: string): Set<string> {
  const found = new Set<string>();
  for (const part of label.split(/[^a-z]+/))
    for (let length = LEAST_WORD; length <= part.length; length += 1) {
      found.add(part.slice(0, length));
      found.add(part.slice(-length));
    }
  return found;
}

/** How alike two names are: 0 (nothing in common) to 10. */
export function likeness(one: NameTraits, other: NameTraits): number {
  const ending = one.ending === other.ending ? 3 : 0;
  const length = Math.max(0, 3 - Math.abs(one.length - other.length));
  const digits = one.digits > 0 === other.digits > 0 ? 1 : 0;
  const hyphens = one.hyphens > 0 === other.hyphens > 0 ? 1 : 0;
  return ending + length + digits + hyphens + (sharedWord(one.label, other.label) === '' ? 0 : 2);
}

/** What past sales say of a name's price. */
export interface Comparison {
  /** The likest first, of one currency. */
  readonly sales: readonly PastSale[];
  readonly lowerMinor: number;
  readonly medianMinor: number;
  readonly upperMinor: number;
  readonly currency: string;
}

const LEAST_LIKENESS = 6;
const MOST_SALES = 12;

/** The traits of past sales, which every name is compared by. */
const traitsKnown = new WeakMap<PastSale, NameTraits>();

function traitsOfSale(sale: PastSale): NameTraits {
  let traits = traitsKnown.get(sale);
  if (!traits) {
    traits = traitsOf(sale.ascii);
    traitsKnown.set(sale, traits);
  }
  return traits;
}

/** Median and quartiles of the sales most like a name, in one currency; `null` when none is like it. */
export function compareSales(ascii: string, sales: readonly PastSale[], currency: string): Comparison | null {
  const own = traitsOf(ascii);
  const like = sales
    .filter((sale) => sale.price.currency === currency && sale.ascii !== ascii)
    .map((sale) => ({ sale, likeness: likeness(own, traitsOfSale(sale)) }))
    .filter((one) => one.likeness >= LEAST_LIKENESS)
    .sort((a, b) => b.likeness - a.likeness || newestFirst(a.sale, b.sale))
    .slice(0, MOST_SALES)
    .map(({ sale }) => sale);
  if (like.length === 0) return null;
  const prices = like.map(({ price }) => price.minor);
  return {
    sales: like,
    currency,
    lowerMinor: Math.round(quantile(prices, 0.25)),
    medianMinor: Math.round(quantile(prices, 0.5)),
    upperMinor: Math.round(quantile(prices, 0.75)),
  };
}

/** Newest first; sales of one day in an order of their own, so that what is picked does not depend on how they came. */
function newestFirst(a: PastSale, b: PastSale): number {
  const by = (one: string, other: string) => (one < other ? -1 : one > other ? 1 : 0);
  return (
    by(b.day, a.day) ||
    by(a.ascii, b.ascii) ||
    a.price.minor - b.price.minor ||
    by(a.marketplace, b.marketplace) ||
    +b.own - +a.own
  );
}

/** A quantile by linear interpolation between the order statistics (Hyndman and Fan 1996, definition 7). `share` is 0 to 1. */
export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  const place = (sorted.length - 1) * share;
  const below = sorted[Math.floor(place)] ?? 0;
  const above = sorted[Math.ceil(place)] ?? below;
  return below + (above - below) * (place - Math.floor(place));
}
