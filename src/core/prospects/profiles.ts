import type { Course } from './course';
import { HORIZON_MONTHS } from './months';
import type { OfferBook } from './offerBook';

/**
 * Names of the book that are charged in the same months at the same costs have one profile: what they would still have been charged once they
 * are sold is tallied by profile, and paid back once for each path, however many were sold.
 */
export interface Profiles {
  /** The profile of each name of the book. */
  readonly of: Int32Array;
  /** The first charge of each profile in the columns below, and one more behind the last. */
  readonly first: Int32Array;
  readonly month: Int16Array;
  readonly minor: Float64Array;
  /** By profile and month: the first charge that is not paid where a sale comes in that month. The charge of that month is paid before it. */
  readonly unpaid: Int32Array;
}

export function profilesOf({ schedule, paid }: Course, { places }: OfferBook): Profiles {
  const known = new Map<string, number>();
  const of = new Int32Array(places.length);
  const first: number[] = [0];
  const [months, minors]: [number[], number[]] = [[], []];
  for (let name = 0; name < places.length; name += 1) {
    const place = places[name] as number;
    const [from, to] = [schedule.first[place] as number, paid[place] as number];
    const key = `${schedule.month.subarray(from, to).join()};${schedule.minor.subarray(from, to).join()}`;
    let profile = known.get(key);
    if (profile === undefined) {
      profile = known.size;
      known.set(key, profile);
      months.push(...schedule.month.subarray(from, to));
      minors.push(...schedule.minor.subarray(from, to));
      first.push(months.length);
    }
    of[name] = profile;
  }
  const unpaid = new Int32Array(known.size * HORIZON_MONTHS);
  for (let profile = 0; profile < known.size; profile += 1) {
    let charge = first[profile] as number;
    for (let month = 0; month < HORIZON_MONTHS; month += 1) {
      while (charge < (first[profile + 1] as number) && (months[charge] as number) <= month) charge += 1;
      unpaid[profile * HORIZON_MONTHS + month] = charge;
    }
  }
  return {
    of,
    first: Int32Array.from(first),
    month: Int16Array.from(months),
    minor: Float64Array.from(minors),
    unpaid,
  };
}

/** How many names of each profile were sold before which of its charges, on one path. */
export class UnpaidTally {
  readonly #profiles: Profiles;
  /** By charge, and one more for what was sold behind the last. */
  readonly #sold: Int32Array;
  readonly #touched: Int32Array;
  readonly #isTouched: Uint8Array;
  #count = 0;

  constructor(profiles: Profiles) {
    this.#profiles = profiles;
    this.#sold = new Int32Array(profiles.month.length + 1);
    this.#touched = new Int32Array(profiles.first.length);
    this.#isTouched = new Uint8Array(profiles.first.length);
  }

  /** A name was sold in a month: its later charges will not be paid. */
  sell(name: number, month: number): void {
    const { of, first, unpaid } = this.#profiles;
    const profile = of[name] as number;
    const charge = unpaid[profile * HORIZON_MONTHS + month] as number;
    if (charge === first[profile + 1]) return;
    this.#sold[charge] = (this.#sold[charge] as number) + 1;
    if (this.#isTouched[profile] === 1) return;
    this.#isTouched[profile] = 1;
    this.#touched[this.#count] = profile;
    this.#count += 1;
  }

  /** Adds what was not paid to the cash of each month, and forgets what was sold. */
  payBack(cash: Float64Array): void {
    const { first, month, minor } = this.#profiles;
    for (let t = 0; t < this.#count; t += 1) {
      const profile = this.#touched[t] as number;
      this.#isTouched[profile] = 0;
      let sold = 0;
      for (let i = first[profile] as number; i < (first[profile + 1] as number); i += 1) {
        sold += this.#sold[i] as number;
        this.#sold[i] = 0;
        const at = month[i] as number;
        cash[at] = (cash[at] as number) + sold * (minor[i] as number);
      }
    }
    this.#count = 0;
  }
}
