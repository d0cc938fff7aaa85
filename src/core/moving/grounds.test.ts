import { describe, expect, test } from 'vitest';
import { indexRules, type LedgerName, projectLedger, rowsOn } from '../ledger';
import { GENERIC, nameWith, RENEWAL, rulesWith, TODAY } from '../ledger/sampleLedger';
import type { Policy } from '../lifecycle';
import { blankRecord, type EppStatus } from '../records';
import { addDays, dayOf, instant } from '../time';
import {
  bestMoment,
  groundsAgainst,
  lastMoment,
  movingCalendar,
  movingFacts,
  type SeenRecord,
  standingAt,
} from './index';

/**
 * Days from common practice (no source) except where a standard is named; the last day to request is the next charge less eight days.
 */
const record = (statuses: readonly EppStatus[], transferredOn?: string, lastAt = TODAY): SeenRecord => ({
  lastAt,
  record: {
    ...blankRecord('rdap', 'kelpkiln.com'),
    statuses,
    events: transferredOn ? [{ action: 'transfer', at: instant(transferredOn) }] : [],
  },
});

function factsOf(name: LedgerName, records = [record([])], policy: Policy = GENERIC) {
  const projection = projectLedger(indexRules(rulesWith({ policies: [policy], prices: [RENEWAL] })), [name], TODAY);
  return movingFacts(rowsOn(projection, TODAY)(0), policy, records);
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
      [{ ...term, lock: null }, [record(['clientTransferProhibited'])]],
      ['transfer lock mended by owner'],
    ],
    [
      'the lock as either of the two has it: nobody knows which is older',
      [term, [record(['clientTransferProhibited'])]],
      ['transfer lock mended by owner'],
    ],
    [
      'a status of an older look has passed by the newer one',
      [term, [record(['ok']), record(['pendingTransfer'], undefined, addDays(TODAY, -20))]],
      [],
    ],
    [
      'the grace of a year let stand ends so many days after that year began, however many were bought',
      [known('2028-11-10T00:00:00Z'), [record(['autoRenewPeriod'])]],
      ['charge not settled until 2026-12-25 mended by time'],
    ],
    [
      'a lock of updates, and of the registry',
      [term, [record(['clientUpdateProhibited', 'serverTransferProhibited'])]],
      ['registry lock mended by registrar', 'update lock mended by owner'],
    ],
    ['pending, RFC 5731 section 2.3', [term, [record(['pendingUpdate'])]], ['pending mended by time']],
    [
      'transferred lately',
      [term, [record([], '2026-10-10T00:00:00Z')]],
      ['transferred lately until 2026-12-09 mended by time'],
    ],
    ['transferred long ago', [term, [record([], '2026-09-10T00:00:00Z')]], []],
    [
      'transferred lately, where the ending does not mind',
      [term, [record([], '2026-10-10T00:00:00Z')], { ...GENERIC, transferLockDays: 0 }],
      [],
    ],
    ['redemption, RFC 3915', [known('2026-09-20T00:00:00Z')], ['redemption mended by restore']],
    ['past its term', [known('2026-11-20T00:00:00Z')], ['past its term mended by renewal']],
    [
      'a year that the registry’s grace lets stand, RFC 3915',
      [known('2027-11-10T00:00:00Z'), [record(['autoRenewPeriod'])]],
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
    const locked: Parameters<typeof factsOf> = [known('2028-03-01T00:00:00Z'), [record(['serverTransferProhibited'])]];
    expect(calendar(...locked)).toEqual(['cannot 2026-11-24 to 2027-11-24']);
    expect(best(...locked)).toBeNull();
  });
});

test('what neither ledger nor record says of the lock is not known; a record without the status says that it is off', () => {
  const lockOf = (lock: boolean | null, records: SeenRecord[]) =>
    factsOf(known('2027-06-01T00:00:00Z', { lock }), records).lock;
  expect(lockOf(null, [])).toBeNull();
  expect(lockOf(null, [record(['ok'])])).toBe(false);
  expect(lockOf(false, [])).toBe(false);
  expect(lockOf(true, [record(['ok'])])).toBe(true);
});

test('a registration date that only the record knows counts', () => {
  const seen = record(['ok']);
  const registered = { ...seen, record: { ...seen.record, registered: addDays(TODAY, -10) } };
  expect(groundsAgainst(factsOf(known('2027-11-14T00:00:00Z'), [registered]), TODAY)[0]).toMatchObject({
    kind: 'registered lately',
    until: addDays(TODAY, 50),
  });
});
