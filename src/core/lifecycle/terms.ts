import { type Refusal, refuse } from '../refusal';
import { addYears, dayOf, earliestEnd, formatDay, type Instant, laterEnd, type TermEnd } from '../time';
import type { Policy, TermAction, TermRule } from './policy';

/** True when `years` is one of the terms a rule sells. */
function sells(rule: TermRule, years: number): boolean {
  return (
    Number.isInteger(years) && years >= rule.least && years <= rule.greatest && (years - rule.least) % rule.step === 0
  );
}

/**
 * The end of the term after renewing for `years`, or why that term cannot be had: the policy's least, greatest and step,
 * and the ceiling of ten years from now (registry contracts; EPP itself allows 1-99, RFC 5731 section 2.4).
 * `minutes` past the ceiling count: with part of a term left nine years are the most, just past it ten.
 */
export function renewedEnd(end: TermEnd, years: number, policy: Policy, asOf: Instant): TermEnd | Refusal {
  const rule = policy.terms.renew;
  if (!sells(rule, years)) {
    const step = rule.step === 1 ? '' : ` in steps of ${rule.step}`;
    return refuse(
      'term-not-sold',
      `.${policy.ending === '*' ? 'this ending' : policy.ending} is renewed for ${rule.least} to ${rule.greatest} years${step}. Choose one of those.`,
      'years',
    );
  }
  const next = laterEnd(end, years);
  const ceiling = addYears(asOf, policy.ceilingYears);
  if (next.at > ceiling) {
    const most = greatestTerm(end, policy, asOf, 'renew');
    return refuse(
      'term-past-ceiling',
      `${years} years would end on ${formatDay(dayOf(next.at))}, past the ceiling of ${policy.ceilingYears} years from now. ${
        most === null ? 'It cannot be renewed yet.' : `${most} ${most === 1 ? 'year is' : 'years are'} the most today.`
      }`,
      'years',
    );
  }
  return next;
}

/** The longest term that can be bought now, or `null` when even the shortest would pass the ceiling. */
export function greatestTerm(end: TermEnd, policy: Policy, asOf: Instant, action: TermAction): number | null {
  const ceiling = addYears(asOf, policy.ceilingYears);
  const { least, greatest, step } = policy.terms[action];
  for (let years = greatest - ((greatest - least) % step); years >= least; years -= step) {
    if (laterEnd(end, years).at <= ceiling) return years;
  }
  return null;
}

/**
 * The end of a term after a restore: a name that was deleted after its term gets a year more; one deleted in mid-term keeps its end.
 * `deletion` is when it was deleted. The account's answer decides; this is what is quoted. RFC 3915 says nothing of it: common practice.
 */
export function restoredEnd(end: TermEnd, deletion: Instant): TermEnd {
  return earliestEnd(end) <= deletion ? laterEnd(end, 1) : end;
}
