import { describe, expect, test } from 'vitest';
import type { Charge, ChargedState } from '../funding';
import { type AccountWindow, lifecycleMarks, type ObservedPhase, type Phase, type Policy, phaseAt } from '../lifecycle';
import { addDays, type Instant, instant, type TermEnd } from '../time';
import { isCaution, type Outlook, outlookOf } from './outlook';

const END = instant('2027-03-09T10:15:00Z');
const POLICY = {
  lateDays: 45,
  redemptionDays: 30,
  pendingRestoreDays: 7,
  pendingDeleteDays: 5,
  refundableDays: 5,
} as Policy;
const ACCOUNT: AccountWindow = { lateDays: 30, auctionDay: null };
const end: TermEnd = { at: END, precision: 'instant' };
const at = (days: number) => addDays(END, days);
const state = (more: Partial<ChargedState> = {}): ChargedState => ({
  termEnd: end,
  setting: 'off',
  coming: null,
  saving: null,
  failed: null,
  ...more,
});

function on(days: number, more: Partial<ChargedState> = {}, account = ACCOUNT, observed: ObservedPhase | null = null) {
  const marks = lifecycleMarks({ registeredAt: null, termEnd: end, observed }, POLICY, account);
  return outlookOf(phaseAt(marks, observed, at(days)), marks, state(more), at(days));
}

describe('what happens next if nothing is done', () => {
  test.each<[number, Outlook]>([
    [-100, { kind: 'lapses', end, ifOff: false }],
    [-1, { kind: 'lapses', end, ifOff: false }],
    [0, { kind: 'late until', at: at(30) }],
    [29, { kind: 'late until', at: at(30) }],
    [30, { kind: 'restore by', at: at(60) }],
    [60, { kind: 'available from', at: at(65) }],
    [65, { kind: 'available since', at: at(65) }],
    [900, { kind: 'available since', at: at(65) }],
  ])('on day %d of its end', (day, outlook) => {
    expect(on(day)).toEqual(outlook);
  });

  test('nobody has said whether auto-renew is on: it lapses only if it is off', () => {
    expect(on(-10, { setting: 'unknown' })).toEqual({ kind: 'lapses', end, ifOff: true });
    expect(on(-10, { setting: 'stalled' })).toEqual({ kind: 'lapses', end, ifOff: false });
  });

  test('a charge that comes is what happens next, whether it passes or fails', () => {
    const charge = { at: at(-5), outcome: 'pass' } as Charge;
    expect(on(-10, { coming: charge })).toEqual({ kind: 'charged', charge });
    const failing = { at: at(-5), outcome: 'fail' } as Charge;
    expect(on(-10, { coming: failing })).toEqual({ kind: 'charge fails', charge: failing });
    // Past its term it is still tried: the charge outranks the late window.
    expect(on(2, { coming: charge }).kind).toBe('charged');
  });

  test('the registrar auctions late names away before it deletes them', () => {
    const auctions = { lateDays: 30, auctionDay: 10 };
    expect(on(5, {}, auctions)).toEqual({ kind: 'auctioned', at: at(10) });
    expect(on(10, {}, auctions)).toEqual({ kind: 'late until', at: at(30) });
    // An auction past the deletion does not happen.
    expect(on(5, {}, { lateDays: 30, auctionDay: 30 })).toEqual({ kind: 'late until', at: at(30) });
  });

  test('what was seen decides: moving, restoring, deleted in mid-term, not deleted', () => {
    const seen = (phase: ObservedPhase['phase'], day: number) => ({ phase, at: at(day) });
    expect(on(-18, {}, ACCOUNT, seen('pending transfer', -20))).toEqual({ kind: 'pending transfer' });
    expect(on(-15, {}, ACCOUNT, seen('pending transfer', -20)).kind).toBe('lapses');
    expect(on(41, {}, ACCOUNT, seen('pending restore', 40))).toEqual({ kind: 'report due', at: at(47) });
    expect(on(-18, {}, ACCOUNT, seen('redemption', -20))).toEqual({ kind: 'restore by', at: at(10) });
    expect(on(41, {}, ACCOUNT, seen('registered', 40))).toEqual({ kind: 'late until', at: at(45) });
  });

  test('an ending without late window and redemption loses a name at its end', () => {
    const none = { ...POLICY, lateDays: 0, redemptionDays: 0, pendingDeleteDays: 0 } as Policy;
    const marks = lifecycleMarks({ registeredAt: null, termEnd: end, observed: null }, none, ACCOUNT);
    const phase: Phase = phaseAt(marks, null, END);
    expect(outlookOf(phase, marks, state(), END as Instant)).toEqual({ kind: 'available since', at: END });
  });
});

test('a caution is what loses the name, or money that need not be lost', () => {
  const charge = {} as Charge;
  const cautions: Outlook[] = [
    { kind: 'charge fails', charge },
    { kind: 'restore by', at: END },
    { kind: 'report due', at: END },
    { kind: 'auctioned', at: END },
  ];
  for (const outlook of cautions) expect(isCaution(outlook)).toBe(true);
  const calm: Outlook[] = [
    { kind: 'charged', charge },
    { kind: 'lapses', end, ifOff: false },
    { kind: 'late until', at: END },
    { kind: 'pending transfer' },
    { kind: 'available since', at: END },
    { kind: 'unknown' },
  ];
  for (const outlook of calm) expect(isCaution(outlook)).toBe(false);
});
