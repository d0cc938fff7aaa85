import ICAL from 'ical.js';
import ical, { ICalAlarmType } from 'ical-generator';
import { expect, test } from 'vitest';
import { type Day, instant } from '@/core/time';
import { writeCalendar } from '@/formats/calendar/writeCalendar';

const DEADLINES = [
  {
    key: 'kelpkiln.com-restore-2026-11-06',
    day: '2026-12-20' as Day,
    summary: 'kelpkiln.com: last day to renew for $11.38',
    description: 'Commas, semicolons; and\nlines are escaped.',
    category: 'restore',
  },
  {
    key: 'xn--mwenkai-90a.de-lost-2026-12-27',
    day: '2027-01-26' as Day,
    summary: `möwenkai.de: ${'a long summary that has to be folded, '.repeat(5)}end`,
    description: '',
    category: 'lost',
  },
];
const MADE = instant('2026-11-24T09:12:00Z');

/** What a calendar says, without its folds, in the order of its lines: without what each library adds of its own. */
const said = (text: string) =>
  text
    .replaceAll('\r\n ', '')
    .split('\r\n')
    .filter((line) => /^(BEGIN|END|UID|DTSTAMP|DTSTART|SUMMARY|DESCRIPTION|CATEGORIES|ACTION):?/.test(line))
    .sort();

/** The same events by another general-purpose library: ical-generator. */
test('another library writes the same events (RFC 5545 sections 3.6.1 and 3.6.6)', () => {
  const other = ical({ prodId: '-//Name Ledger//deadlines//EN' });
  for (const { key, day, summary, description, category } of DEADLINES) {
    const event = other.createEvent({
      id: `${key}@name-ledger.test`,
      start: new Date(`${day}T00:00:00Z`),
      allDay: true,
      timezone: 'UTC',
      stamp: new Date(MADE),
      summary,
      ...(description === '' ? {} : { description }),
      categories: [{ name: category }],
    });
    for (const days of [7, 1])
      event.createAlarm({ type: ICalAlarmType.display, trigger: days * 86_400, description: summary });
  }
  expect(said(writeCalendar(DEADLINES, [7, 1], MADE))).toEqual(said(other.toString()));
});

test('a general-purpose library reads every deadline back: day, UID, words and alarms', () => {
  const text = writeCalendar(DEADLINES, [7, 1], MADE);
  const events = new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent');
  expect(events).toHaveLength(2);
  for (const [i, component] of events.entries()) {
    const event = new ICAL.Event(component);
    const deadline = DEADLINES[i];
    expect(event.uid).toBe(`${deadline?.key}@name-ledger.test`);
    expect(event.summary).toBe(deadline?.summary);
    expect(event.startDate.isDate).toBe(true);
    expect(event.startDate.toString()).toBe(deadline?.day);
    const triggers = component
      .getAllSubcomponents('valarm')
      .map((alarm) => alarm.getFirstPropertyValue('trigger')?.toString());
    expect(triggers.map((trigger) => ICAL.Duration.fromString(trigger ?? '').toSeconds())).toEqual([-604_800, -86_400]);
  }
  expect(new ICAL.Event(events[0] as ICAL.Component).description).toBe(DEADLINES[0]?.description);
});

test('no line is longer than 75 octets, and lines end in CRLF (RFC 5545 section 3.1)', () => {
  const text = writeCalendar(DEADLINES, [], MADE);
  for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
  expect(text.replaceAll('\r\n', '')).not.toContain('\n');
  expect(text.endsWith('END:VCALENDAR\r\n')).toBe(true);
});

test('the same deadlines give the same file', () => {
  expect(writeCalendar(DEADLINES, [7], MADE)).toBe(writeCalendar(DEADLINES, [7], MADE));
});
