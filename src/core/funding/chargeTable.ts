import type { Amount } from '../money';
import type { Instant, TermEnd } from '../time';
import type { Charge, FailureCause, Payment } from './charge';

/** Words and causes that many charges share, each kept once. */
class Shared<T> {
  readonly values: T[] = [];
  readonly #codes = new Map<string, number>();
  code(key: string, value: T): number {
    let code = this.#codes.get(key);
    if (code === undefined) {
      code = this.values.push(value) - 1;
      this.#codes.set(key, code);
    }
    return code;
  }
  /** Takes over what another one keeps, by the same codes. */
  takeAll(other: Shared<T>): void {
    for (const [key, code] of other.#codes) this.code(key, other.values[code] as T);
  }
}

const NONE = -1;
const PASSES = 1;
const ASSUMED = 2;
const DAY_ALONE = 4;
const NO_CAUSE = 0;
const SHORT = 1;
/** Causes that are kept by their code begin here. */
const KEPT_CAUSE = 2;

/**
 * Charges of many names in columns: hundreds of thousands of them are made at once and few are looked at. Each name's are linked in
 * order of time; `NaN` stands for a price or balance that is not known. A charge becomes an object where it is asked for.
 */
export class ChargeTable {
  #size = 0;
  /** How many of them belong to no name any more. */
  #unlinked = 0;
  #place: Int32Array;
  #at: Float64Array;
  #years: Uint8Array;
  #cost: Float64Array;
  #currency: Uint8Array;
  #flags: Uint8Array;
  #method: Int16Array;
  #cause: Uint16Array;
  #newEnd: Float64Array;
  #balance: Float64Array;
  #next: Int32Array;
  readonly #first: Int32Array;
  readonly #last: Int32Array;
  readonly #currencies = new Shared<string>();
  readonly #methods = new Shared<string>();
  readonly #causes = new Shared<FailureCause>();

  /** For names at the places below `names`; `expected` charges are made room for. */
  constructor(names: number, expected = names) {
    const room = Math.max(16, expected);
    this.#place = new Int32Array(room);
    this.#at = new Float64Array(room);
    this.#years = new Uint8Array(room);
    this.#cost = new Float64Array(room);
    this.#currency = new Uint8Array(room);
    this.#flags = new Uint8Array(room);
    this.#method = new Int16Array(room);
    this.#cause = new Uint16Array(room);
    this.#newEnd = new Float64Array(room);
    this.#balance = new Float64Array(room);
    this.#next = new Int32Array(room);
    this.#first = new Int32Array(names).fill(NONE);
    this.#last = new Int32Array(names).fill(NONE);
  }

  /**
   * The same charges but for those of the names that are marked 1; more can be added. The columns are copied as they lie: what is left out
   * stays in them unlinked, until there is too much of it.
   */
  without(marked: Uint8Array): ChargeTable {
    const copy = new ChargeTable(this.#first.length, 0);
    copy.#place = this.#place.slice();
    copy.#at = this.#at.slice();
    copy.#years = this.#years.slice();
    copy.#cost = this.#cost.slice();
    copy.#currency = this.#currency.slice();
    copy.#flags = this.#flags.slice();
    copy.#method = this.#method.slice();
    copy.#cause = this.#cause.slice();
    copy.#newEnd = this.#newEnd.slice();
    copy.#balance = this.#balance.slice();
    copy.#next = this.#next.slice();
    copy.#first.set(this.#first);
    copy.#last.set(this.#last);
    copy.#currencies.takeAll(this.#currencies);
    copy.#methods.takeAll(this.#methods);
    copy.#causes.takeAll(this.#causes);
    copy.#size = this.#size;
    copy.#unlinked = this.#unlinked;
    for (let place = 0; place < marked.length; place += 1) {
      if (marked[place] !== 1) continue;
      for (let i = copy.first(place); i >= 0; i = copy.next(i)) copy.#unlinked += 1;
      copy.#first[place] = NONE;
      copy.#last[place] = NONE;
    }
    if (copy.#unlinked > copy.#size / 2) copy.#closeUp();
    return copy;
  }

  /** Moves what is linked together, so that what is not takes no room. */
  #closeUp(): void {
    const columns = [
      this.#at,
      this.#years,
      this.#cost,
      this.#currency,
      this.#flags,
      this.#method,
      this.#cause,
      this.#newEnd,
      this.#balance,
    ];
    const isLinked = new Uint8Array(this.#size);
    for (let place = 0; place < this.#first.length; place += 1)
      for (let i = this.first(place); i >= 0; i = this.next(i)) isLinked[i] = 1;
    this.#first.fill(NONE);
    this.#last.fill(NONE);
    let size = 0;
    for (let i = 0; i < this.#size; i += 1) {
      if (isLinked[i] === 0) continue;
      for (const column of columns) column[size] = column[i] as number;
      const place = this.#place[i] as number;
      this.#place[size] = place;
      this.#link(place, size);
      size += 1;
    }
    this.#size = size;
    this.#unlinked = 0;
  }

  /** Puts a charge behind the last one of its name. */
  #link(place: number, i: number): void {
    this.#next[i] = NONE;
    const before = this.#last[place] as number;
    if (before === NONE) this.#first[place] = i;
    else this.#next[before] = i;
    this.#last[place] = i;
  }

  /** How many charges there are. */
  get size(): number {
    return this.#size - this.#unlinked;
  }

  /** Adds a name's next charge; a name's own come in order of time. Fields one by one, not in an object: so many are made. */
  add(
    place: number,
    at: Instant,
    years: number,
    cost: Amount | null,
    payment: Payment,
    assumed: boolean,
    newEndAt: Instant,
    isDay: boolean,
  ): void {
    const i = this.#size;
    if (i === this.#at.length) this.#grow();
    this.#size += 1;
    this.#place[i] = place;
    this.#at[i] = at;
    this.#years[i] = years;
    this.#cost[i] = cost === null ? Number.NaN : cost.minor;
    if (cost !== null) this.#currency[i] = this.#currencies.code(cost.currency, cost.currency);
    const passes = payment.outcome === 'pass';
    this.#flags[i] = (passes ? PASSES : 0) | (assumed ? ASSUMED : 0) | (isDay ? DAY_ALONE : 0);
    const method = passes ? payment.paymentMethod : null;
    this.#method[i] = method === null ? NONE : this.#methods.code(method, method);
    this.#cause[i] = passes ? NO_CAUSE : this.#causeCode(payment.cause);
    this.#newEnd[i] = newEndAt;
    this.#balance[i] = payment.balanceMinor ?? Number.NaN;
    this.#link(place, i);
  }

  #causeCode(cause: FailureCause): number {
    // What is missing follows from the cost and the balance.
    if (cause.kind === 'balance short') return SHORT;
    const key = cause.kind === 'card ended' ? `${cause.label}\n${cause.endsMonth}` : cause.kind;
    return KEPT_CAUSE + this.#causes.code(key, cause);
  }

  #grow(): void {
    const room = Math.ceil(this.#at.length * 1.6) + 16;
    const grown = <T extends { set(from: T): void }>(from: T, to: T): T => {
      to.set(from);
      return to;
    };
    this.#place = grown(this.#place, new Int32Array(room));
    this.#at = grown(this.#at, new Float64Array(room));
    this.#years = grown(this.#years, new Uint8Array(room));
    this.#cost = grown(this.#cost, new Float64Array(room));
    this.#currency = grown(this.#currency, new Uint8Array(room));
    this.#flags = grown(this.#flags, new Uint8Array(room));
    this.#method = grown(this.#method, new Int16Array(room));
    this.#cause = grown(this.#cause, new Uint16Array(room));
    this.#newEnd = grown(this.#newEnd, new Float64Array(room));
    this.#balance = grown(this.#balance, new Float64Array(room));
    this.#next = grown(this.#next, new Int32Array(room));
  }

  /** The number of a name's first charge, or of the one after `charge`; below nothing where there is none. */
  first(place: number): number {
    return this.#first[place] ?? NONE;
  }
  next(charge: number): number {
    return this.#next[charge] as number;
  }

  at(charge: number): Instant {
    return this.#at[charge] as Instant;
  }
  place(charge: number): number {
    return this.#place[charge] as number;
  }
  passes(charge: number): boolean {
    return ((this.#flags[charge] as number) & PASSES) !== 0;
  }
  /** Minor units; `NaN` when no price is known. */
  costMinor(charge: number): number {
    return this.#cost[charge] as number;
  }
  currency(charge: number): string {
    return this.#currencies.values[this.#currency[charge] as number] as string;
  }
  newEnd(charge: number): TermEnd {
    const isDay = ((this.#flags[charge] as number) & DAY_ALONE) !== 0;
    return { at: this.#newEnd[charge] as Instant, precision: isDay ? 'day' : 'instant' };
  }

  /** One charge in full. */
  charge(i: number): Charge {
    const minor = this.#cost[i] as number;
    const cost = Number.isNaN(minor) ? null : { minor, currency: this.currency(i) };
    const method = this.#method[i] as number;
    const balance = this.#balance[i] as number;
    const cause = this.#cause[i] as number;
    return {
      place: this.#place[i] as number,
      at: this.#at[i] as Instant,
      years: this.#years[i] as number,
      cost,
      outcome: this.passes(i) ? 'pass' : 'fail',
      assumed: ((this.#flags[i] as number) & ASSUMED) !== 0,
      paymentMethod: method === NONE ? null : (this.#methods.values[method] as string),
      cause:
        cause === NO_CAUSE
          ? null
          : cause === SHORT
            ? { kind: 'balance short', missing: { minor: minor - balance, currency: cost?.currency ?? '' } }
            : (this.#causes.values[cause - KEPT_CAUSE] as FailureCause),
      newEnd: this.newEnd(i),
      balanceMinor: Number.isNaN(balance) ? null : balance,
    };
  }

  /** The charges of one name, in order of time. */
  of(place: number): Charge[] {
    const found: Charge[] = [];
    for (let i = this.first(place); i >= 0; i = this.#next[i] as number) found.push(this.charge(i));
    return found;
  }
}
