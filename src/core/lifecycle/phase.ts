import type { Instant } from '../time';
import type { Marks, ObservedPhase } from './marks';

export const PHASES = ['refundable', 'term', 'late', 'redemption', 'restoring', 'deleting', 'free', 'moving'] as const;
export type Phase = (typeof PHASES)[number];

/**
 * The phase a name with these marks is in at `asOf`. What was observed outranks what was computed, from its own time on:
 * a pending restore until its report is due, a transfer until it is settled. Periods: RFC 3915.
 */
export function phaseAt(marks: Marks, observed: ObservedPhase | null, asOf: Instant): Phase {
  if (observed && observed.at <= asOf) {
    if (observed.phase === 'moving') return 'moving';
    if (observed.phase === 'restoring' && marks.restoreReportDue !== null && asOf < marks.restoreReportDue)
      return 'restoring';
  }
  if (marks.refundableUntil !== null && asOf < marks.refundableUntil && asOf < marks.termEnd) return 'refundable';
  if (asOf < marks.termEnd) return 'term';
  if (asOf < marks.deletion) return 'late';
  if (asOf < marks.purge) return 'redemption';
  if (asOf < marks.release) return 'deleting';
  return 'free';
}
