import type { Charge } from '../funding';
import type { Marks, Phase } from '../lifecycle';
import type { Amount } from '../money';
import type { Instant } from '../time';

export const DEADLINE_KINDS = ['charge', 'late fee', 'restore', 'auction', 'lost'] as const;
export type DeadlineKind = (typeof DEADLINE_KINDS)[number];

/** The next instant at which doing nothing gets dearer or ends in loss, with the cost before and after. */
export interface Deadline {
  readonly at: Instant;
  readonly kind: DeadlineKind;
  /** What keeping the name costs before the step; `null` when the price is unknown or nothing is owed. */
  readonly before: Amount | null;
  /** What it costs after it; `null` when the name is lost then, unknown, or the step is a charge that passes. */
  readonly after: Amount | null;
  /** Its restore figure is ten times the renewal, for want of a known price. */
  readonly ruleOfThumb: boolean;
}

/** What keeping one name costs, by the way it is kept. `null`: no price is known. */
export interface CostsToKeep {
  readonly renewal: Amount | null;
  /** What the registrar adds once the term has ended; `null` for nothing. */
  readonly lateFee: Amount | null;
  /** Renewal and late fee together. */
  readonly lateRenewal: Amount | null;
  readonly restore: Amount | null;
  /** The restore figure is ten times the renewal, for want of a known price. */
  readonly restoreRuleOfThumb: boolean;
}

/**
 * The deadline of a name at `asOf`: ordinary renewal → late fee, if any → restore plus a year → lost. When the coming
 * charge will pass, the step is that charge and nothing gets dearer. `null` when nothing is left to step (deletion, free).
 * Never earlier than `asOf`.
 */
export function deadlineAt(
  phase: Phase,
  marks: Marks,
  saving: Pick<Charge, 'at' | 'cost'> | null,
  costs: CostsToKeep,
  asOf: Instant,
): Deadline | null {
  if (saving)
    return {
      at: Math.max(saving.at, asOf) as Instant,
      kind: 'charge',
      before: saving.cost ?? costs.renewal,
      after: null,
      ruleOfThumb: false,
    };
  switch (phase) {
    case 'refundable':
    case 'term':
    case 'pending transfer':
      if (asOf >= Math.min(marks.termEnd, marks.deletion)) return deadlineWhileLate(marks, costs, asOf);
      if (costs.lateFee && marks.deletion > marks.termEnd && marks.auction !== marks.termEnd) {
        const { renewal: before, lateRenewal: after } = costs;
        return { at: marks.termEnd, kind: 'late fee', before, after, ruleOfThumb: false };
      }
      return deadlinePastTerm(marks, costs.renewal, costs, asOf);
    case 'late':
      return deadlineWhileLate(marks, costs, asOf);
    case 'redemption':
      return lostAtRedemptionEnd(marks, costs);
    case 'pending restore':
      return {
        at: marks.restoreReportDue ?? marks.redemptionEnd,
        kind: 'restore',
        before: null,
        after: costs.restore,
        ruleOfThumb: costs.restoreRuleOfThumb,
      };
    case 'pending delete':
    case 'available':
      return null;
  }
}

function lostAtRedemptionEnd(marks: Marks, { restore, restoreRuleOfThumb }: CostsToKeep): Deadline {
  return { at: marks.redemptionEnd, kind: 'lost', before: restore, after: null, ruleOfThumb: restoreRuleOfThumb };
}

function deadlineWhileLate(marks: Marks, costs: CostsToKeep, asOf: Instant): Deadline | null {
  if (asOf >= marks.deletion) return asOf < marks.redemptionEnd ? lostAtRedemptionEnd(marks, costs) : null;
  return deadlinePastTerm(marks, costs.lateRenewal, costs, asOf);
}

/** What comes first after a term: the registrar's auction of late names, or the end of the late window. */
function deadlinePastTerm(marks: Marks, before: Amount | null, costs: CostsToKeep, asOf: Instant): Deadline {
  if (marks.auction !== null && asOf < marks.auction)
    return { at: marks.auction, kind: 'auction', before, after: null, ruleOfThumb: false };
  return deadlineAtDeletion(marks, before, costs);
}

/** At the end of the late window a restore is next, or the name is lost where the ending knows no redemption. */
function deadlineAtDeletion(marks: Marks, before: Amount | null, costs: CostsToKeep): Deadline {
  return marks.redemptionEnd > marks.deletion
    ? {
        at: marks.deletion,
        kind: 'restore',
        before,
        after: costs.restore,
        ruleOfThumb: costs.restoreRuleOfThumb,
      }
    : { at: marks.deletion, kind: 'lost', before, after: null, ruleOfThumb: false };
}
