import { type Refusal, refuse } from '@/core/refusal';
import { type Day, FIRST_DAY, HOUR_MS, type Instant, LAST_DAY, parseDay, startOfDay, type TermEnd } from '@/core/time';

/** In which order a column writes day and month when both are numbers. */
export type DateOrder = 'day first' | 'month first';
/** What the cells of one column say about their order. `either`: nothing in it decides, so the person is asked. */
export type FoundOrder = DateOrder | 'either' | 'not needed' | 'contradictory';

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const TIME = String.raw`(?:[T\s,]+(\d{1,2}):(\d{2})(?::(\d{2})(?:\.(\d{1,9}))?)?\s*([ap]m)?\s*(z|utc|gmt|[+-]\d{2}:?\d{2}|[a-z]{2,5})?)?`;
const ISO = new RegExp(String.raw`^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})${TIME}$`, 'i');
const COMPACT = /^(\d{4})(\d{2})(\d{2})$/;
const NUMERIC = new RegExp(String.raw`^(\d{1,2})[-/.](\d{1,2})[-/.](\d{4}|\d{2})${TIME}$`, 'i');
const NAMED_DAY_FIRST = new RegExp(
  String.raw`^(?:[a-z]{3,9},?\s+)?(\d{1,2})(?:st|nd|rd|th)?[-\s./]+([a-z]{3,9})\.?[-\s./,]+(\d{4}|\d{2})${TIME}$`,
  'i',
);
const NAMED_MONTH_FIRST = new RegExp(
  String.raw`^(?:[a-z]{3,9},?\s+)?([a-z]{3,9})\.?\s+(\d{1,2})(?:st|nd|rd|th)?,?\s+(\d{4})${TIME}$`,
  'i',
);

/** No date is longer, time and zone included: longer cells need no look. */
const LONGEST_DATE = 60;

interface DateParts {
  readonly year: string;
  readonly month: number;
  readonly date: number;
  readonly time: readonly (string | undefined)[];
}

/** Looks through the cells of one column and says how it writes day and month. */
export function dateOrderOf(cells: Iterable<string>): FoundOrder {
  let dayFirst = false;
  let monthFirst = false;
  let open = false;
  for (const cell of cells) {
    const match = cell.length <= LONGEST_DATE && NUMERIC.exec(cell.trim());
    if (!match) continue;
    const [first, second] = [Number(match[1]), Number(match[2])];
    if (first > 12 && second <= 12) dayFirst = true;
    else if (second > 12 && first <= 12) monthFirst = true;
    else if (first !== second) open = true;
  }
  if (dayFirst && monthFirst) return 'contradictory';
  if (dayFirst) return 'day first';
  if (monthFirst) return 'month first';
  return open ? 'either' : 'not needed';
}

/** True when a cell has the shape of a date, whatever its order. */
export function looksLikeDate(cell: string): boolean {
  const text = cell.trim();
  return ISO.test(text) || NUMERIC.test(text) || NAMED_DAY_FIRST.test(text) || NAMED_MONTH_FIRST.test(text);
}

/**
 * Reads one date cell: ISO 8601, `13-May-2027`, `May 13, 2027`, `05/13/2027`, `13.05.2027`, each with or without a time and
 * a zone. A time without a zone is read as UTC. `order` decides where both parts could be a month. Two-digit years are
 * 1985-2084. Refused with what to write: days that do not exist, years before 1985 or after 2099, unknown zones.
 */
export function readDateCell(cell: string, order: DateOrder | null): TermEnd | Refusal {
  const text = cell.trim();
  const parts = partsOf(text, order);
  if (parts === null)
    return refuse('date-not-read', `“${clip(text)}” is not a date I can read. Write it like 2027-05-13.`);
  if (parts === 'either')
    return refuse(
      'date-ambiguous',
      `“${clip(text)}” can be two dates. Say whether this column writes the day or the month first.`,
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
  let match = ISO.exec(text) ?? COMPACT.exec(text);
  if (match) return { year: match[1] ?? '', month: Number(match[2]), date: Number(match[3]), time: match.slice(4) };
  match = NUMERIC.exec(text);
  if (match) {
    const [first, second] = [Number(match[1]), Number(match[2])];
    const decided =
      order ?? (first > 12 ? 'day first' : second > 12 ? 'month first' : first === second ? 'day first' : null);
    if (decided === null) return 'either';
    const [month, date] = decided === 'day first' ? [second, first] : [first, second];
    return { year: match[3] ?? '', month, date, time: match.slice(4) };
  }
  match = NAMED_DAY_FIRST.exec(text);
  if (match) return named(match[3], match[2], match[1], match.slice(4));
  match = NAMED_MONTH_FIRST.exec(text);
  return match ? named(match[3], match[1], match[2], match.slice(4)) : null;
}

function named(year = '', month = '', date = '', time: (string | undefined)[] = []): DateParts | null {
  const index = MONTHS.indexOf(month.slice(0, 3).toLowerCase());
  return index < 0 ? null : { year, month: index + 1, date: Number(date), time };
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
