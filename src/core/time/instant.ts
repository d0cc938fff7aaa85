declare const instantBrand: unique symbol;
declare const dayBrand: unique symbol;

/** A point in time: whole milliseconds since 1970-01-01T00:00:00Z. */
export type Instant = number & { readonly [instantBrand]: true };
/** A calendar day, `YYYY-MM-DD`, of no particular time zone. */
export type Day = string & { readonly [dayBrand]: true };

export const MINUTE_MS = 60_000;
export const HOUR_MS = 3_600_000;
/** Days of the trade are 24 hours in UTC. */
export const DAY_MS = 24 * HOUR_MS;

/** The earliest and latest day the ledger accepts: no name is older than 1985, and no term is sold past 2099. */
export const FIRST_DAY = '1985-01-01' as Day;
export const LAST_DAY = '2099-12-31' as Day;

const DAY = /^(\d{4})-(\d{2})-(\d{2})$/;
const RFC3339 = /^\d{4}-\d{2}-\d{2}[Tt ]\d{2}:\d{2}(:\d{2}(\.\d{1,9})?)?([Zz]|[+-]\d{2}:\d{2})$/;

/** Reads an RFC 3339 instant with its offset. `null` when the text is none, or names a day or hour that does not exist. */
export function parseInstant(text: string): Instant | null {
  if (!RFC3339.test(text)) return null;
  if (parseDay(text.slice(0, 10)) === null || Number(text.slice(11, 13)) > 23) return null;
  const ms = Date.parse(text.replace(' ', 'T').toUpperCase());
  return Number.isNaN(ms) ? null : (ms as Instant);
}

/** The instant of an RFC 3339 text that the program itself wrote. Throws on anything else: a bug, not a refusal. */
export function instant(text: string): Instant {
  const value = parseInstant(text);
  if (value === null) throw new Error(`not an RFC 3339 instant: ${text}`);
  return value;
}

const MONTH_DAYS = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31] as const;

/** Reads `YYYY-MM-DD`. `null` when that day does not exist (30 February). */
export function parseDay(text: string): Day | null {
  const match = DAY.exec(text);
  if (!match) return null;
  const [year, month, date] = [Number(match[1]), Number(match[2]), Number(match[3])];
  const leap = month === 2 && year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0);
  const days = (MONTH_DAYS[month - 1] ?? 0) + (leap ? 1 : 0);
  return date >= 1 && date <= days ? (text as Day) : null;
}

const two = (value: number) => (value < 10 ? `0${value}` : String(value));

/** RFC 3339 in UTC, to the second unless there are milliseconds. */
export function formatInstant(at: Instant): string {
  // Nothing below a millisecond is written, as by `Date`.
  const whole = Math.trunc(at) as Instant;
  const ms = whole - Math.floor(whole / DAY_MS) * DAY_MS;
  const time = `${two(Math.floor(ms / HOUR_MS))}:${two(Math.floor(ms / MINUTE_MS) % 60)}:${two(Math.floor(ms / 1000) % 60)}`;
  const rest = ms % 1000;
  return `${dayOf(whole)}T${time}${rest === 0 ? '' : `.${String(rest).padStart(3, '0')}`}Z`;
}

/** The days of the trade that have been written and read: some ten thousand at most, asked for millions of times. */
const writtenDays = new Map<number, Day>();
const readDays = new Map<string, Instant>();

/** The UTC day an instant falls on. */
export function dayOf(at: Instant): Day {
  const number = Math.floor(Math.trunc(at) / DAY_MS);
  const known = writtenDays.get(number);
  if (known !== undefined) return known;
  const day = new Date(at).toISOString().slice(0, 10) as Day;
  if (day >= FIRST_DAY && day <= LAST_DAY) writtenDays.set(number, day);
  return day;
}

/** 00:00 UTC of a day. */
export function startOfDay(day: Day): Instant {
  const known = readDays.get(day);
  if (known !== undefined) return known;
  const at = Date.parse(`${day}T00:00:00Z`) as Instant;
  if (day >= FIRST_DAY && day <= LAST_DAY && !Number.isNaN(at)) readDays.set(day, at);
  return at;
}

/** `days` may be negative or a fraction. */
export function addDays(at: Instant, days: number): Instant {
  return (at + days * DAY_MS) as Instant;
}

/** Keeps month, day and time of day; 29 February becomes 28 February in a common year (from memory). */
export function addYears(at: Instant, years: number): Instant {
  const day = Math.floor(at / DAY_MS);
  // The date, reckoned in years that begin in March, so that a leap day is their last: many times quicker than `Date`.
  const shifted = day + EPOCH_DAYS;
  const era = Math.floor(shifted / ERA_DAYS);
  const ofEra = shifted - era * ERA_DAYS;
  const yearOfEra = Math.floor(
    (ofEra - Math.floor(ofEra / 1460) + Math.floor(ofEra / 36_524) - Math.floor(ofEra / 146_096)) / 365,
  );
  const ofYear = ofEra - yearStart(yearOfEra);
  const marchYear = era * 400 + yearOfEra + years;
  // The leap day that a March year ends with lies in the next calendar year.
  const isLost = ofYear === LEAP_DAY && !isLeap(marchYear + 1);
  const laterEra = Math.floor(marchYear / 400);
  const later = laterEra * ERA_DAYS + yearStart(marchYear - laterEra * 400) + ofYear - (isLost ? 1 : 0) - EPOCH_DAYS;
  return ((later - day) * DAY_MS + at) as Instant;
}

/** Days from the beginning of an era of four hundred March years to that of one of them. */
const yearStart = (yearOfEra: number) => yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100);
const isLeap = (year: number) => year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0);

/** Days in four hundred years, and from 1 March of year 0 to 1970-01-01, in the Gregorian calendar. */
const ERA_DAYS = 146_097;
const EPOCH_DAYS = 719_468;
/** 29 February, counted from 1 March of the year before. */
const LEAP_DAY = 365;
