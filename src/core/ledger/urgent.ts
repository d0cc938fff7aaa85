import { addDays } from '../time';
import { PURPOSES } from './data';
import { deadlineCode, type LedgerDay } from './ledgerDay';
import type { NameTable } from './nameTable';

/** So many days ahead a deadline is urgent: the reminders' own first lead, and the window of Today. */
export const URGENT_DAYS = 30;

/** How many names get dearer or are lost within `URGENT_DAYS` of a day, and are not dropped on purpose. A charge is no danger. */
export function countUrgent({ projection, day, deadlineAt, deadlineKind, length }: LedgerDay): number {
  const { names } = projection;
  const [until, charge, dropped] = [addDays(day, URGENT_DAYS), deadlineCode('charge'), PURPOSES.indexOf('drop')];
  let count = 0;
  for (let place = 0; place < length; place += 1)
    if (
      (deadlineAt[place] as number) < until &&
      deadlineKind[place] !== charge &&
      names.flagCode(place, 'purpose') !== dropped
    )
      count += 1;
  return count;
}

/** The places of names whose registrar was requested to switch something and has not confirmed. */
export function requestedPlaces(names: NameTable): number[] {
  const found: number[] = [];
  for (let place = 0; place < names.length; place += 1)
    if (
      names.flagCode(place, 'requested') +
        names.flagCode(place, 'requestedLock') +
        names.flagCode(place, 'requestedPrivacy') >
      0
    )
      found.push(place);
  return found;
}
