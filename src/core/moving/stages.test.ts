import { describe, expect, test } from 'vitest';
import { addDays, addYears, dayOf, instant } from '../time';
import {
  autoAsBefore,
  BEFORE_REQUEST,
  endOf,
  judgeRequest,
  MOVE_STAGES,
  MOVE_WAY,
  moveDueAt,
  OVER_MOVES,
  stageOnceBack,
  turnBackBy,
  turnOfMove,
} from './index';

const THEN = instant('2026-10-01T00:00:00Z');
const NOW = instant('2026-11-24T00:00:00Z');
const OURS = 'harbour-wrackgate';

describe('a request that may have been sent, by what is seen after it (guarded resend; states: RFC 5731 section 3.2.4)', () => {
  const before = { requestedBy: 'somebody', requestedAt: THEN };
  const seen = (status: string | null, requestedBy = OURS, requestedAt = NOW) => ({
    isOurs: false,
    transfer: status === null ? null : { status, requestedBy, requestedAt },
  });
  test.each([
    ['it is at our login: arrived', { isOurs: true, transfer: null }, null, 'arrived'],
    ['nobody knows of a transfer: it was not taken', seen(null), null, 'send'],
    ['pending, asked for by us', seen('pending'), before, 'pending'],
    ['pending, asked for by another', seen('pending', 'somebody'), null, 'foreign'],
    ['the one of before, ended: nothing has changed', seen('clientRejected', 'somebody', THEN), before, 'send'],
    [
      'ours of before, cancelled: nothing has changed',
      seen('clientCancelled', OURS, THEN),
      { requestedBy: OURS, requestedAt: THEN },
      'send',
    ],
    ['newly rejected', seen('clientRejected'), before, 'rejected'],
    ['newly cancelled', seen('clientCancelled'), null, 'cancelled'],
    ['newly cancelled by the server, which nobody had answered', seen('serverCancelled'), null, 'timed out'],
    ['newly approved, not yet at our login', seen('serverApproved'), null, 'approved'],
    ['another’s, over since: ours was never taken', seen('clientRejected', 'somebody'), null, 'send'],
    ['another’s, gone through', seen('clientApproved', 'somebody'), null, 'foreign'],
  ] as const)('%s', (_, look, mark, expected) => {
    expect(judgeRequest(look, mark, OURS)).toBe(expected);
  });
});

test('the six states of a transfer, by how they end it', () => {
  expect(
    ['pending', 'clientApproved', 'serverApproved', 'clientRejected', 'clientCancelled', 'serverCancelled'].map(endOf),
  ).toEqual([null, 'approved', 'approved', 'rejected', 'cancelled', 'timed out']);
});

describe('whose turn it is', () => {
  const turns = (losing: boolean, gaining: boolean) =>
    MOVE_STAGES.map((stage) => turnOfMove(stage, { losing, gaining }));
  test('by link at both sides a person has nothing to do', () => {
    expect(turns(true, true)).not.toContain('you');
  });
  test('by hand at both sides nobody but a person takes it further, the registry apart', () => {
    expect(Object.fromEntries(MOVE_STAGES.map((stage, i) => [stage, turns(false, false)[i]]))).toMatchObject({
      funded: 'you',
      'auto-renew off': 'you',
      unlocked: 'you',
      'code held': 'you',
      pending: 'registry',
      approved: 'registry',
      arrived: 'you',
      'going back': 'you',
    });
  });
  test('what is over is nobody’s turn, and due never', () => {
    for (const stage of OVER_MOVES) {
      expect(turnOfMove(stage, { losing: true, gaining: true })).toBe('nobody');
      expect(moveDueAt(stage, { losing: true, gaining: true }, NOW, null)).toBeNull();
    }
  });
});

test('a transfer that is pending is due a day after the registry acts by itself', () => {
  const links = { losing: false, gaining: true };
  expect(moveDueAt('pending', links, NOW, addDays(NOW, 5))).toBe(addDays(NOW, 6));
  expect(moveDueAt('pending', links, NOW, null)).toBe(addDays(NOW, 7));
});

test('turned back in time for the old account’s charge, or for the end where auto-renew was off', () => {
  const end = instant('2027-06-09T00:00:00Z');
  expect(dayOf(turnBackBy(end, true, 5, 48))).toBe('2027-06-02');
  expect(turnBackBy(end, false, 5, 48)).toBe(end);
  expect(turnBackBy(addYears(end, 1), true, 0, 0)).toBe(addYears(end, 1));
});

test('what nobody knew of auto-renew is set on: a name must not lapse over a transfer', () => {
  expect((['on', 'stalled', 'unknown', 'off'] as const).map(autoAsBefore)).toEqual(['on', 'on', 'on', 'off']);
});

test('only what was paid has to come back', () => {
  expect([null, 0, 1138].map(stageOnceBack)).toEqual(['given up', 'given up', 'credit awaited']);
});

test('the way of a transfer is every stage in its order, without those that go back', () => {
  expect(['planned', ...MOVE_WAY, 'going back', 'credit awaited', 'given up']).toEqual([...MOVE_STAGES]);
  expect(MOVE_WAY.slice(0, 6)).toEqual(BEFORE_REQUEST.slice(1));
});
