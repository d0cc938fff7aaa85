import type { Charge } from '../funding';
import type { Marks, Phase } from '../lifecycle';
import type { Amount } from '../money';
import type { Instant } from '../time';

export type PriceStepKind = 'charge' | 'late fee' | 'restore' | 'auction' | 'lost';

/** The next instant at which doing nothing gets dearer or ends in loss, with the cost before and after. */
export interface PriceStep {
  readonly at: Instant;
  readonly kind: PriceStepKind;
  /** What keeping the name costs before the step; `null` when the price is unknown or nothing is owed. */
  readonly before: Amount | null;
  /** What it costs after it; `null` when the name is lost then, unknown, or the step is a charge that passes. */
  readonly after: Amount | null;
  /** Its restore figure is ten times the renewal, for want of a known price. */
  readonly ruleOfThumb: boolean;
}

/** What keeping one name costs, by the way it is kept. `null`: no price is known. */
export interface StepCosts {
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
 * The price step of a name at `asOf`: ordinary renewal → late fee, if any → restore plus a year → lost. When the coming
 * charge will pass, the step is that charge and nothing gets dearer. `null` when nothing is left to step (deletion, free).
 * Never earlier than `asOf`.
 */
export function priceStep(
  phase: Phase,
  marks: Marks,
  saving: Charge | null,
  costs: StepCosts,
  asOf: Instant,
): PriceStep | null {
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
    case 'moving':
      if (asOf >= Math.min(marks.termEnd, marks.deletion)) return stepWhileLate(marks, costs, asOf);
      if (costs.lateFee && marks.deletion > marks.termEnd && marks.auction !== marks.termEnd) {
        const { renewal: before, lateRenewal: after } = costs;
        return { at: marks.termEnd, kind: 'late fee', before, after, ruleOfThumb: false };
      }
      return stepPastTerm(marks, costs.renewal, costs, asOf);
    case 'late':
      return stepWhileLate(marks, costs, asOf);
    case 'redemption':
      return lostAtPurge(marks, costs);
    case 'restoring':
      return {
        at: marks.restoreReportDue ?? marks.purge,
        kind: 'restore',
        before: null,
        after: costs.restore,
        ruleOfThumb: costs.restoreRuleOfThumb,
      };
    case 'deleting':
    case 'free':
      return null;
  }
}

function lostAtPurge(marks: Marks, { restore, restoreRuleOfThumb }: StepCosts): PriceStep {
  return { at: marks.purge, kind: 'lost', before: restore, after: null, ruleOfThumb: restoreRuleOfThumb };
}

function stepWhileLate(marks: Marks, costs: StepCosts, asOf: Instant): PriceStep | null {
  if (asOf >= marks.deletion) return asOf < marks.purge ? lostAtPurge(marks, costs) : null;
  return stepPastTerm(marks, costs.lateRenewal, costs, asOf);
}

/** What comes first after a term: the registrar's auction of late names, or the end of the late window. */
function stepPastTerm(marks: Marks, before: Amount | null, costs: StepCosts, asOf: Instant): PriceStep {
  if (marks.auction !== null && asOf < marks.auction)
    return { at: marks.auction, kind: 'auction', before, after: null, ruleOfThumb: false };
  return stepToDeletion(marks, before, costs);
}

/** At the end of the late window a restore is next, or the name is lost where the ending knows no redemption. */
function stepToDeletion(marks: Marks, before: Amount | null, costs: StepCosts): PriceStep {
  return marks.purge > marks.deletion
    ? {
        at: marks.deletion,
        kind: 'restore',
        before,
        after: costs.restore,
        ruleOfThumb: costs.restoreRuleOfThumb,
      }
    : { at: marks.deletion, kind: 'lost', before, after: null, ruleOfThumb: false };
}
