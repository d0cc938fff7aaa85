import { addDays, DAY_MS, type Instant } from '../time';
import type { LedgerRow } from './projection';

/**
 * Something to remind of: a name's deadline, a charge that failed, one in danger that must never be lost, or a holder's mail address
 * that has to be confirmed before the name stops working.
 */
export interface DueReminder {
  readonly row: LedgerRow;
  readonly kind: 'deadline' | 'charge failed' | 'never to be lost' | 'mail to confirm';
  readonly at: Instant;
  /** The lead at which it is told, in days; 0 for at once. */
  readonly stage: number;
}

/** The leads at which reminders are sent unless the office says otherwise, in days before the deadline. */
export const USUAL_LEADS: readonly number[] = [60, 30, 14, 7, 3, 1];

/**
 * What a row is to be reminded of at `asOf`: the smallest lead that has been reached before its deadline, or at once when its
 * charge failed or it must never be lost and will be. `null` for charges that pass, names being dropped, and steps further
 * away than the greatest lead.
 */
export function reminderFor(row: LedgerRow, asOf: Instant, leads: readonly number[]): DueReminder | null {
  const { deadline, setting, name } = row;
  if (name.purpose === 'drop' || deadline === null || deadline.kind === 'charge' || deadline.at <= asOf) return null;
  if (setting === 'stalled')
    return { row, kind: 'charge failed', at: deadline.at, stage: stageOf(deadline.at, asOf, leads) ?? 0 };
  const stage = stageOf(deadline.at, asOf, leads);
  if (name.neverLost && deadline.at < addDays(asOf, Math.max(...leads, 0)))
    return { row, kind: 'never to be lost', at: deadline.at, stage: stage ?? 0 };
  return stage === null ? null : { row, kind: 'deadline', at: deadline.at, stage };
}

/** The reminder that a holder's mail address has to be confirmed: at each lead, and once more when its day has passed. */
export function mailReminderFor(row: LedgerRow, asOf: Instant, leads: readonly number[]): DueReminder | null {
  const at = row.name.confirmMailBy;
  if (at === null || row.name.purpose === 'drop') return null;
  const stage = at <= asOf ? 0 : stageOf(at, asOf, leads);
  return stage === null ? null : { row, kind: 'mail to confirm', at, stage };
}

/** The smallest lead that has been reached, or `null` while none has. */
function stageOf(at: Instant, asOf: Instant, leads: readonly number[]): number | null {
  const days = (at - asOf) / DAY_MS;
  const reached = leads.filter((lead) => days <= lead);
  return reached.length === 0 ? null : Math.min(...reached);
}
