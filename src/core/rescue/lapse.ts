import type { KeepingCosts } from '../ledger';
import type { Marks } from '../lifecycle';
import type { Amount } from '../money';
import type { Instant } from '../time';

/** A stretch of days with what keeping the name would have cost on each of them; `null` when nothing could keep it. */
export interface CostStretch {
  readonly from: Instant;
  /** `null`: from then on. */
  readonly until: Instant | null;
  readonly by: 'renewal' | 'late renewal' | 'restore' | 'nothing';
  readonly cost: Amount | null;
  /** The cost is ten times the renewal, for want of a known price. */
  readonly ruleOfThumb: boolean;
}

/** What keeping a name would have cost on each day, from `from` on; stretches of no length are left out. */
export function costsByDay(from: Instant, marks: Marks, costs: KeepingCosts): CostStretch[] {
  const { renewal, lateRenewal: late, restore, restoreRuleOfThumb } = costs;
  const stretches: CostStretch[] = [
    { from, until: marks.termEnd, by: 'renewal', cost: renewal, ruleOfThumb: false },
    { from: marks.termEnd, until: marks.deletion, by: 'late renewal', cost: late, ruleOfThumb: false },
    { from: marks.deletion, until: marks.redemptionEnd, by: 'restore', cost: restore, ruleOfThumb: restoreRuleOfThumb },
    { from: marks.redemptionEnd, until: null, by: 'nothing', cost: null, ruleOfThumb: false },
  ];
  return stretches.filter((one) => one.until === null || one.until > one.from);
}

/** Something that happened around a lapse. */
export interface LapseEvent {
  readonly at: Instant;
  readonly kind: 'warning' | 'failure' | 'step' | 'act';
  readonly text: string;
}

/** Events in order; what is told twice at one instant, by history and by message, is told once. */
export function timelineOf(events: readonly LapseEvent[]): LapseEvent[] {
  const seen = new Set<string>();
  return [...events]
    .sort((a, b) => a.at - b.at)
    .filter((event) => {
      const key = `${event.at} ${event.text}`;
      const isNew = !seen.has(key);
      seen.add(key);
      return isNew;
    });
}
