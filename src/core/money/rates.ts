import type { Day } from '../time';
import { type Amount, amount, currencyDigits, roundHalfAway } from './amount';

/** What one unit of a currency was worth in another from a day on. */
export interface Rate {
  readonly from: Day;
  readonly currency: string;
  readonly into: string;
  /** Units of `into` for one unit of `currency`. */
  readonly factor: number;
}

/** The rates of one list, by pair and in order of their days. */
interface RateIndex {
  readonly pairs: ReadonlyMap<string, readonly Rate[]>;
  readonly currencies: readonly string[];
  /** What was found before, by pair and day. */
  readonly found: Map<string, RateFound | null>;
}

const INDEXES = new WeakMap<readonly Rate[], RateIndex>();

function indexOf(rates: readonly Rate[]): RateIndex {
  const known = INDEXES.get(rates);
  if (known) return known;
  const pairs = new Map<string, Rate[]>();
  for (const rate of rates) {
    const pair = `${rate.currency} ${rate.into}`;
    const list = pairs.get(pair);
    if (list) list.push(rate);
    else pairs.set(pair, [rate]);
  }
  for (const list of pairs.values()) list.sort((a, b) => (a.from < b.from ? -1 : a.from > b.from ? 1 : 0));
  const index = {
    pairs,
    currencies: [...new Set(rates.flatMap(({ currency, into }) => [currency, into]))].sort(),
    found: new Map<string, RateFound | null>(),
  };
  INDEXES.set(rates, index);
  return index;
}

/** The last of a pair's rates up to a day. */
function inForce({ pairs }: RateIndex, one: string, other: string, day: Day): Rate | null {
  const list = pairs.get(`${one} ${other}`) ?? [];
  let low = 0;
  let high = list.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((list[middle] as Rate).from <= day) low = middle + 1;
    else high = middle;
  }
  return list[low - 1] ?? null;
}

/** A rate as it follows from those that are known. */
export interface RateFound {
  readonly factor: number;
  /** The day of the older of the rates it comes from. */
  readonly from: Day;
}

/** By the pair's own rate or its inverse, the later of the two. */
function straight(index: RateIndex, from: string, into: string, day: Day): RateFound | null {
  const direct = inForce(index, from, into, day);
  const inverse = inForce(index, into, from, day);
  if (direct !== null && (inverse === null || direct.from >= inverse.from)) return direct;
  return inverse && { factor: 1 / inverse.factor, from: inverse.from };
}

/** By a third currency in which both are known: the one whose older rate is the latest. */
function across(index: RateIndex, from: string, into: string, day: Day): RateFound | null {
  let best: RateFound | null = null;
  for (const third of index.currencies) {
    const one = straight(index, from, third, day);
    const other = one && straight(index, third, into, day);
    if (!one || !other) continue;
    const [older] = [one.from, other.from].sort() as [Day, Day];
    if (best === null || older > best.from) best = { factor: one.factor * other.factor, from: older };
  }
  return best;
}

/**
 * What one unit of a currency is worth in another on a day, and since when that is known: by the rate in force, its inverse, or two rates
 * over a third currency, as central banks publish them against their own. The latest of these, the pair's own first; `null` where none
 * is known.
 */
export function rateOn(from: string, into: string, rates: readonly Rate[], day: Day): RateFound | null {
  const index = indexOf(rates);
  const asked = `${from} ${into} ${day}`;
  const known = index.found.get(asked);
  if (known !== undefined) return known;
  const own = straight(index, from, into, day);
  const third = across(index, from, into, day);
  const latest = own !== null && (third === null || own.from >= third.from) ? own : third;
  index.found.set(asked, latest);
  return latest;
}

/** What one minor unit of a currency is in minor units of another, by `rateOn`; `null` where no rate is known. */
export function minorFactor(from: string, into: string, rates: readonly Rate[], day: Day): number | null {
  if (from === into) return 1;
  const found = rateOn(from, into, rates, day);
  return found && found.factor * 10 ** (currencyDigits(into) - currencyDigits(from));
}

/** An amount in another currency by the rate in force on a day, or by its inverse, rounded once; `null` where none is known. */
export function convert(money: Amount, into: string, rates: readonly Rate[], day: Day): Amount | null {
  if (money.currency === into) return money;
  const factor = minorFactor(money.currency, into, rates, day);
  return factor === null ? null : amount(roundHalfAway(money.minor * factor), into);
}

/** The sum of amounts in one currency; `null` when one of them has no rate. */
export function sumIn(money: readonly Amount[], into: string, rates: readonly Rate[], day: Day): Amount | null {
  let sum = 0;
  for (const one of money) {
    const converted = convert(one, into, rates, day);
    if (converted === null) return null;
    sum += converted.minor;
  }
  return amount(sum, into);
}
