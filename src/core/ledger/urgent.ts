import { addDays } from '../time';
import { flagReader } from './columns';
import { PURPOSES } from './data';
import { deadlineCode, type LedgerDay } from './ledgerDay';
import type { NameTable } from './nameTable';

/** So many days ahead a deadline is urgent: the reminders' own first lead, and the window of Today. */
export const URGENT_DAYS = 30;

/** How many names get dearer or are lost within `URGENT_DAYS` of a day, and are not dropped on purpose. A charge is no danger. */
export function countUrgent({ projection, day, deadlineAt, deadlineKind, length }: LedgerDay): number {
  const { flags } = projection.names.columns;
  const purposeOf = flagReader('purpose');
  const [until, charge, dropped] = [addDays(day, URGENT_DAYS), deadlineCode('charge'), PURPOSES.indexOf('drop')];
  let count = 0;
  for (let place = 0; place < length; place += 1)
    if (
      (deadlineAt[place] as number) < until &&
      deadlineKind[place] !== charge &&
      purposeOf(flags[place] as number) !== dropped
    )
      count += 1;
  return count;
}

/** The places of names whose registrar was requested to switch something and has not confirmed. */
export function requestedPlaces(names: NameTable): number[] {
  const found: number[] = [];
  const { flags } = names.columns;
  const facts = [flagReader('requested'), flagReader('requestedLock'), flagReader('requestedPrivacy')];
  for (let place = 0; place < names.length; place += 1)
    if (facts.some((of) => of(flags[place] as number) > 0)) found.push(place);
  return found;
}
