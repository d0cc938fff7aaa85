import type { LedgerRow } from '../ledger';
import type { Policy } from '../lifecycle';
import type { RegistrationRecord } from '../records';
import { addDays, type Instant, latestEnd } from '../time';
import type { MovingFacts } from './grounds';

/** A registration record with the instant at which it was seen last. */
export interface SeenRecord {
  readonly lastAt: Instant;
  readonly record: Pick<RegistrationRecord, 'statuses' | 'events' | 'registered'>;
}

/**
 * What is known of a name that decides about a transfer: the ledger's row and its newest registration records, the registry's and the
 * registrar's. Statuses count from records of the last look only: an older one of the other source may have passed. A transfer is told by
 * the record's event (RFC 9083 section 10.2.3); “last changed” is no sign of one.
 */
export function movingFacts(
  row: Pick<LedgerRow, 'name' | 'phase' | 'marks' | 'coming'>,
  policy: Policy,
  records: readonly SeenRecord[],
): MovingFacts {
  const { name, phase, marks, coming } = row;
  const recordAt = records.length === 0 ? null : (Math.max(...records.map(({ lastAt }) => lastAt)) as Instant);
  const newest = records.filter(({ lastAt }) => recordAt !== null && lastAt > addDays(recordAt, -1));
  const statuses = [...new Set(newest.flatMap(({ record }) => record.statuses))];
  const transfers = records.flatMap(({ record }) => record.events.filter(({ action }) => action === 'transfer'));
  const registered = records.flatMap(({ record }) => record.registered ?? []);
  // Either may be the older one: what is locked by one of them is looked at before anything is requested.
  const isLocked = name.lock === true || statuses.includes('clientTransferProhibited');
  return {
    policy,
    phase,
    marks,
    registeredAt: name.registered ? latestEnd(name.registered) : (registered[0] ?? null),
    transferredAt: transfers.length === 0 ? null : (Math.max(...transfers.map(({ at }) => at)) as Instant),
    lock: isLocked || (recordAt === null ? name.lock : false),
    statuses,
    recordAt,
    chargeAt: coming?.outcome === 'pass' ? coming.at : null,
  };
}
