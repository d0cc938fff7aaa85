import { describe, expect, test } from 'vitest';
import { addDays, instant, parseTermEnd } from '../time';
import { blankRecord, type EppStatus, releaseOf } from './index';

const POLICY = { lateDays: 45, redemptionDays: 30, pendingDeleteDays: 5, pendingRestoreDays: 7 };
const SEEN = instant('2026-11-24T09:12:00Z');
const END = '2026-12-01T00:00:00Z';
const record = (statuses: readonly EppStatus[], more = {}) => ({
  ...blankRecord('rdap', 'ketterby.com'),
  statuses,
  expires: parseTermEnd(END),
  ...more,
});
const days = (range: { earliest: number | null; latest: number | null }, from = SEEN) =>
  [range.earliest, range.latest].map((at) => (at === null ? null : Math.round((at - from) / 86_400_000)));

describe('when a name of somebody else comes free', () => {
  test('in term: deleted at once or after the whole late window, if nobody renews', () => {
    const release = releaseOf(record(['ok']), POLICY, SEEN, null);
    expect(days(release, instant(END))).toEqual([35, 80]);
    expect(release).toMatchObject({ free: false, ifNotRenewed: true });
  });

  test('a date without a time widens the range by its own uncertainty', () => {
    const exact = releaseOf(record(['ok']), POLICY, SEEN, null);
    const vague = releaseOf(record(['ok'], { expires: parseTermEnd('2026-12-01') }), POLICY, SEEN, null);
    expect(vague.earliest ?? 0).toBeLessThan(exact.earliest ?? 0);
    expect(vague.latest ?? 0).toBeGreaterThan(exact.latest ?? 0);
  });

  test('in the provisional year the term ended a year before what is shown', () => {
    const shown = record(['autoRenewPeriod'], { expires: parseTermEnd('2027-11-01T00:00:00Z') });
    expect(days(releaseOf(shown, POLICY, SEEN, null), instant('2026-11-01T00:00:00Z'))).toEqual([35, 80]);
  });

  test('in redemption: counted from between the last sight without it and the first with it', () => {
    const release = releaseOf(record(['pendingDelete', 'redemptionPeriod']), POLICY, SEEN, addDays(SEEN, -3));
    expect(days(release)).toEqual([32, 35]);
    expect(release.ifNotRenewed).toBe(true);
  });

  test('in redemption, never seen before: not before the record last changed', () => {
    const changed = record(['pendingDelete', 'redemptionPeriod'], { changed: addDays(SEEN, -10) });
    expect(days(releaseOf(changed, POLICY, SEEN, null))).toEqual([25, 35]);
  });

  test('in deletion nobody can keep it any more', () => {
    const release = releaseOf(record(['pendingDelete']), POLICY, SEEN, addDays(SEEN, -1));
    expect(days(release)).toEqual([4, 5]);
    expect(release.ifNotRenewed).toBe(false);
  });

  test('free is free; without an end nothing is known', () => {
    expect(releaseOf({ ...record([]), found: false }, POLICY, SEEN, null)).toMatchObject({ free: true });
    expect(releaseOf(record(['ok'], { expires: null }), POLICY, SEEN, null)).toEqual({
      earliest: null,
      latest: null,
      free: false,
      ifNotRenewed: true,
    });
  });
});
