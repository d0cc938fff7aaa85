import { describe, expect, test } from 'vitest';
import { indexRules, type LedgerName, projectLedger, rowsOn } from '../ledger';
import { GENERIC, nameWith, RENEWAL, rulesWith, TODAY } from '../ledger/sampleLedger';
import type { Policy } from '../lifecycle';
import { blankRecord, type EppStatus } from '../records';
import { addDays, dayOf, type Instant, instant } from '../time';
import {
  bestMoment,
  endAfterTransfer,
  groundsAgainst,
  lastMoment,
  movingCalendar,
  movingFacts,
  seenOf,
  standingAt,
} from './index';

/**
 * Days from common practice (no source) except where a standard is named; the last day to request is the next charge less eight days.
 */
type Look = Pick<LedgerName, 'statuses' | 'checkedAt' | 'transferred'>;
const looked = (statuses: readonly EppStatus[], transferredOn?: string): Look => ({
  statuses,
  checkedAt: TODAY,
  transferred: transferredOn ? { at: instant(transferredOn), precision: 'instant' } : null,
});

function factsOf(name: LedgerName, look: Partial<Look> = looked([]), policy: Policy = GENERIC) {
  const rules = rulesWith({ policies: [policy], prices: [RENEWAL] });
  const projection = projectLedger(indexRules(rules), [{ ...name, ...look }], TODAY);
  return movingFacts(rowsOn(projection, TODAY)(0), policy);
}

const known = (expires: string, more: Partial<LedgerName> = {}) =>
  nameWith('kelpkiln.com', expires, { setting: 'off', lock: false, ...more });

describe('grounds, with what mends each', () => {
  const term = known('2027-06-01T00:00:00Z');
  test.each<[string, Parameters<typeof factsOf>, string[]]>([
    ['nothing', [term], []],
    [
      'the lock, RFC 5731 section 2.3',
      [known('2027-06-01T00:00:00Z', { lock: true })],
      ['transfer lock mended by owner'],
    ],
    [
      'the lock as the record has it',
      [{ ...term, lock: null }, looked(['clientTransferProhibited'])],
      ['transfer lock mended by owner'],
    ],
    [
      'the lock as either of the two has it: nobody knows which is older',
      [term, looked(['clientTransferProhibited'])],
      ['transfer lock mended by owner'],
    ],
    [
      'the grace of a year let stand ends so many days after that year began, however many were bought',
      [known('2028-11-10T00:00:00Z'), looked(['autoRenewPeriod'])],
      ['charge not settled until 2026-12-25 mended by time'],
    ],
    [
      'a lock of updates, and of the registry',
      [term, looked(['clientUpdateProhibited', 'serverTransferProhibited'])],
      ['registry lock mended by registrar', 'update lock mended by owner'],
    ],
    ['pending, RFC 5731 section 2.3', [term, looked(['pendingUpdate'])], ['pending mended by time']],
    [
      'transferred lately',
      [term, looked([], '2026-10-10T00:00:00Z')],
      ['transferred lately until 2026-12-09 mended by time'],
    ],
    [
      'its holder changed lately',
      [{ ...term, holderChanged: { at: addDays(TODAY, -20), precision: 'day' as const } }],
      ['holder changed lately until 2027-01-04 mended by time'],
    ],
    [
      'its holder changed lately, the lock after it waived before',
      [{ ...term, holderChanged: { at: addDays(TODAY, -20), precision: 'day' as const }, holderLockWaived: true }],
      [],
    ],
    ['transferred long ago', [term, looked([], '2026-09-10T00:00:00Z')], []],
    [
      'transferred lately, where the ending does not mind',
      [term, looked([], '2026-10-10T00:00:00Z'), { ...GENERIC, transferLockDays: 0 }],
      [],
    ],
    ['redemption, RFC 3915', [known('2026-09-20T00:00:00Z')], ['redemption mended by restore']],
    ['past its term', [known('2026-11-20T00:00:00Z')], ['past its term mended by renewal']],
    [
      'a year that the registry’s grace lets stand, RFC 3915',
      [known('2027-11-10T00:00:00Z'), looked(['autoRenewPeriod'])],
      ['charge not settled until 2026-12-25 mended by time'],
    ],
    [
      'ten years from the arrival at most',
      [known('2036-03-01T00:00:00Z')],
      ['over the ceiling until 2027-03-01 mended by time'],
    ],
    [
      'no year is added, so none is too many',
      [known('2036-03-01T00:00:00Z'), undefined, { ...GENERIC, transferYears: 0 }],
      [],
    ],
  ])('%s', (_, given, expected) => {
    const standing = standingAt(groundsAgainst(factsOf(...given), TODAY), TODAY);
    expect(
      standing.map(
        ({ kind, until, mends }) => `${kind}${until === null ? '' : ` until ${dayOf(until)}`} mended by ${mends}`,
      ),
    ).toEqual(expected);
  });
});

describe('the calendar of a name', () => {
  const calendar = (...given: Parameters<typeof factsOf>) =>
    movingCalendar(factsOf(...given), TODAY, instant('2027-11-24T00:00:00Z')).map(
      ({ kind, from, until }) => `${kind} ${dayOf(from)} to ${dayOf(until)}`,
    );
  const best = (...given: Parameters<typeof factsOf>) => {
    const at = bestMoment(factsOf(...given), TODAY);
    return at && dayOf(at);
  };
  const last = (...given: Parameters<typeof factsOf>) => {
    const at = lastMoment(factsOf(...given));
    return at && dayOf(at);
  };

  test('a name that is charged: until the charge, then a year is lost until the grace is over', () => {
    const name = known('2027-03-10T00:00:00Z', { setting: 'on' });
    expect(calendar(name)).toEqual([
      'can 2026-11-24 to 2027-03-05',
      'loses a year 2027-03-05 to 2027-04-24',
      'can 2027-04-24 to 2027-11-24',
    ]);
    expect([best(name), last(name)]).toEqual(['2026-11-24', '2027-02-25']);
  });
  test('too near to the charge to arrive before it: after the grace', () => {
    const name = known('2026-12-03T00:00:00Z', { setting: 'on' });
    expect([best(name), last(name)]).toEqual(['2027-01-17', '2026-11-20']);
  });
  test('too near to the charge where no grace follows: once it has been charged', () => {
    const name = known('2026-12-01T00:00:00Z', { setting: 'on' });
    expect(best(name, undefined, { ...GENERIC, lateDays: 0 })).toBe('2026-11-26');
  });
  test('its term ends too soon for it to arrive, and nothing will be charged: never', () => {
    expect(best(known('2026-11-29T00:00:00Z'))).toBeNull();
  });
  test('nothing will be charged: until its end, and no more without a renewal', () => {
    const name = known('2027-01-10T00:00:00Z');
    expect(calendar(name)).toEqual(['can 2026-11-24 to 2027-01-10', 'cannot 2027-01-10 to 2027-11-24']);
    expect([best(name), last(name)]).toEqual(['2026-11-24', '2027-01-02']);
  });
  test('a fresh registration waits; its lock is taken off meanwhile', () => {
    const name = known('2027-10-20T00:00:00Z', {
      registered: { at: instant('2026-10-20T00:00:00Z'), precision: 'instant' },
      lock: true,
    });
    expect(calendar(name)[0]).toBe('cannot 2026-11-24 to 2026-12-19');
    expect(best(name)).toBe('2026-12-19');
  });
  test('a lock of the registry’s never ends by itself', () => {
    const locked: Parameters<typeof factsOf> = [known('2028-03-01T00:00:00Z'), looked(['serverTransferProhibited'])];
    expect(calendar(...locked)).toEqual(['cannot 2026-11-24 to 2027-11-24']);
    expect(best(...locked)).toBeNull();
  });
});

describe('a charge that was told of, until the registry’s grace is over', () => {
  const charged = (on: string, expires: string) => known(expires, { setting: 'on', gracePaid: instant(on) });
  const standing = (...given: Parameters<typeof factsOf>) =>
    standingAt(groundsAgainst(factsOf(...given), TODAY), TODAY).map(
      ({ kind, until }) => `${kind} ${until && dayOf(until)}`,
    );

  test('between the charge and the old end, and after it', () => {
    expect(standing(charged('2026-11-22T00:00:00Z', '2027-11-27T00:00:00Z'))).toEqual([
      'charge not settled 2027-01-11',
    ]);
    expect(standing(charged('2026-11-05T00:00:00Z', '2027-11-10T00:00:00Z'), {})).toEqual([
      'charge not settled 2026-12-25',
    ]);
  });
  test('a late charge counts from the end that it came after', () => {
    expect(standing(charged('2026-11-20T00:00:00Z', '2027-10-30T00:00:00Z'), {})).toEqual([
      'charge not settled 2026-12-14',
    ]);
  });
  test('a record of after the old end that says nothing of the grace shows a renewal; one of before it shows nothing', () => {
    expect(standing(charged('2026-11-05T00:00:00Z', '2027-11-10T00:00:00Z'), looked(['ok']))).toEqual([]);
    expect(standing(charged('2026-11-22T00:00:00Z', '2027-11-27T00:00:00Z'), looked(['ok']))).toHaveLength(1);
  });
  test('a charge of long ago stands against nothing', () => {
    expect(standing(charged('2025-11-05T00:00:00Z', '2027-11-10T00:00:00Z'), {})).toEqual([]);
  });
});

describe('the end after a transfer: the old end without a year that only stood, and what a transfer adds', () => {
  // Check values: common practice and memory, a term that ends 2027-03-10 and is charged.
  const name = known('2027-03-10T00:00:00Z', { setting: 'on' });
  const endAfter = (arrives: string, policy = GENERIC, held = name) => {
    const end = endAfterTransfer(factsOf(held, looked([]), policy), TODAY, instant(`${arrives}T00:00:00Z`));
    return end && dayOf(end);
  };
  test.each([
    ['before the charge', '2027-03-01', '2028-03-10'],
    ['charged, before the end', '2027-03-07', '2028-03-10'],
    ['in the grace: the year is lost', '2027-04-23', '2028-03-10'],
    ['from the end of the grace on it is kept', '2027-04-24', '2029-03-10'],
  ])('%s', (_, arrives, expected) => {
    expect(endAfter(arrives)).toBe(expected);
  });
  test('an ending that adds none, and a charge of the past', () => {
    expect(endAfter('2027-03-01', { ...GENERIC, transferYears: 0 })).toBe('2027-03-10');
    const charged = known('2027-11-10T00:00:00Z', { gracePaid: instant('2026-11-05T00:00:00Z') });
    const arrives = instant('2026-12-20T00:00:00Z');
    const ends = [{}, looked(['ok'])].map(
      (look) => endAfterTransfer(factsOf(charged, look), TODAY, arrives) as Instant,
    );
    expect(ends.map(dayOf)).toEqual(['2027-11-10', '2028-11-10']);
  });
});

test('what neither ledger nor record says of the lock is not known; a record without the status says that it is off', () => {
  const lockOf = (lock: boolean | null, look: Partial<Look>) =>
    factsOf(known('2027-06-01T00:00:00Z', { lock }), look).lock;
  expect(lockOf(null, {})).toBeNull();
  expect(lockOf(null, looked(['ok']))).toBe(false);
  expect(lockOf(false, {})).toBe(false);
  expect(lockOf(true, looked(['ok']))).toBe(true);
});

test('what one look at the records says is kept with the name: the newest transfer, and statuses of either', () => {
  const one = { ...blankRecord('rdap', 'kelpkiln.com'), statuses: ['ok'] as const, registered: TODAY };
  const events = [
    { action: 'last changed', at: TODAY },
    { action: 'transfer', at: addDays(TODAY, -90) },
    { action: 'transfer', at: addDays(TODAY, -9) },
  ];
  const other = { ...one, statuses: ['ok', 'clientTransferProhibited'] as const, events };
  expect(seenOf('kelpkiln.com', [one, other])).toEqual({
    ascii: 'kelpkiln.com',
    holder: null,
    statuses: ['ok', 'clientTransferProhibited'],
    registeredAt: TODAY,
    transferredAt: addDays(TODAY, -9),
  });
  expect(seenOf('kelpkiln.com', [one])).toMatchObject({ transferredAt: null });
});
