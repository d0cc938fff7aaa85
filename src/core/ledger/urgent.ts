import { addDays, type Instant } from '../time';
import type { LedgerName } from './data';
import type { LedgerRow } from './projection';

/** So many days ahead a deadline is urgent: the reminders' own first lead, and the window of Today. */
export const URGENT_DAYS = 30;

/** True for a row that gets dearer or is lost within `URGENT_DAYS` of `day`, and is not dropped on purpose. A charge is no danger. */
export function isUrgent({ deadline, name }: LedgerRow, day: Instant): boolean {
  return (
    deadline !== null &&
    deadline.kind !== 'charge' &&
    deadline.at < addDays(day, URGENT_DAYS) &&
    name.purpose !== 'drop'
  );
}

/** True for a name whose registrar was requested to switch something and has not confirmed. */
export function isRequested({ requested, requestedLock, requestedPrivacy }: LedgerName): boolean {
  return requested !== null || requestedLock !== null || requestedPrivacy !== null;
}
