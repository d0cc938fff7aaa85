import { DAY_MS, type Day, dayOf, type Instant } from './instant';

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

/** `Jan`, by number from 1. */
export function monthName(month: number): string {
  return MONTHS[month - 1] ?? '';
}

/** The last whole day on which something that ends at `mark` still works: the day before the one that holds it. */
export function untilDay(mark: Instant, zone: string): Day {
  const day = dayIn(mark, zone);
  return dayOf((Date.parse(`${day}T00:00:00Z`) - DAY_MS) as Instant);
}
