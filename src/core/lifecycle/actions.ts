import { type Refusal, refuse } from '../refusal';
import { dayOf, formatDay, type Instant } from '../time';
import type { Marks } from './marks';
import type { Phase } from './phase';

/** What an owner may want done with a name at its registrar. */
export const NAME_ACTIONS = ['renew', 'restore', 'report', 'switch', 'refund'] as const;
export type NameAction = (typeof NAME_ACTIONS)[number];

/** What decides whether an action works, besides the phase. */
export interface ActionFacts {
  readonly phase: Phase;
  readonly marks: Marks;
}

const on = (at: Instant) => formatDay(dayOf(at));

/**
 * Why an action does not work on a name in its phase, with the day from which or until which it does; `null` when it works.
 * Windows: RFC 3915; what a registrar does in each: common practice.
 */
export function refuseAction(action: NameAction, { phase, marks }: ActionFacts): Refusal | null {
  switch (phase) {
    case 'pending delete':
      return refuse(
        'pending-delete',
        `Pending delete: nothing can be done until it is available, on ${on(marks.release)} at the earliest.`,
      );
    case 'available':
      return refuse('released', `Released on ${on(marks.release)}: it would have to be registered anew.`);
    case 'pending transfer':
      return refuse('pending-transfer', 'A transfer to another account is pending: do it there when it has arrived.');
    default:
  }
  const alive = phase === 'term' || phase === 'refundable' || phase === 'late';
  switch (action) {
    case 'renew':
    case 'switch':
      if (alive) return null;
      return phase === 'pending restore' ? pendingRestore(marks) : inRedemption(marks);
    case 'restore':
      if (phase === 'redemption') return null;
      if (phase === 'pending restore') return pendingRestore(marks);
      return refuse(
        'not-deleted',
        marks.redemptionEnd > marks.deletion
          ? `Not deleted: renew it. A restore is for after ${on(marks.deletion)}.`
          : `Not deleted: renew it before ${on(marks.deletion)}. This ending has no restore.`,
      );
    case 'report':
      if (phase === 'pending restore') return null;
      return refuse('no-restore', 'No restore was requested, so there is nothing to report on.');
    case 'refund':
      if (phase === 'refundable') return null;
      return refuse(
        'not-refundable',
        marks.refundableUntil === null
          ? 'Registrations of this ending, or at this account, are not refunded.'
          : `It could be deleted for a refund until ${on(marks.refundableUntil)}.`,
      );
  }
}

function inRedemption(marks: Marks): Refusal {
  return refuse(
    'in-redemption',
    `In redemption since ${on(marks.deletion)}: it can only be restored, until ${on(marks.redemptionEnd)}.`,
  );
}

function pendingRestore(marks: Marks): Refusal {
  const due = marks.restoreReportDue === null ? '' : ` The report is due by ${on(marks.restoreReportDue)}.`;
  return refuse('pending-restore', `A restore is pending: wait until it is settled.${due}`);
}
