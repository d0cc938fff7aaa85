import { parseDate } from '@internationalized/date';
import { DAY_MS, type Day, dayOf, type Instant, startOfDay } from './instant';
import type { Month } from './readMonth';
import type { TermEnd } from './termEnd';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'] as const;
const formatters = new Map<string, Intl.DateTimeFormat>();

/** The calendar day an instant falls on in an IANA time zone. */
export function dayIn(at: Instant, zone: string): Day {
  if (zone === 'UTC') return dayOf(at);
  let formatter = formatters.get(zone);
  if (!formatter) {
    formatter = new Intl.DateTimeFormat('en-CA', {
      timeZone: zone,
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
    });
    formatters.set(zone, formatter);
  }
  return formatter.format(at) as Day;
}

/** `3 Jan 2027`; without the year when it is the year of `besides`. */
export function formatDay(day: Day, besides?: Day): string {
  const year = day.slice(0, 4);
  const short = `${Number(day.slice(8, 10))} ${MONTHS[Number(day.slice(5, 7)) - 1]}`;
  return besides?.startsWith(year) ? short : `${short} ${year}`;
}

/** The calendar month of an instant, in UTC. */
export function monthOf(at: Instant): Month {
  return new Date(at).toISOString().slice(0, 7) as Month;
}

/** `Feb 2027`. Takes a month as `readMonth` answers it. */
export function formatMonth(month: Month): string {
  return `${MONTHS[Number(month.slice(5, 7)) - 1]} ${month.slice(0, 4)}`;
}

/** `Jan`, by number from 1. */
export function monthName(month: number): string {
  return MONTHS[month - 1] ?? '';
}

/** The day on which a term ends: as it was given where only a date is known, else the day of that instant in the zone. */
export function endDay(end: TermEnd, zone: string): Day {
  return end.precision === 'day' ? dayOf(end.at) : dayIn(end.at, zone);
}

/** Calendar days from the day of `asOf` in a zone to `day`: 0 is today, -1 yesterday. Hours that a clock change adds or takes do not count. */
export function daysUntil(day: Day, asOf: Instant, zone: string): number {
  return Math.round((startOfDay(day) - startOfDay(dayIn(asOf, zone))) / DAY_MS);
}

/** The instant at which a day is over in a zone: the midnight behind it, daylight saving taken into account. */
export function endOfDay(day: Day, zone: string): Instant {
  return parseDate(day).add({ days: 1 }).toDate(zone).getTime() as Instant;
}

/** The instant at which the calendar month of a day begins in a zone, daylight saving taken into account. */
export function startOfMonth(day: Day, zone: string): Instant {
  return parseDate(`${day.slice(0, 8)}01`)
    .toDate(zone)
    .getTime() as Instant;
}

/** The last whole day on which something that ends at `mark` still works: the day before the one that holds it. */
export function untilDay(mark: Instant, zone: string): Day {
  const day = dayIn(mark, zone);
  return dayOf((Date.parse(`${day}T00:00:00Z`) - DAY_MS) as Instant);
}
