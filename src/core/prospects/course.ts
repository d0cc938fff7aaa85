import { HORIZON_MONTHS, type MonthScale } from './months';
import type { OfferBook } from './offerBook';
import type { Schedule } from './schedule';

/**
 * One way of going on: which charges of each name are paid, until when it is held, and what it is offered for. Strategies only choose
 * among the charges of a schedule: whoever drops a name pays none of its later ones.
 */
export interface Course {
  readonly label: string;
  readonly schedule: Schedule;
  /** The end, not included, of the charges that are paid for each name of the ledger: an index of the schedule. */
  readonly paid: Int32Array;
  /** Of each name of the book, minor units of the home currency. */
  readonly asking: Float64Array;
  /** How many times as often each name of the book sells as λ and its factor say; `null` for once. */
  readonly pace: Float64Array | null;
}

/** A course that pays all of a schedule. */
export function wholeCourse(label: string, schedule: Schedule, book: OfferBook): Course {
  return { label, schedule, paid: schedule.first.slice(1), asking: book.asking, pace: null };
}

/** Where in months a name of the ledger ends on a course, at the horizon at the latest; 0 where nobody has said when its term ends. */
export function heldUntil({ schedule, paid }: Course, place: number, { start }: MonthScale): number {
  const last = paid[place] as number;
  const end =
    last > (schedule.first[place] as number)
      ? (schedule.endAt[last - 1] as number)
      : (schedule.paidTo[place] as number);
  return Number.isNaN(end) ? start : Math.min(HORIZON_MONTHS, Math.max(start, end));
}

/** What a course costs in each month if nothing sells, minor units. */
export function certainCosts({ schedule, paid }: Course): Float64Array {
  const costs = new Float64Array(HORIZON_MONTHS);
  const { first, month, minor } = schedule;
  for (let place = 0; place < paid.length; place += 1)
    for (let i = first[place] as number; i < (paid[place] as number); i += 1) {
      const at = month[i] as number;
      costs[at] = (costs[at] as number) + (minor[i] as number);
    }
  return costs;
}
