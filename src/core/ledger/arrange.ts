import { AUTO_RENEW_SETTINGS } from '../funding';
import { PHASES } from '../lifecycle';
import { addDays, dayOf, endOfDay, type Instant } from '../time';
import { flagReader } from './columns';
import type { LedgerDay } from './ledgerDay';
import type { LedgerView, SortKey } from './view';

/** Names of a ledger by place, in order of place or in another. */
export type Places = Int32Array;

/** Where ends stand among others as they are shown in a zone: a date alone begins that day there. */
function shownIn(zone: string): (at: number, isDay: number) => number {
  if (zone === 'UTC') return (at) => at;
  const known = new Map<number, number>();
  return (at, isDay) => {
    if (isDay === 0 || Number.isNaN(at)) return at;
    let shown = known.get(at);
    if (shown === undefined) {
      shown = endOfDay(dayOf(addDays(at as Instant, -1)), zone);
      known.set(at, shown);
    }
    return shown;
  };
}

type WordKey = 'account' | 'ending' | 'auto' | 'phase';
type NumberKey = Exclude<SortKey, 'name' | WordKey>;
/** A key whose values are words. */
const isWord = (sort: SortKey): sort is WordKey =>
  sort === 'account' || sort === 'ending' || sort === 'auto' || sort === 'phase';

/** The number that a name is sorted by, by place; not finite where it is not known. Money sorts within its currency. */
function numbersFor(key: NumberKey, ledger: LedgerDay): (place: number) => number {
  const { names, index } = ledger.projection;
  const { columns } = names;
  const shown = shownIn(index.rules.zone);
  const [endDay, registeredDay] = [flagReader('termEndDay'), flagReader('registeredDay')];
  const flags = (place: number) => columns.flags[place] as number;
  switch (key) {
    case 'deadline':
      return (place) => ledger.deadlineAt[place] as number;
    case 'termEnd':
      return (place) => shown(ledger.termEnd[place] as number, endDay(flags(place)));
    case 'registered':
      return (place) => shown(columns.registered[place] as number, registeredDay(flags(place)));
    case 'checked':
      return (place) => columns.checkedAt[place] as number;
    case 'cost':
      return (place) => ledger.before(place)?.minor ?? Number.NaN;
    case 'perYear':
      return (place) => ledger.costs(place).perYear?.minor ?? Number.NaN;
    case 'asking':
      return (place) => columns.asking[place] as number;
    case 'spent':
      return (place) => {
        const [from, to] = names.spentLines(place);
        return from < to ? (columns.spent.minor[from] as number) : Number.NaN;
      };
  }
}

/** The word that a name is sorted by, by place. */
function wordsFor(key: WordKey, ledger: LedgerDay): (place: number) => string {
  const { names, index } = ledger.projection;
  switch (key) {
    case 'account':
      return (place) => index.accounts.get(names.accountId(place))?.label ?? '';
    case 'ending':
      return (place) => names.ending(place);
    case 'auto':
      return (place) => AUTO_RENEW_SETTINGS[ledger.setting[place] as number] as string;
    case 'phase':
      return (place) => PHASES[(ledger.phase[place] as number) - 1] ?? '';
  }
}

/** What is the same for all names that sort alike by a word: so many of them are few, and are ranked once. */
function codesFor(key: WordKey, ledger: LedgerDay): ArrayLike<number> {
  const { columns } = ledger.projection.names;
  return key === 'account'
    ? columns.accountId
    : key === 'ending'
      ? columns.ending
      : key === 'auto'
        ? ledger.setting
        : ledger.phase;
}

/** Where a name stands in an order: what it is sorted by there (`null` where that is not known, last either way), then its A-label. */
export type SortedAt = readonly [key: number | string | null, ascii: string];

/** What tells where names stand in the order of a view: the same order as `arrange` makes, kept in words that outlive the ledger. */
export function sortedAt(ledger: LedgerDay, { sort }: Pick<LedgerView, 'sort'>): (place: number) => SortedAt {
  const { names } = ledger.projection;
  if (sort === 'name') return (place) => [null, names.ascii(place)];
  if (isWord(sort)) {
    const word = wordsFor(sort, ledger);
    return (place) => [word(place), names.ascii(place)];
  }
  const number = numbersFor(sort, ledger);
  return (place) => {
    const value = number(place);
    return [Number.isFinite(value) ? value : null, names.ascii(place)];
  };
}

/**
 * Where the first name behind `at` stands among places in the order of the view. A page that goes on from there neither skips nor
 * repeats a name that has kept its own place, whatever became of the name it ended with.
 */
export function placeBehind(
  places: Places,
  at: SortedAt,
  { sort, descending }: Pick<LedgerView, 'sort' | 'descending'>,
  of: (place: number) => SortedAt,
): number {
  const sign = descending ? -1 : 1;
  const isBehind = ([key, ascii]: SortedAt) => {
    if (sort !== 'name' && key !== at[0]) {
      if (key === null || at[0] === null) return key === null;
      return sign * (key > at[0] ? 1 : -1) > 0;
    }
    return sort === 'name' ? sign * (ascii > at[1] ? 1 : ascii < at[1] ? -1 : 0) > 0 : ascii > at[1];
  };
  let [low, high] = [0, places.length];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (isBehind(of(places[middle] as number))) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Names in an order that is worked out only as far as it is looked at. */
export interface Arrangement {
  readonly total: number;
  /** The places from one to another in the order, the second not included. */
  slice(from: number, to: number): Places;
}

/**
 * Names in the order of the view's key, then by name, so that the order never depends on what came in. Names stand in a
 * ledger in the order of their A-labels, so a name's place is its rank by name.
 */
export function arrange(
  ledger: LedgerDay,
  places: Places,
  { sort, descending }: Pick<LedgerView, 'sort' | 'descending'>,
): Arrangement {
  if (sort === 'name') return byName(places, descending);
  const sign = descending ? -1 : 1;
  const keys = new Float64Array(places.length);
  if (isWord(sort)) {
    const codes = codesFor(sort, ledger);
    const rank = ranks(codes, wordsFor(sort, ledger), places);
    for (let i = 0; i < places.length; i += 1) keys[i] = sign * (rank[codes[places[i] as number] as number] as number);
  } else {
    const number = numbersFor(sort, ledger);
    for (let i = 0; i < places.length; i += 1) {
      const value = number(places[i] as number);
      keys[i] = Number.isFinite(value) ? sign * value : Number.POSITIVE_INFINITY;
    }
  }
  return inOrder(places, keys);
}

/** Places by name. Where they come in order there is nothing to be sorted. */
function byName(places: Places, descending: boolean): Arrangement {
  const rising = isRising(places) ? places : places.slice().sort();
  const total = places.length;
  return {
    total,
    slice(from, to) {
      const end = Math.max(from, Math.min(to, total));
      return descending ? rising.slice(total - end, total - from).reverse() : rising.slice(from, end);
    },
  };
}

/** All of them in order. See `arrange`. */
export function arranged(ledger: LedgerDay, places: Places, view: Pick<LedgerView, 'sort' | 'descending'>): Places {
  return arrange(ledger, places, view).slice(0, places.length);
}

/** So many are put in order at once at the least: a long list is scrolled. */
const FEW = 512;

/**
 * Places by key, equal keys by place; only those that are asked for are sorted: this must keep up with the hand on a long list. The first
 * few are found by the last key among them, which takes one pass over all.
 */
function inOrder(places: Places, keys: Float64Array): Arrangement {
  let settled: Places = new Int32Array(0);
  const settle = (to: number) => {
    if (to <= settled.length) return;
    const count = Math.max(to, 2 * settled.length, FEW);
    settled = count < places.length / 4 ? first(places, keys, count) : inFull(places, keys);
  };
  return {
    total: places.length,
    slice(from, to) {
      settle(Math.min(to, places.length));
      return settled.slice(from, Math.max(from, to));
    },
  };
}

/** The first `count` places in order. */
function first(places: Places, keys: Float64Array, count: number): Places {
  const last = greatestOfLeast(keys, count);
  // Where places come in order, no more of those that share the last key are needed than are asked for.
  const isOrdered = isRising(places);
  const before: number[] = [];
  const equal: number[] = [];
  for (let i = 0; i < keys.length; i += 1) {
    if ((keys[i] as number) < last) before.push(i);
    else if (keys[i] === last && (!isOrdered || equal.length < count)) equal.push(places[i] as number);
  }
  const byKey = (a: number, b: number) =>
    (keys[a] as number) - (keys[b] as number) || (places[a] as number) - (places[b] as number);
  const found = new Int32Array(count);
  for (const [n, i] of before.sort(byKey).entries()) found[n] = places[i] as number;
  // Of those that share the last key, the first by name.
  const rest = Int32Array.from(equal).sort();
  found.set(rest.subarray(0, count - before.length), before.length);
  return found;
}

/**
 * All places in order. The rank of a key and the place are packed into one number, since sorting numbers without a comparison function is
 * many times faster. Exact for up to 94 million names (the root of 2^53); more are refused.
 */
function inFull(places: Places, keys: Float64Array): Places {
  let span = 1;
  for (let i = 0; i < places.length; i += 1) span = Math.max(span, (places[i] as number) + 1);
  if ((places.length + 1) * span >= Number.MAX_SAFE_INTEGER) throw new RangeError('too many names to be put in order');
  const sorted = keys.slice().sort();
  const packed = new Float64Array(places.length);
  for (let i = 0; i < places.length; i += 1)
    packed[i] = firstAt(sorted, keys[i] as number) * span + (places[i] as number);
  packed.sort();
  return Int32Array.from(packed, (value) => value - Math.floor(value / span) * span);
}

/** The greatest of the `count` least keys, one at least: the root of a heap that keeps them. */
function greatestOfLeast(keys: Float64Array, count: number): number {
  // What falls is a heap already.
  const heap = keys.slice(0, count).sort().reverse();
  for (let i = count; i < keys.length; i += 1)
    if ((keys[i] as number) < (heap[0] as number)) sink(heap, keys[i] as number);
  return heap[0] as number;
}

/** Puts a value in place of a heap's root, and down to where it belongs. */
function sink(heap: Float64Array, value: number): void {
  let at = 0;
  for (;;) {
    let child = 2 * at + 1;
    if (child + 1 < heap.length && (heap[child + 1] as number) > (heap[child] as number)) child += 1;
    if (child >= heap.length || (heap[child] as number) <= value) break;
    heap[at] = heap[child] as number;
    at = child;
  }
  heap[at] = value;
}

function isRising(places: Places): boolean {
  for (let i = 1; i < places.length; i += 1) if ((places[i] as number) <= (places[i - 1] as number)) return false;
  return true;
}

/** Where `value` first stands in a sorted list. */
function firstAt(sorted: Float64Array, value: number): number {
  let low = 0;
  let high = sorted.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if ((sorted[middle] as number) < value) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The rank of each number's word among those of some names. */
function ranks(codes: ArrayLike<number>, wordOf: (place: number) => string, places: Places): Float64Array {
  const words = new Map<number, string>();
  let most = 0;
  for (let i = 0; i < places.length; i += 1) {
    const place = places[i] as number;
    const code = codes[place] as number;
    if (words.has(code)) continue;
    words.set(code, wordOf(place));
    most = Math.max(most, code);
  }
  const order = [...new Set(words.values())].sort();
  const rank = new Float64Array(most + 1);
  for (const [code, word] of words) rank[code] = order.indexOf(word);
  return rank;
}
