import ical, { ICalAlarmType, ICalCalendarMethod } from 'ical-generator';
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

const DAY_S = 86_400;

/**
 * Writes deadlines as an iCalendar file (RFC 5545): all-day events with stable UIDs, and a display alarm on each of
 * `alarmDays` days before. `madeAt` becomes DTSTAMP.
 */
export function writeCalendar(
  deadlines: readonly CalendarDeadline[],
  alarmDays: readonly number[],
  madeAt: Instant,
): string {
  const calendar = ical({
    name: 'Name Ledger: price steps',
    prodId: { company: 'Name Ledger', product: 'price steps', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
    ttl: 6 * 3600,
  });
  for (const { key, day, summary, description, category } of deadlines) {
    const event = calendar.createEvent({
      id: `${key}@name-ledger.test`,
      start: new Date(`${day}T00:00:00Z`),
      allDay: true,
      timezone: 'UTC',
      stamp: new Date(madeAt),
      summary,
      description,
      categories: [{ name: category }],
    });
    for (const days of alarmDays)
      event.createAlarm({ type: ICalAlarmType.display, trigger: days * DAY_S, description: summary });
  }
  return calendar.toString();
}
