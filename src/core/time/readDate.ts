import { type Refusal, refuse } from '../refusal';
import { type Day, FIRST_DAY, HOUR_MS, type Instant, LAST_DAY, parseDay, startOfDay } from './instant';
import type { TermEnd } from './termEnd';

/** In which order a column writes day, month and a year of two digits when all are numbers. */
export const DATE_ORDERS = ['day first', 'month first', 'year first'] as const;
export type DateOrder = (typeof DATE_ORDERS)[number];
/** What the cells of one column say about their order. `either`: nothing in it decides, so the person is asked. */
export type FoundOrder = DateOrder | 'either' | 'not needed' | 'contradictory';

/** The languages whose names of months are read; the platform knows them (CLDR). */
const LANGUAGES = ['en', 'de', 'fr', 'es', 'it', 'nl', 'pt', 'pl', 'sv', 'tr'];
const plainMonth = (word: string) => word.toLowerCase().replace(/\.$/, '');

/** Months by their names, long and short; what means two months in two languages is left out. */
const MONTHS = new Map<string, number | null>();
for (const language of LANGUAGES)
  for (const month of ['long', 'short'] as const)
    for (const more of [{}, { day: 'numeric' as const }]) {
      const format = new Intl.DateTimeFormat(language, { month, ...more, timeZone: 'UTC' });
      for (let i = 0; i < 12; i += 1) {
        const word = plainMonth(
          format.formatToParts(Date.UTC(2027, i, 1)).find(({ type }) => type === 'month')?.value ?? '',
        );
        const known = MONTHS.get(word);
        MONTHS.set(word, known === undefined || known === i + 1 ? i + 1 : null);
      }
    }
for (const [i, word] of ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'].entries())
  MONTHS.set(word, i + 1);
const TIME = String.raw`(?:[T\s,]+(\d{1,2}):(\d{2})(?::(\d{2})(?:\.(\d{1,9}))?)?\s*([ap]m)?\s*(z|utc|gmt|[+-]\d{2}:?\d{2}|[a-z]{2,5})?)?`;
const ISO = new RegExp(String.raw`^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})${TIME}$`, 'i');
const COMPACT = /^(\d{4})(\d{2})(\d{2})$/;
const NUMERIC = new RegExp(String.raw`^(\d{1,2})[-/.](\d{1,2})[-/.](\d{4}|\d{2})${TIME}$`, 'i');
const NAMED_DAY_FIRST = new RegExp(
  String.raw`^(?:\p{L}{2,12}\.?,?\s+)?(\d{1,2})(?:st|nd|rd|th|er|\.)?[-\s./]+(?:de\s+)?(\p{L}{3,12})\.?[-\s./,]+(?:de\s+)?(\d{4}|\d{2})${TIME}$`,
  'iu',
);
const NAMED_MONTH_FIRST = new RegExp(
  String.raw`^(?:\p{L}{2,12}\.?,?\s+)?(\p{L}{3,12})\.?\s+(\d{1,2})(?:st|nd|rd|th)?,?\s+(\d{4})${TIME}$`,
  'iu',
);
const EAST_ASIAN = new RegExp(String.raw`^(\d{4})\s*年\s*(\d{1,2})\s*月\s*(\d{1,2})\s*日${TIME}$`, 'iu');

/** No date is longer, time and zone included: longer cells need no look. */
const LONGEST_DATE = 60;

interface DateParts {
  readonly year: string;
  readonly month: number;
  readonly date: number;
  readonly time: readonly (string | undefined)[];
}

/** A numeric date by one order: `null` where that is no day. */
function dayBy(order: DateOrder, first: string, second: string, third: string): string | null {
  if (order === 'year first' && third.length === 4) return null;
  const [year, month, date] =
    order === 'day first'
      ? [third, second, first]
      : order === 'month first'
        ? [third, first, second]
        : [first, second, third];
  return parseDay(`${fullYear(year)}-${pad(Number(month))}-${pad(Number(date))}`);
}

/**
 * Is shown the cells of one column and says how it writes its dates: the orders by which every cell is a day. A year of two
 * digits may stand first too, as in `27-09-21`.
 */
export class DateOrders {
  readonly #looked = new Set<string>();
  #possible: readonly DateOrder[] = DATE_ORDERS;
  #isOpen = false;

  look(cell: string): void {
    const match = cell.length <= LONGEST_DATE && NUMERIC.exec(cell.trim());
    // Many names share few days.
    if (!match || this.#looked.has(cell)) return;
    this.#looked.add(cell);
    const [, first = '', second = '', third = ''] = match;
    const days = new Map(DATE_ORDERS.map((order) => [order, dayBy(order, first, second, third)]));
    // A cell that is no day in any order says nothing of the others.
    if ([...days.values()].every((day) => day === null)) return;
    this.#possible = this.#possible.filter((order) => days.get(order) !== null);
    this.#isOpen ||=
      new Set([...days.values()].filter((day) => day !== null)).size > 1 ||
      days.get('day first') !== days.get('month first');
  }

  get found(): FoundOrder {
    if (!this.#isOpen) return 'not needed';
    const [only, other] = this.#possible;
    return only === undefined ? 'contradictory' : other === undefined ? only : 'either';
  }
}

/** True when a cell has the shape of a date, whatever its order. */
export function looksLikeDate(cell: string): boolean {
  const text = cell.trim();
  return ISO.test(text) || NUMERIC.test(text) || EAST_ASIAN.test(text) || namedIn(text) !== null;
}

/**
 * Reads one date cell: ISO 8601, `21-Sep-2027`, `September 21, 2027`, `09/21/2027`, `21.09.2027`, each with or without a time and
 * a zone. A time without a zone is read as UTC. `order` decides where both parts could be a month. Two-digit years are
 * 1985-2084. Refused with what to write: days that do not exist, years before 1985 or after 2099, unknown zones.
 */
export function readDate(cell: string, order: DateOrder | null): TermEnd | Refusal {
  const text = cell.trim();
  const parts = partsOf(text, order);
  if (parts === null)
    return refuse('date-not-read', `“${clip(text)}” is not a date I can read. Write it like 2027-09-21.`);
  if (parts === 'either')
    return refuse(
      'date-ambiguous',
      `“${clip(text)}” can be two dates. Say whether this column writes the day, the month or the year first.`,
    );
  const day = parseDay(`${fullYear(parts.year)}-${pad(parts.month)}-${pad(parts.date)}`);
  if (day === null) return refuse('date-does-not-exist', `There is no such day as ${clip(text)}. Check it.`);
  if (day < FIRST_DAY || day > LAST_DAY) {
    return refuse(
      'date-out-of-range',
      `${clip(text)} lies outside 1985 to 2099, where names can have dates. Check it.`,
    );
  }
  return withTime(day, parts.time, text);
}

function partsOf(text: string, order: DateOrder | null): DateParts | 'either' | null {
  let match = ISO.exec(text) ?? COMPACT.exec(text) ?? EAST_ASIAN.exec(text);
  if (match) return { year: match[1] ?? '', month: Number(match[2]), date: Number(match[3]), time: match.slice(4) };
  match = NUMERIC.exec(text);
  if (match) {
    const [, first = '', second = '', third = ''] = match;
    const days = DATE_ORDERS.map((one) => [one, dayBy(one, first, second, third)] as const).filter(
      ([, day]) => day !== null,
    );
    const decided = order ?? (new Set(days.map(([, day]) => day)).size === 1 ? days[0]?.[0] : null);
    if (!decided) return days.length === 0 ? numericParts('day first', match) : 'either';
    return numericParts(decided, match);
  }
  return namedIn(text);
}

function numericParts(order: DateOrder, match: RegExpExecArray): DateParts {
  const [, first = '', second = '', third = ''] = match;
  const time = match.slice(4);
  switch (order) {
    case 'day first':
      return { year: third, month: Number(second), date: Number(first), time };
    case 'month first':
      return { year: third, month: Number(first), date: Number(second), time };
    case 'year first':
      return { year: first, month: Number(second), date: Number(third), time };
  }
}

/** A date whose month is a word, in one of the languages that are read; `null` for none. */
function namedIn(text: string): DateParts | null {
  const dayFirst = NAMED_DAY_FIRST.exec(text);
  const found = dayFirst && named(dayFirst[3], dayFirst[2], dayFirst[1], dayFirst.slice(4));
  if (found) return found;
  const monthFirst = NAMED_MONTH_FIRST.exec(text);
  return monthFirst ? named(monthFirst[3], monthFirst[1], monthFirst[2], monthFirst.slice(4)) : null;
}

function named(year = '', word = '', date = '', time: (string | undefined)[] = []): DateParts | null {
  const month = MONTHS.get(plainMonth(word));
  return month ? { year, month, date: Number(date), time } : null;
}

function withTime(
  day: Day,
  [hour, minute, second, fraction, half, zone]: readonly (string | undefined)[],
  text: string,
): TermEnd | Refusal {
  if (hour === undefined || minute === undefined) return { at: startOfDay(day), precision: 'day' };
  const hours = half ? (Number(hour) % 12) + (half.toLowerCase() === 'pm' ? 12 : 0) : Number(hour);
  const offset = zoneOffset(zone);
  if (offset === null) {
    return refuse(
      'zone-not-read',
      `The zone in “${clip(text)}” is not one I know. Write UTC, or a distance like +02:00.`,
    );
  }
  const ms = fraction ? Number(fraction.slice(0, 3).padEnd(3, '0')) : 0;
  if (hours > 23 || Number(minute) > 59 || Number(second ?? 0) > 59)
    return refuse('date-does-not-exist', `There is no such time as ${clip(text)}. Check it.`);
  const clock = hours * HOUR_MS + (Number(minute) * 60 + Number(second ?? 0)) * 1000 + ms;
  return { at: (startOfDay(day) + clock - offset) as Instant, precision: 'instant' };
}

/** Milliseconds east of UTC; 0 without a zone; `null` for a zone that is not a distance or UTC itself. */
function zoneOffset(zone: string | undefined): number | null {
  if (zone === undefined || /^(z|utc|gmt)$/i.test(zone)) return 0;
  const match = /^([+-])(\d{2}):?(\d{2})$/.exec(zone);
  if (!match) return null;
  return (match[1] === '-' ? -1 : 1) * (Number(match[2]) + Number(match[3]) / 60) * HOUR_MS;
}

function fullYear(year: string): string {
  return year.length === 4 ? year : `${Number(year) >= 85 ? 19 : 20}${year}`;
}

function pad(value: number): string {
  return String(value).padStart(2, '0');
}

function clip(text: string): string {
  return text.length > 40 ? `${text.slice(0, 37)}…` : text;
}
