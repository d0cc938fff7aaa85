import { LedgerDay, type Projection, todayOf } from '@/core/ledger';
import type { Instant } from '@/core/time';

/**
 * The ledger on the later day that is looked at: kept, since filters and sorting do not change it. Of 250,000 names a day takes megabytes, so
 * the memory of the one before is used again.
 */
export class DaysAhead {
  #now: LedgerDay | null = null;
  /** Read before it is asked for. */
  #next: LedgerDay | null = null;
  /** Nobody looks at it any more, unless its rows are still on screen. */
  #passed: LedgerDay | null = null;
  #stepMs = 0;
  #isEven = false;

  /** The ledger on a day after today. `shown`: the day whose rows are on screen. */
  on(ledger: Projection, day: Instant, shown: LedgerDay | null): LedgerDay {
    const before = this.#now;
    const same = wanted(before, ledger, day);
    if (same) return same;
    const foreseen = wanted(this.#next, ledger, day);
    const isKnown = before && [ledger.key, ledger.since?.key].includes(before.projection.key);
    const now = foreseen ?? new LedgerDay(ledger, day, isKnown ? before : todayOf(ledger), this.#spare(shown));
    this.#now = now;
    // Not of an earlier ledger, which would be kept with it.
    const isSame = before?.projection === ledger;
    this.#passed = isSame ? before : null;
    if (foreseen || !isSame) this.#next = null;
    const stepMs = isSame ? day - before.day : before ? 0 : day - ledger.asOf;
    this.#isEven = stepMs !== 0 && (!before || stepMs === this.#stepMs);
    this.#stepMs = stepMs;
    return now;
  }

  /** Reads a day that is likely to be the first that is asked for. */
  prepare(ledger: Projection, day: Instant): LedgerDay {
    this.#next = new LedgerDay(ledger, day, todayOf(ledger), this.#next);
    return this.#next;
  }

  /**
   * Reads the day that comes next where the date has moved for the first time, or by the same step twice, as it does under a key that is held
   * down: it can be shown at once then. For the time in which the page draws what it was just answered. Answers `null` where nothing is foreseen.
   */
  foresee(shown: LedgerDay): LedgerDay | null {
    const now = this.#now;
    if (!now || !this.#isEven || now !== shown) return null;
    const day = (now.day + this.#stepMs) as Instant;
    if (day <= now.projection.asOf) return null;
    if (!wanted(this.#next, now.projection, day))
      this.#next = new LedgerDay(now.projection, day, now, this.#next ?? this.#spare(shown));
    return this.#next;
  }

  #spare(shown: LedgerDay | null): LedgerDay | null {
    const spare = this.#passed === shown ? null : this.#passed;
    this.#passed = null;
    return spare;
  }
}

/** The day that is kept, where it is the wanted one. */
const wanted = (one: LedgerDay | null, ledger: Projection, day: Instant): LedgerDay | null =>
  one?.projection === ledger && one.day === day ? one : null;
