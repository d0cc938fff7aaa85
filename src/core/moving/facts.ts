import type { LedgerRow } from '../ledger';
import type { Policy } from '../lifecycle';
import type { RegistrationRecord } from '../records';
import { type Instant, latestEnd } from '../time';
import type { MovingFacts } from './grounds';

/**
 * What is known of a name that decides about a transfer: the ledger's row and its newest registration records, the registry's and the
 * registrar's. A transfer is told by the record's event (RFC 9083 section 10.2.3); “last changed” is no sign of one.
 */
export function movingFacts(
  row: Pick<LedgerRow, 'name' | 'phase' | 'marks' | 'coming'>,
  policy: Policy,
  records: readonly Pick<RegistrationRecord, 'statuses' | 'events'>[],
): MovingFacts {
  const { name, phase, marks, coming } = row;
  const transfers = records.flatMap(({ events }) => events.filter(({ action }) => action === 'transfer'));
  return {
    policy,
    phase,
    marks,
    registeredAt: name.registered && latestEnd(name.registered),
    transferredAt: transfers.length === 0 ? null : (Math.max(...transfers.map(({ at }) => at)) as Instant),
    lock: name.lock,
    statuses: [...new Set(records.flatMap(({ statuses }) => statuses))],
    chargeAt: coming?.outcome === 'pass' ? coming.at : null,
  };
}
