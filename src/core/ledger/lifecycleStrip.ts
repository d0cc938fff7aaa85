import { lifecycleMarks } from '../lifecycle';
import { addYears, earliestEnd, type Instant } from '../time';
import { type Projection, windowOf } from './projection';

export type StretchKind = 'term' | 'term if charged' | 'late' | 'redemption' | 'pending restore' | 'pending delete';

/** One stretch of a lifecycle strip. */
export interface Stretch {
  readonly kind: StretchKind;
  readonly from: Instant;
  readonly to: Instant;
}

/** What stands on a strip at one instant: a charge that passes, one that fails, or the lapse. */
export interface StripMark {
  readonly kind: 'charge' | 'charge fails' | 'lapse';
  readonly at: Instant;
}

export interface LifecycleStrip {
  readonly stretches: readonly Stretch[];
  readonly marks: readonly StripMark[];
}

/** A year of paid term is drawn behind the present end even where nobody has said when it began. */
const SHOWN_BACK_YEARS = 10;

/**
 * The life of one name as it will be if nothing is done: the paid term, the terms that automatic charges will add, and
 * after the last of them the late window, redemption and deletion. `null` when the end of the term is unknown.
 */
export function lifecycleStrip(projection: Projection, place: number): LifecycleStrip | null {
  const { names } = projection;
  const termEnd = names.termEnd(place);
  if (termEnd === null) return null;
  const observed = names.observed(place);
  const charges = projection.charges.of(place);
  const start = names.registered(place)?.at ?? addYears(earliestEnd(termEnd), -SHOWN_BACK_YEARS);
  const stretches: Stretch[] = [];
  const add = (kind: StretchKind, from: Instant, to: Instant) => {
    if (to > from) stretches.push({ kind, from, to });
  };
  const passed = charges.filter(({ outcome }) => outcome === 'pass');
  const end = passed.at(-1)?.newEnd ?? termEnd;
  const marks: StripMark[] = charges.map(({ at, outcome }) => ({
    kind: outcome === 'pass' ? 'charge' : 'charge fails',
    at,
  }));
  const { policy, account } = windowOf(projection, place);
  const lapse = lifecycleMarks(
    { registeredAt: null, termEnd: end, observed: passed.length === 0 ? observed : null },
    policy,
    account,
  );
  // A name that was deleted in the middle of its term has no more of it.
  add('term', start, Math.min(earliestEnd(termEnd), lapse.deletion) as Instant);
  let from = termEnd;
  for (const { newEnd } of passed) {
    add('term if charged', earliestEnd(from), earliestEnd(newEnd));
    from = newEnd;
  }
  if (lapse.restoreReportDue !== null && observed) {
    add('late', lapse.termEnd, lapse.deletion);
    add('redemption', lapse.deletion, observed.at);
    add('pending restore', observed.at, lapse.restoreReportDue);
    add('redemption', lapse.restoreReportDue, lapse.redemptionEnd);
  } else {
    add('late', lapse.termEnd, lapse.deletion);
    add('redemption', lapse.deletion, lapse.redemptionEnd);
  }
  add('pending delete', lapse.redemptionEnd, lapse.release);
  const fails = charges.at(-1)?.outcome === 'fail';
  if (!fails && lapse.termEnd > projection.asOf) marks.push({ kind: 'lapse', at: lapse.termEnd });
  return { stretches, marks };
}
