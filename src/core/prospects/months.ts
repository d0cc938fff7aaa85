import { addDays, type Instant, type Month, monthOf } from '../time';

/** As far as anything is played forward, in calendar months and years. */
export const HORIZON_MONTHS = 120;

/** Calendar months in UTC from the one that `asOf` lies in, which is month 0. */
export interface MonthScale {
  /** The beginning of each month, and of the one behind the last. */
  readonly starts: Float64Array;
  /** Where `asOf` stands in month 0: 0 on its first instant, just below 1 on its last. */
  readonly start: number;
}

export function monthScale(asOf: Instant): MonthScale {
  const date = new Date(asOf);
  const starts = Float64Array.from({ length: HORIZON_MONTHS + 1 }, (_, month) =>
    Date.UTC(date.getUTCFullYear(), date.getUTCMonth() + month, 1),
  );
  return { starts, start: placeInMonths(starts, asOf) };
}

/** The end of the last month. */
export const horizonOf = ({ starts }: MonthScale) => starts[HORIZON_MONTHS] as Instant;

const MONTH_MS = 30.436875 * 86_400_000;

/** The number of the month that an instant lies in; below 0 before the first, `HORIZON_MONTHS` from the end on. */
export function monthAt({ starts }: Pick<MonthScale, 'starts'>, at: number): number {
  const first = starts[0] as number;
  if (at < first) return -1;
  if (at >= (starts[HORIZON_MONTHS] as number)) return HORIZON_MONTHS;
  let month = Math.min(HORIZON_MONTHS - 1, Math.floor((at - first) / MONTH_MS));
  while (at < (starts[month] as number)) month -= 1;
  while (at >= (starts[month + 1] as number)) month += 1;
  return month;
}

function placeInMonths(starts: Float64Array, at: number): number {
  const month = monthAt({ starts }, at);
  if (month < 0) return 0;
  if (month === HORIZON_MONTHS) return HORIZON_MONTHS;
  const from = starts[month] as number;
  return month + (at - from) / ((starts[month + 1] as number) - from);
}

/** Where an instant stands in months: 2.5 is the middle of month 2. Not below 0, nor above `HORIZON_MONTHS`. */
export const monthPlace = ({ starts }: MonthScale, at: number) => placeInMonths(starts, at);

/** Each month by its name, `YYYY-MM`. */
export function monthNames({ starts }: MonthScale): Month[] {
  return Array.from(starts.subarray(0, HORIZON_MONTHS), (at) => monthOf(addDays(at as Instant, 0)));
}
