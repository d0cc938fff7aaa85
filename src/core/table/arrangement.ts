/** Rows of a table by place, in order of place or in another. */
export type Places = Int32Array;

/** Rows in an order that is worked out only as far as it is looked at. */
export interface Arrangement {
  readonly total: number;
  /** The places from one to another in the order, the second not included. */
  slice(from: number, to: number): Places;
}

/** Rows by place, or from the last to the first. Where they come in order there is nothing to be sorted. */
export function byPlace(places: Places, descending: boolean): Arrangement {
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

/** So many are put in order at once at the least: a long list is scrolled. */
const FEW = 512;

/**
 * Places by key, equal keys by place; only those that are asked for are sorted: this must keep up with the hand on a long list. The first
 * few are found by the last key among them, which takes one pass over all.
 */
export function inOrder(places: Places, keys: Float64Array): Arrangement {
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

/** The rank of each code's word among those of some rows: what is the same for all rows that sort alike by a word is ranked once. */
export function ranksOf(codes: ArrayLike<number>, wordOf: (place: number) => string, places: Places): Float64Array {
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
