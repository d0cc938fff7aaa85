import { addDays, type Instant } from '../time';
import type { Marks, ObservedPhase } from './marks';

export const PHASES = [
  'refundable',
  'term',
  'late',
  'redemption',
  'pending restore',
  'pending delete',
  'available',
  'pending transfer',
] as const;
export type Phase = (typeof PHASES)[number];

/** Past the last phase in which anything keeps a name: in deletion, or free for anyone. */
export const GONE_PHASES: readonly Phase[] = ['pending delete', 'available'];
export function isGone(phase: Phase | null): boolean {
  return phase !== null && GONE_PHASES.includes(phase);
}

/** Days after which a transfer that nobody refuses is carried out (RFC 5731 section 3.2.4: by the server's policy; five for generic endings). */
export const TRANSFER_DAYS = 5;

/** By when a transfer that was seen is settled, one way or the other. */
export function movedBy(observed: Pick<ObservedPhase, 'at'>): Instant {
  return addDays(observed.at, TRANSFER_DAYS);
}

/**
 * The phase a name with these marks is in at `asOf`. What was observed outranks what was computed, from its own time on:
 * a pending restore until its report is due, a transfer until its days are over. Periods: RFC 3915.
 */
export function phaseAt(marks: Marks, observed: ObservedPhase | null, asOf: Instant): Phase {
  if (observed && observed.at <= asOf) {
    if (observed.phase === 'pending transfer' && asOf < movedBy(observed)) return 'pending transfer';
    if (observed.phase === 'pending restore' && marks.restoreReportDue !== null && asOf < marks.restoreReportDue)
      return 'pending restore';
  }
  // A name may be deleted in the middle of its term: then its end counts no more.
  if (asOf >= marks.deletion) {
    if (asOf < marks.redemptionEnd) return 'redemption';
    return asOf < marks.release ? 'pending delete' : 'available';
  }
  if (marks.refundableUntil !== null && asOf < marks.refundableUntil && asOf < marks.termEnd) return 'refundable';
  return asOf < marks.termEnd ? 'term' : 'late';
}
