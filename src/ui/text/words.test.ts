import { describe, expect, test } from 'vitest';
import type { Charge } from '@/core/funding';
import type { Outlook } from '@/core/ledger';
import { amount } from '@/core/money';
import type { Deadline } from '@/core/pricing';
import { type Day, instant, parseTermEnd, type TermEnd } from '@/core/time';
import {
  amountsWords,
  daysWords,
  deadlineFigures,
  mailWords,
  namesWords,
  outlookWords,
  switchHoursWords,
  termEndWords,
} from './words';

const style = { zone: 'UTC', today: '2026-11-24' as Day };
const end = (text: string) => parseTermEnd(text) as TermEnd;
const charge: Charge = {
  place: 0,
  at: instant('2026-12-06T00:00:00Z'),
  years: 1,
  cost: amount(1138, 'USD'),
  outcome: 'pass',
  assumed: false,
  paymentMethod: 'balance',
  cause: null,
  newEnd: end('2027-12-11'),
  balanceMinor: 0,
};
const at = instant('2026-12-21T10:15:00Z');

describe('what happens next, in a few words', () => {
  test.each<[Outlook, string]>([
    [{ kind: 'charged', charge }, 'charged 6 Dec'],
    [{ kind: 'charged', charge: { ...charge, assumed: true } }, 'charge due 6 Dec'],
    [{ kind: 'charge fails', charge }, 'charge fails 6 Dec'],
    [{ kind: 'lapses', end: end('2027-01-03'), ifOff: false }, 'lapses 3 Jan 2027'],
    [{ kind: 'lapses', end: end('2027-01-03'), ifOff: true }, 'auto-renew not known: lapses 3 Jan 2027, if it is off'],
    [{ kind: 'late until', at }, 'late until 20 Dec'],
    [{ kind: 'auctioned', at }, 'auctioned 21 Dec'],
    [{ kind: 'restore by', at }, 'restore by 20 Dec'],
    [{ kind: 'report due', at }, 'report by 20 Dec'],
    [{ kind: 'pending transfer' }, 'transfer pending'],
    [{ kind: 'available from', at }, 'pending delete, available 21 Dec'],
    [{ kind: 'available since', at }, 'available since 21 Dec'],
    [{ kind: 'unknown' }, 'end of term not known'],
  ])('%j: %s', (outlook, words) => {
    expect(outlookWords(outlook, style)).toBe(words);
  });
});

describe('cost now, then', () => {
  const deadline = (more: Partial<Deadline>): Deadline => ({
    at,
    kind: 'restore',
    before: amount(1138, 'USD'),
    after: amount(12_518, 'USD'),
    ruleOfThumb: false,
    ...more,
  });
  test.each<[Deadline | null, string]>([
    [deadline({}), '11.38 → 125.18'],
    [deadline({ ruleOfThumb: true }), '11.38 → ≈125.18'],
    [deadline({ kind: 'charge', after: null }), '11.38'],
    [deadline({ kind: 'lost', after: null }), '11.38 → lost'],
    [deadline({ kind: 'auction', after: null }), '11.38 → lost'],
    [deadline({ before: null }), 'paid → 125.18'],
    [deadline({ before: amount(690, 'EUR'), after: amount(5190, 'EUR') }), '€6.90 → 51.90'],
    [deadline({ before: null, after: null }), 'no price'],
    [deadline({ kind: 'charge', before: null, after: null }), 'no price'],
    [null, ''],
  ])('%#', (given, words) => {
    expect(deadlineFigures(given, 'USD')).toBe(words);
  });
});

test('a date without a time is shown as it was given, whatever the zone', () => {
  expect(termEndWords(end('2026-12-09'), { ...style, zone: 'America/New_York' })).toBe('9 Dec');
  expect(termEndWords(end('2026-12-09T02:00:00Z'), { ...style, zone: 'America/New_York' })).toBe('8 Dec');
});

test('numbers of names and days, and sums of several currencies', () => {
  expect([namesWords(1), namesWords(0), namesWords(12_000)]).toEqual(['one name', '0 names', '12,000 names']);
  expect([daysWords(40), daysWords(-18), daysWords(0)]).toEqual(['+40', '-18', '0']);
  expect(amountsWords([amount(1138, 'USD'), amount(690, 'EUR')])).toBe('$11.38 + €6.90');
  expect(amountsWords([])).toBe('–');
});

test('how long a registrar takes with a switch is not guessed where nobody has said', () =>
  expect(
    switchHoursWords([
      { label: 'Quaymark', switchHours: 48 },
      { label: 'Bollard', switchHours: null },
    ]),
  ).toBe('Quaymark up to 48 hours, how long Bollard takes is not known'));

test('the holder’s mail: by the last whole day in the office’s zone, and on hold once that is over', () => {
  const by = instant('2026-12-09T00:00:00Z');
  const shown = (zone: string, day: string) => mailWords(by, instant(day), { ...style, zone });
  expect(shown('UTC', '2026-11-24T12:00:00Z')).toContain('confirmed by 8 Dec,');
  expect(shown('America/New_York', '2026-11-24T12:00:00Z')).toContain('confirmed by 7 Dec,');
  expect(shown('UTC', '2026-12-09T00:00:00Z')).toContain('On hold');
});
