import type { Instant } from '../time';

/** What is due next, by instant, then by index: a binary heap of indices, each of which stands in it once at the most. */
export class DueQueue {
  readonly #heap: Int32Array;
  readonly #at: Float64Array;
  #size = 0;

  constructor(names: number) {
    this.#heap = new Int32Array(names);
    this.#at = new Float64Array(names);
  }

  at(index: number): Instant {
    return this.#at[index] as Instant;
  }

  /** The index that is due first, which stays in the queue; below nothing when it is empty. */
  next(): number {
    return this.#size === 0 ? -1 : (this.#heap[0] as number);
  }

  push(index: number, at: Instant): void {
    this.#at[index] = at;
    let place = this.#size;
    this.#size += 1;
    while (place > 0) {
      const parent = (place - 1) >> 1;
      const above = this.#heap[parent] as number;
      if (this.#isBefore(above, index)) break;
      this.#heap[place] = above;
      place = parent;
    }
    this.#heap[place] = index;
  }

  /** Takes out what is due first. */
  drop(): void {
    this.#size -= 1;
    if (this.#size > 0) this.#sink(this.#heap[this.#size] as number);
  }

  /** Puts what is due first back, to be due at another instant. */
  putBack(at: Instant): void {
    const index = this.#heap[0] as number;
    this.#at[index] = at;
    this.#sink(index);
  }

  /** Finds the place of an index from the top down. */
  #sink(index: number): void {
    let place = 0;
    for (;;) {
      let child = 2 * place + 1;
      if (child >= this.#size) break;
      if (child + 1 < this.#size && this.#isBefore(this.#heap[child + 1] as number, this.#heap[child] as number))
        child += 1;
      if (this.#isBefore(index, this.#heap[child] as number)) break;
      this.#heap[place] = this.#heap[child] as number;
      place = child;
    }
    this.#heap[place] = index;
  }

  #isBefore(a: number, b: number): boolean {
    const [atA, atB] = [this.#at[a] as number, this.#at[b] as number];
    return atA < atB || (atA === atB && a < b);
  }
}
