import { describe, expect, test } from 'vitest';
import { GENERIC, TODAY } from '../ledger/sampleLedger';
import { addDays } from '../time';
import { releaseStrip } from './releaseStrip';

const kinds = (...given: Parameters<typeof releaseStrip>) => releaseStrip(...given).stretches.map(({ kind }) => kind);

/** Source: redemption 30 days, deletion 5 days (registry agreements); deleted at once, a name is free 35 days after its term. */
describe('the life of somebody else’s name up to its earliest release', () => {
  test('term, redemption, deletion, and nothing after', () => {
    const termEnd = addDays(TODAY, 65);
    const { stretches, marks } = releaseStrip({ termEnd, earliest: addDays(termEnd, 35) }, GENERIC, TODAY);
    expect(stretches).toEqual([
      { kind: 'term', from: addDays(TODAY, -3650), to: termEnd },
      { kind: 'redemption', from: termEnd, to: addDays(termEnd, 30) },
      { kind: 'pending delete', from: addDays(termEnd, 30), to: addDays(termEnd, 35) },
    ]);
    expect(marks).toEqual([]);
  });

  test('an ending without redemption and deletion is free when its term ends', () => {
    const none = { redemptionDays: 0, pendingDeleteDays: 0 };
    expect(kinds({ termEnd: null, earliest: addDays(TODAY, 90) }, none, TODAY)).toEqual(['term']);
  });

  test('only its end is known, or nothing', () => {
    expect(kinds({ termEnd: addDays(TODAY, 10), earliest: null }, GENERIC, TODAY)).toEqual(['term']);
    expect(kinds({ termEnd: null, earliest: null }, GENERIC, TODAY)).toEqual([]);
  });
});
