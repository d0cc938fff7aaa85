import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  addYears,
  DAY_MS,
  dayIn,
  daysBetween,
  earliestEnd,
  formatDay,
  formatInstant,
  formatTermEnd,
  type Instant,
  instant,
  latestEnd,
  parseDay,
  parseInstant,
  parseTermEnd,
  untilDay,
} from './index';

const anInstant = fc.integer({ min: Date.UTC(1990, 0, 1), max: Date.UTC(2080, 0, 1) }).map((ms) => ms as Instant);

describe('adding years', () => {
  test.each([
    ['2026-11-06T10:15:00Z', 1, '2027-11-06T10:15:00Z'],
    ['2028-02-29T23:59:59Z', 1, '2029-02-28T23:59:59Z'],
    ['2028-02-29T00:00:00Z', 4, '2032-02-29T00:00:00Z'],
    ['2027-02-28T12:00:00Z', 1, '2028-02-28T12:00:00Z'],
    ['2000-04-03T22:00:00Z', 5, '2005-04-03T22:00:00Z'],
  ])('%s plus %i is %s', (from, years, to) => {
    expect(formatInstant(addYears(instant(from), years))).toBe(to);
  });

  test('n years at once are n times one year, 29 February aside', () => {
    fc.assert(
      fc.property(anInstant, fc.integer({ min: 1, max: 10 }), (at, years) => {
        if (new Date(at).getUTCMonth() === 1 && new Date(at).getUTCDate() === 29) return;
        let step = at;
        for (let i = 0; i < years; i += 1) step = addYears(step, 1);
        expect(step).toBe(addYears(at, years));
      }),
    );
  });
});

describe('days and instants that do not exist are not read', () => {
  test.each(['2027-02-30', '2027-13-01', '2027-00-10', '27-01-01', '2027-1-1', ''])('day %j', (text) => {
    expect(parseDay(text)).toBeNull();
  });
  test.each(['2027-02-30T10:00:00Z', '2027-01-01T25:00:00Z', '2027-01-01T10:00:00', '2027-01-01', 'tomorrow'])(
    'instant %j',
    (text) => {
      expect(parseInstant(text)).toBeNull();
    },
  );
  test('an offset is taken into account (RFC 3339 section 5.8)', () => {
    expect(parseInstant('1996-12-19T16:39:57-08:00')).toBe(Date.parse('1996-12-20T00:39:57Z'));
  });
});

describe('a date alone is an interval from UTC+14 to UTC-12', () => {
  const end = parseTermEnd('2026-11-06');
  if (!end) throw new Error('not read');
  test('deadlines count from its earliest end', () => {
    expect(formatInstant(earliestEnd(end))).toBe('2026-11-05T10:00:00Z');
  });
  test('the release counts from its latest', () => {
    expect(formatInstant(latestEnd(end))).toBe('2026-11-07T12:00:00Z');
  });
  test('it is written as it was given', () => {
    expect(formatTermEnd(end)).toBe('2026-11-06');
    expect(formatTermEnd({ at: instant('2026-11-06T10:15:00Z'), precision: 'instant' })).toBe('2026-11-06T10:15:00Z');
  });
});

describe('words of the calendar', () => {
  test('the year goes without saying when it is this one', () => {
    const day = parseDay('2027-01-03');
    const today = parseDay('2026-11-24');
    if (!day || !today) throw new Error('not read');
    expect(formatDay(day)).toBe('3 Jan 2027');
    expect(formatDay(day, day)).toBe('3 Jan');
    expect(formatDay(day, today)).toBe('3 Jan 2027');
  });
  test('“until” names the last whole day on which it still works', () => {
    expect(untilDay(instant('2026-12-21T10:15:00Z'), 'UTC')).toBe('2026-12-20');
    expect(untilDay(instant('2026-12-21T00:00:00Z'), 'UTC')).toBe('2026-12-20');
    expect(untilDay(instant('2026-12-20T23:30:00Z'), 'Europe/Athens')).toBe('2026-12-20');
  });
  test('the day depends on the zone', () => {
    expect(dayIn(instant('2026-12-20T23:30:00Z'), 'Europe/Athens')).toBe('2026-12-21');
    expect(dayIn(instant('2026-12-20T03:30:00Z'), 'America/New_York')).toBe('2026-12-19');
  });
  test('days between are days of the calendar in UTC', () => {
    expect(daysBetween(instant('2026-11-24T23:00:00Z'), instant('2026-11-25T01:00:00Z'))).toBe(1);
    fc.assert(
      fc.property(
        anInstant,
        fc.integer({ min: -900, max: 900 }),
        (at, days) => daysBetween(at, (at + days * DAY_MS) as Instant) === days,
      ),
    );
  });
});
