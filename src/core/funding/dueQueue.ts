import type { Instant } from '../time';

const NONE = -1;

/**
 * What is due next, by instant, then by index. Each index stands in it once at the most. What is put back a year later mostly comes behind
 * everything that was put back before, so it only joins the end of a line; what does not goes into a heap beside it.
 */
export class DueQueue {
  readonly #at: Float64Array;
  /** What stands in line in order: first what it began with, then what was put back. */
  readonly #line: Int32Array;
  readonly #again: Int32Array;
  readonly #heap: Int32Array;
  #lineAt = 0;
  #againFrom = 0;
  #againTo = 0;
  #heapSize = 0;
  #first = NONE;

  /** `at` by index, `NaN` for what is not due at all. */
  constructor(at: Float64Array) {
    this.#at = at;
    this.#line = inOrder(at);
    this.#again = new Int32Array(at.length);
    this.#heap = new Int32Array(at.length);
    this.#take();
  }

  at(index: number): Instant {
    return this.#at[index] as Instant;
  }

  /** The index that is due first; below nothing when none is left. */
  get first(): number {
    return this.#first;
  }

  /** Takes out what is due first; with `at` it is put back, to be due then. */
  pass(at: Instant | null): void {
    const index = this.#first;
    if (at !== null) {
      this.#at[index] = at;
      const size = this.#at.length;
      const last = this.#again[(this.#againTo + size - 1) % size] as number;
      if (this.#againFrom === this.#againTo || this.#isBefore(last, index)) {
        this.#again[this.#againTo % size] = index;
        this.#againTo += 1;
      } else this.#push(index);
    }
    this.#take();
  }

  /** Chooses the first of the three that begin the lines and the heap. */
  #take(): void {
    const line = this.#lineAt < this.#line.length ? (this.#line[this.#lineAt] as number) : NONE;
    const again = this.#againFrom < this.#againTo ? (this.#again[this.#againFrom % this.#at.length] as number) : NONE;
    const heap = this.#heapSize > 0 ? (this.#heap[0] as number) : NONE;
    const first = this.#sooner(this.#sooner(line, again), heap);
    this.#first = first;
    if (first === NONE) return;
    if (first === line) this.#lineAt += 1;
    else if (first === again) this.#againFrom += 1;
    else this.#pop();
  }

  #sooner(a: number, b: number): number {
    if (a === NONE || b === NONE) return Math.max(a, b);
    return this.#isBefore(a, b) ? a : b;
  }

  #isBefore(a: number, b: number): boolean {
    const [atA, atB] = [this.#at[a] as number, this.#at[b] as number];
    return atA < atB || (atA === atB && a < b);
  }

  #push(index: number): void {
    let place = this.#heapSize;
    this.#heapSize += 1;
    while (place > 0) {
      const parent = (place - 1) >> 1;
      const above = this.#heap[parent] as number;
      if (this.#isBefore(above, index)) break;
      this.#heap[place] = above;
      place = parent;
    }
    this.#heap[place] = index;
  }

  #pop(): void {
    this.#heapSize -= 1;
    const index = this.#heap[this.#heapSize] as number;
    let place = 0;
    for (;;) {
      let child = 2 * place + 1;
      if (child >= this.#heapSize) break;
      if (child + 1 < this.#heapSize && this.#isBefore(this.#heap[child + 1] as number, this.#heap[child] as number))
        child += 1;
      if (this.#isBefore(index, this.#heap[child] as number)) break;
      this.#heap[place] = this.#heap[child] as number;
      place = child;
    }
    this.#heap[place] = index;
  }
}

/** The indices of what is due, by instant, then by index. */
function inOrder(at: Float64Array): Int32Array {
  let [least, most, count] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY, 0];
  for (const one of at) {
    if (Number.isNaN(one)) continue;
    count += 1;
    if (one < least) least = one;
    if (one > most) most = one;
  }
  const span = at.length;
  const due = new Float64Array(count);
  let n = 0;
  // Instant and index in one number, since numbers are sorted many times quicker without a comparison function.
  const fits = (most - least + 1) * span < Number.MAX_SAFE_INTEGER;
  for (let i = 0; i < span; i += 1) {
    if (Number.isNaN(at[i])) continue;
    due[n] = fits ? ((at[i] as number) - least) * span + i : i;
    n += 1;
  }
  if (!fits) return Int32Array.from(due.sort((a, b) => (at[a] as number) - (at[b] as number) || a - b));
  return Int32Array.from(due.sort(), (value) => value % span);
}
