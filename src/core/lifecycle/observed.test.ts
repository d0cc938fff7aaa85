import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { deadlineAt } from '../pricing';
import { addDays, type Instant, instant } from '../time';
import { refuseAction } from './actions';
import { type AccountWindow, lifecycleMarks, type ObservedPhase } from './marks';
import { type Phase, phaseAt } from './phase';
import type { Policy } from './policy';

const END = instant('2027-03-09T10:15:00Z');
const ACCOUNT: AccountWindow = { lateDays: 30, auctionDay: null };
/** The generic endings, as far as marks look at a policy. */
const POLICY = {
  lateDays: 45,
  redemptionDays: 30,
  pendingRestoreDays: 7,
  pendingDeleteDays: 5,
  refundableDays: 5,
} as Policy;
const at = (days: number) => addDays(END, days);
const money = (minor: number) => ({ minor, currency: 'USD' });
const COSTS = {
  renewal: money(1138),
  lateFee: null,
  lateRenewal: money(1138),
  restore: money(12_518),
  restoreRuleOfThumb: false,
};

function seen(phase: ObservedPhase['phase'], days: number, account = ACCOUNT) {
  const observed = { phase, at: at(days) };
  const marks = lifecycleMarks(
    { registeredAt: null, termEnd: { at: END, precision: 'instant' }, observed },
    POLICY,
    account,
  );
  return { marks, on: (day: number): Phase => phaseAt(marks, observed, at(day)) };
}

describe('what was seen wins from its own time on', () => {
  test('deleted in the middle of its term: it is restored, not renewed, and its step lies ahead', () => {
    const { marks, on } = seen('redemption', -100);
    expect([on(-101), on(-100), on(-71), on(-70), on(-65)]).toEqual([
      'term',
      'redemption',
      'redemption',
      'pending delete',
      'available',
    ]);
    const facts = { phase: on(-90), marks };
    expect(refuseAction('restore', facts)).toBeNull();
    expect(refuseAction('renew', facts)).toMatchObject({ code: 'in-redemption' });
    expect(deadlineAt(on(-90), marks, null, COSTS, at(-90))).toMatchObject({
      kind: 'lost',
      at: at(-70),
      before: COSTS.restore,
    });
  });

  test('redemption that is seen after the computed deletion, end of redemption or release moves them', () => {
    for (const day of [35, 62, 66, 200]) {
      const { marks, on } = seen('redemption', day);
      expect(marks).toMatchObject({ deletion: at(day), redemptionEnd: at(day + 30), release: at(day + 35) });
      expect(on(day)).toBe('redemption');
    }
  });

  test('deletion that is seen before or after its computed day', () => {
    expect(seen('pending delete', 40).on(41)).toBe('pending delete');
    expect(seen('pending delete', 90).marks).toMatchObject({ redemptionEnd: at(90), release: at(95) });
    expect(seen('pending delete', -20).on(-19)).toBe('pending delete');
  });

  test('not deleted by the day on which it should have been: at the ending’s own window, or a day later', () => {
    expect(seen('registered', 31).marks.deletion).toBe(at(45));
    expect(seen('registered', 50).marks.deletion).toBe(at(51));
    expect(seen('registered', 31).on(40)).toBe('late');
    // Seen in time it says nothing new.
    expect(seen('registered', 10).marks.deletion).toBe(at(30));
  });

  test('a transfer ends: after five days the name is where its dates put it', () => {
    const { on } = seen('pending transfer', -20);
    expect([on(-21), on(-20), on(-16), on(-15), on(1)]).toEqual([
      'term',
      'pending transfer',
      'pending transfer',
      'term',
      'late',
    ]);
  });

  test('a report that does not come leaves what remained of redemption', () => {
    // Deleted on day 30, restored on day 55: five days of redemption remained, and the report was due on day 62.
    const { marks, on } = seen('pending restore', 55);
    expect(marks).toMatchObject({ deletion: at(30), restoreReportDue: at(62), redemptionEnd: at(67), release: at(72) });
    expect([on(54), on(55), on(62), on(67)]).toEqual(['redemption', 'pending restore', 'redemption', 'pending delete']);
  });

  test('the registrar’s auction of late names is the step while the name is still in term', () => {
    const { marks } = seen('registered', -50, { lateDays: 30, auctionDay: 15 });
    expect(deadlineAt('term', marks, null, COSTS, at(-40))).toMatchObject({
      kind: 'auction',
      at: at(15),
      before: COSTS.renewal,
    });
    const fee = { ...COSTS, lateFee: money(350), lateRenewal: money(1488) };
    expect(deadlineAt('term', marks, null, fee, at(-40))).toMatchObject({ kind: 'late fee', at: at(0) });
    expect(deadlineAt('late', marks, null, fee, at(3))).toMatchObject({
      kind: 'auction',
      at: at(15),
      before: fee.lateRenewal,
    });
  });
});

/**
 * The life of a name told day by day, as a registry does: written without looking at marks or phases. Source of the periods: RFC 3915
 * for their order, the policy for their days.
 */
function toldDayByDay(observed: { phase: ObservedPhase['phase']; day: number } | null, lateDays: number): Phase[] {
  const days: Phase[] = [];
  let phase: Phase = 'term';
  let left = 0;
  let redemptionLeft = POLICY.redemptionDays;
  for (let day = -120; day < 200; day += 1) {
    if (phase === 'term' && day === 0) [phase, left] = ['late', lateDays];
    if (phase === 'late' && left === 0) [phase, left] = ['redemption', POLICY.redemptionDays];
    if (phase === 'redemption' && left === 0) [phase, left] = ['pending delete', POLICY.pendingDeleteDays];
    if (phase === 'pending delete' && left === 0) phase = 'available';
    if (phase === 'pending restore' && left === 0) [phase, left] = ['redemption', redemptionLeft];
    if (phase === 'redemption' && left === 0) [phase, left] = ['pending delete', POLICY.pendingDeleteDays];
    if (observed?.day === day) {
      if (observed.phase === 'redemption') [phase, left] = ['redemption', POLICY.redemptionDays];
      if (observed.phase === 'pending delete') [phase, left] = ['pending delete', POLICY.pendingDeleteDays];
      if (observed.phase === 'pending restore') {
        redemptionLeft = phase === 'redemption' ? left : POLICY.redemptionDays;
        [phase, left] = ['pending restore', POLICY.pendingRestoreDays];
      }
      if (observed.phase === 'registered' && !['term', 'late'].includes(phase))
        [phase, left] = ['late', Math.max(POLICY.lateDays - day, 1)];
    }
    days.push(phase);
    left -= 1;
  }
  return days;
}

test('a record says anything on any day: from then on the phases go as a registry would take them', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('redemption', 'pending delete', 'pending restore', 'registered' as const),
      fc.integer({ min: -119, max: 150 }),
      fc.integer({ min: 0, max: POLICY.lateDays }),
      (phase, day, lateDays) => {
        const observed = { phase: phase as ObservedPhase['phase'], at: at(day) };
        const marks = lifecycleMarks(
          { registeredAt: null, termEnd: { at: END, precision: 'instant' }, observed },
          POLICY,
          { lateDays, auctionDay: null },
        );
        const told = toldDayByDay({ phase: observed.phase, day }, lateDays);
        for (let i = 120 + day; i < told.length; i += 1)
          expect([i - 120, phaseAt(marks, observed, at(i - 120) as Instant)]).toEqual([i - 120, told[i]]);
      },
    ),
    { numRuns: 400 },
  );
});
