import type { Policy } from '../lifecycle';
import { addDays, earliestEnd, type Instant, laterEnd, latestEnd } from '../time';
import type { RegistrationRecord } from './record';
import { phaseOfStatuses } from './statuses';

/** When a name may come free: the earliest day, and the latest; both `null` when nothing points to it, or it is free. */
export interface Release {
  readonly earliest: Instant | null;
  readonly latest: Instant | null;
  /** It is free now. */
  readonly free: boolean;
  /** It will only come free if its holder does not renew. */
  readonly ifNotRenewed: boolean;
}

/**
 * The range in which a name of somebody else comes free, by its ending's policy and its record: who deletes it when is the
 * registrar's choice, so that names in term or in the late window have a wide range. A date without a time counts as an
 * interval. The instant since when a status holds is not in the record, so the day it was first seen counts as the latest.
 */
export function releaseOf(
  record: RegistrationRecord,
  policy: Pick<Policy, 'lateDays' | 'redemptionDays' | 'pendingDeleteDays' | 'pendingRestoreDays'>,
  firstSeen: Instant,
  lastSeenBefore: Instant | null,
): Release {
  const { lateDays, redemptionDays, pendingDeleteDays } = policy;
  if (!record.found) return { earliest: firstSeen, latest: firstSeen, free: true, ifNotRenewed: false };
  const end = record.expires;
  const phase = phaseOfStatuses(record.statuses);
  const since = { earliest: lastSeenBefore ?? earliestDeletion(record, firstSeen), latest: firstSeen };
  switch (phase) {
    case 'pending delete':
      return range(addDays(since.earliest, pendingDeleteDays), addDays(since.latest, pendingDeleteDays), false);
    case 'redemption':
    case 'pending restore':
      return range(
        addDays(since.earliest, redemptionDays + pendingDeleteDays),
        addDays(since.latest, redemptionDays + pendingDeleteDays),
        true,
      );
    default: {
      if (end === null) return { earliest: null, latest: null, free: false, ifNotRenewed: true };
      // In the provisional year the registry shows an end that nobody may have paid for: the term ended a year before.
      const ended = phase === 'provisional' ? laterEnd(end, -1) : end;
      return range(
        addDays(earliestEnd(ended), redemptionDays + pendingDeleteDays),
        addDays(latestEnd(ended), lateDays + redemptionDays + pendingDeleteDays),
        true,
      );
    }
  }
}

/** A deletion changes the record: no earlier than its last change, where that is told. */
function earliestDeletion(record: RegistrationRecord, firstSeen: Instant): Instant {
  return record.changed !== null && record.changed <= firstSeen ? record.changed : firstSeen;
}

function range(earliest: Instant, latest: Instant, ifNotRenewed: boolean): Release {
  return { earliest, latest, free: false, ifNotRenewed };
}
