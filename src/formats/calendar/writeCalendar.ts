import ICAL from 'ical.js';
import type { Day, Instant } from '@/core/time';

/** One deadline as a calendar shows it: an all-day event. */
export interface CalendarDeadline {
  /** What stays the same while this is the same deadline of the same term, however often the file is made. */
  readonly key: string;
  readonly day: Day;
  readonly summary: string;
  readonly description: string;
  readonly category: string;
}

// The space that begins a folded line counts too (RFC 5545 section 3.1).
ICAL.foldLength = 74;

/** How often a calendar program need ask again (RFC 7986 section 5.7). */
const REFRESH = 'PT6H';

/**
 * Writes deadlines as an iCalendar file (RFC 5545): all-day events with stable UIDs, and a display alarm on each of
 * `alarmDays` days before. `madeAt` becomes DTSTAMP.
 */
export function writeCalendar(
  deadlines: readonly CalendarDeadline[],
  alarmDays: readonly number[],
  madeAt: Instant,
): string {
  const calendar = new ICAL.Component('vcalendar');
  const head = {
    version: '2.0',
    prodid: '-//Name Ledger//deadlines//EN',
    method: 'PUBLISH',
    name: 'Name Ledger: deadlines',
    'x-wr-calname': 'Name Ledger: deadlines',
    'refresh-interval': ICAL.Duration.fromString(REFRESH),
    'x-published-ttl': REFRESH,
  };
  for (const [name, value] of Object.entries(head)) calendar.addPropertyWithValue(name, value);
  const stamp = ICAL.Time.fromJSDate(new Date(madeAt), true);
  const triggers = alarmDays.map((days) => new ICAL.Duration({ days, isNegative: true }));
  for (const { key, day, summary, description, category } of deadlines) {
    const event = new ICAL.Component('vevent');
    event.addPropertyWithValue('uid', `${key}@name-ledger.test`);
    event.addPropertyWithValue('dtstamp', stamp);
    event.addPropertyWithValue('dtstart', ICAL.Time.fromDateString(day));
    event.addPropertyWithValue('summary', summary);
    if (description !== '') event.addPropertyWithValue('description', description);
    event.addPropertyWithValue('categories', category);
    for (const trigger of triggers) {
      const alarm = new ICAL.Component('valarm');
      alarm.addPropertyWithValue('action', 'DISPLAY');
      alarm.addPropertyWithValue('trigger', trigger);
      alarm.addPropertyWithValue('description', summary);
      event.addSubcomponent(alarm);
    }
    calendar.addSubcomponent(event);
  }
  return `${calendar.toString()}\r\n`;
}
