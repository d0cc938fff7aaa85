import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  addYears,
  DAY_MS,
  type Day,
  dayIn,
  dayOf,
  daysUntil,
  earliestEnd,
  endDay,
  endOfDay,
  formatDay,
  formatInstant,
  formatTermEnd,
  type Instant,
  instant,
  latestEnd,
  parseDay,
  parseInstant,
  parseTermEnd,
  startOfDay,
  type TermEnd,
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
  test('days are days of the calendar in the office’s zone, whatever the hour', () => {
    const asOf = instant('2026-11-24T23:00:00Z');
    expect(daysUntil(parseDay('2026-11-30') as Day, asOf, 'America/Los_Angeles')).toBe(6);
    expect(daysUntil(parseDay('2026-11-30') as Day, asOf, 'Pacific/Auckland')).toBe(5);
    expect(daysUntil(parseDay('2026-11-24') as Day, asOf, 'UTC')).toBe(0);
    expect(daysUntil(parseDay('2026-11-01') as Day, asOf, 'UTC')).toBe(-23);
    const zones = ['UTC', 'America/Los_Angeles', 'Europe/Berlin', 'Australia/Lord_Howe', 'Pacific/Apia'];
    fc.assert(
      fc.property(anInstant, fc.integer({ min: -900, max: 900 }), fc.constantFrom(...zones), (at, days, zone) => {
        const day = dayOf((startOfDay(dayIn(at, zone)) + days * DAY_MS) as Instant);
        return daysUntil(day, at, zone) === days;
      }),
    );
  });

  test('a day is over at the midnight of its zone, with the hour that a clock change adds or takes', () => {
    const over = (day: string, zone: string) => formatInstant(endOfDay(parseDay(day) as Day, zone));
    expect(over('2026-12-09', 'UTC')).toBe('2026-12-10T00:00:00Z');
    expect(over('2026-12-09', 'America/Los_Angeles')).toBe('2026-12-10T08:00:00Z');
    // Clocks change on 29 March and 25 October 2026: those days have 23 and 25 hours.
    expect(over('2026-03-28', 'Europe/Berlin')).toBe('2026-03-28T23:00:00Z');
    expect(over('2026-03-29', 'Europe/Berlin')).toBe('2026-03-29T22:00:00Z');
    expect(over('2026-10-25', 'Europe/Berlin')).toBe('2026-10-25T23:00:00Z');
    // Where the clock changes at midnight the day ends when the next begins.
    expect(over('2026-09-05', 'America/Santiago')).toBe('2026-09-06T04:00:00Z');
    fc.assert(
      fc.property(anInstant, fc.constantFrom('Europe/Berlin', 'America/New_York', 'Asia/Kathmandu'), (at, zone) => {
        const day = dayIn(at, zone);
        const end = endOfDay(day, zone);
        expect(dayIn((end - 1) as Instant, zone)).toBe(day);
        expect(dayIn(end, zone)).not.toBe(day);
        // What ends with the day works on the whole of it.
        expect(untilDay(end, zone)).toBe(day);
      }),
    );
  });

  test('the day on which a term ends is the date that was given, else that of its instant in the zone', () => {
    const end = (text: string) => parseTermEnd(text) as TermEnd;
    expect(endDay(end('2026-10-20'), 'America/Los_Angeles')).toBe('2026-10-20');
    expect(endDay(end('2026-10-20T03:00:00Z'), 'America/Los_Angeles')).toBe('2026-10-19');
    expect(endDay(end('2026-10-19T23:30:00Z'), 'Europe/Berlin')).toBe('2026-10-20');
  });
});

test('years later is what the calendar says, also from a leap day and far away', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: Date.UTC(1850, 0, 1), max: Date.UTC(2150, 11, 31) }),
      fc.integer({ min: -12, max: 12 }),
      (at, years) => {
        // The same by the calendar of the language (ECMA-262, Date): what falls on a day that is none is the day before.
        const date = new Date(at);
        const month = date.getUTCMonth();
        date.setUTCFullYear(date.getUTCFullYear() + years);
        if (date.getUTCMonth() !== month) date.setUTCDate(0);
        expect(addYears(at as Instant, years)).toBe(date.getTime());
      },
    ),
    { numRuns: 2000 },
  );
  for (const [from, years, to] of [
    ['2024-02-29T10:00:00Z', 1, '2025-02-28T10:00:00Z'],
    ['2024-02-29T10:00:00Z', 4, '2028-02-29T10:00:00Z'],
    ['2096-02-29T00:00:00Z', 4, '2100-02-28T00:00:00Z'],
    ['2024-03-01T00:00:00Z', -24, '2000-03-01T00:00:00Z'],
  ] as const)
    expect(formatInstant(addYears(instant(from), years))).toBe(to);
});

test('days and instants are written and read as `Date` does, the known ones from what is kept', () => {
  const at = fc.integer({ min: Date.UTC(1900, 0, 1), max: Date.UTC(2200, 0, 1) });
  fc.assert(
    fc.property(at, fc.constantFrom(0, 0.25, 1000), (ms, kind) => {
      // Whole seconds, whole milliseconds, and what a sum of fractions of days leaves.
      const when = (kind === 1000 ? Math.floor(ms / 1000) * 1000 : ms + kind) as Instant;
      const text = new Date(when).toISOString();
      // Twice: the second time it is known.
      for (const _ of [1, 2]) {
        expect(formatInstant(when)).toBe(text.replace('.000Z', 'Z'));
        expect(dayOf(when)).toBe(text.slice(0, 10));
        expect(startOfDay(dayOf(when))).toBe(Date.parse(`${text.slice(0, 10)}T00:00:00Z`));
      }
    }),
    { numRuns: 2000 },
  );
  expect(() => formatInstant(Number.NaN as Instant)).toThrow(RangeError);
  expect(startOfDay('2026-13-01' as Day)).toBeNaN();
});
