import type { LifecycleStrip, Stretch } from '../ledger';
import type { Policy } from '../lifecycle';
import { addDays, type Instant } from '../time';
import type { TakenCell } from './arrange';

/** A term is drawn this far back: since when it runs is seldom known. */
const SHOWN_BACK_DAYS = 3650;

/**
 * The life of somebody else's name up to the earliest release: its term, then redemption and deletion as they would follow if it were
 * deleted at once. Where nothing is known of its end, the term alone.
 */
export function releaseStrip(
  { termEnd, earliest }: Pick<TakenCell, 'termEnd' | 'earliest'>,
  { pendingDeleteDays, redemptionDays }: Pick<Policy, 'pendingDeleteDays' | 'redemptionDays'>,
  asOf: Instant,
): LifecycleStrip {
  const start = addDays(asOf, -SHOWN_BACK_DAYS);
  if (earliest === null)
    return { stretches: termEnd === null ? [] : [{ kind: 'term', from: start, to: termEnd }], marks: [] };
  const deletion = addDays(earliest, -pendingDeleteDays);
  const redemption = addDays(deletion, -redemptionDays);
  const stretches: Stretch[] = [
    { kind: 'term', from: start, to: redemption },
    { kind: 'redemption', from: redemption, to: deletion },
    { kind: 'pending delete', from: deletion, to: earliest },
  ];
  return { stretches: stretches.filter(({ from, to }) => to > from), marks: [] };
}
