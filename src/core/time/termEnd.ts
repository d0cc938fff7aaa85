import {
  addYears,
  type Day,
  dayOf,
  formatInstant,
  HOUR_MS,
  type Instant,
  parseDay,
  parseInstant,
  startOfDay,
} from './instant';

/**
 * When a paid term ends. A source that gives only a date is kept as 00:00 UTC of it with precision `day`, and means
 * the interval in which it is that date somewhere on earth (UTC+14 to UTC-12).
 */
export interface TermEnd {
  readonly at: Instant;
  readonly precision: 'instant' | 'day';
}

/** The earliest instant the term may end: what deadlines count from. */
export function earliestEnd(end: TermEnd): Instant {
  return earliestAt(end.at, end.precision === 'day');
}

/** The same of an end that is kept as a number, `isDay` where only its date is known. */
export function earliestAt(at: number, isDay: boolean): Instant {
  return (isDay ? at - 14 * HOUR_MS : at) as Instant;
}

/** The latest instant the term may end: what the release counts from. */
export function latestEnd(end: TermEnd): Instant {
  return end.precision === 'day' ? ((end.at + 36 * HOUR_MS) as Instant) : end.at;
}

/** The end of the same term `years` later. */
export function laterEnd(end: TermEnd, years: number): TermEnd {
  return { at: addYears(end.at, years), precision: end.precision };
}

/** A day alone as `2027-09-21`, an instant as RFC 3339. */
export function formatTermEnd(end: TermEnd): string {
  return end.precision === 'day' ? dayOf(end.at) : formatInstant(end.at);
}

/** Reads what `formatTermEnd` writes. `null` for anything else. */
export function parseTermEnd(text: string): TermEnd | null {
  const day: Day | null = parseDay(text);
  if (day) return { at: startOfDay(day), precision: 'day' };
  const at = parseInstant(text);
  return at === null ? null : { at, precision: 'instant' };
}
