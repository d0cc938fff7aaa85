import type { LedgerRow } from '../ledger';
import type { Policy } from '../lifecycle';
import { type EppStatus, holderOf, type RegistrationRecord } from '../records';
import { earliestEnd, type Instant, latestEnd } from '../time';
import type { MovingFacts } from './grounds';

/** What one look at the records of a name, of its registry and its registrar, says that is kept with the name. */
export interface SeenOfName {
  readonly ascii: string;
  readonly holder: string | null;
  readonly statuses: readonly EppStatus[];
  readonly registeredAt: Instant | null;
  readonly transferredAt: Instant | null;
}

/** A transfer is told by the record's event (RFC 9083 section 10.2.3); “last changed” is no sign of one. */
export function seenOf(ascii: string, records: readonly RegistrationRecord[]): SeenOfName {
  const transfers = records.flatMap(({ events }) => events.filter(({ action }) => action === 'transfer'));
  return {
    ascii,
    holder: records.map(holderOf).find((holder) => holder !== null) ?? null,
    statuses: [...new Set(records.flatMap(({ statuses }) => statuses))],
    registeredAt: records.flatMap(({ registered }) => registered ?? [])[0] ?? null,
    transferredAt: transfers.length === 0 ? null : (Math.max(...transfers.map(({ at }) => at)) as Instant),
  };
}

/** What is known of a name that decides about a transfer: the facts that the ledger has of it, records and registrars included. */
export function movingFacts(
  { name, phase, marks, coming }: Pick<LedgerRow, 'name' | 'phase' | 'marks' | 'coming'>,
  policy: Policy,
): MovingFacts {
  const { statuses, checkedAt } = name;
  // Either may be the older one: what is locked by one of them is looked at before anything is requested.
  const isLocked = name.lock === true || statuses.includes('clientTransferProhibited');
  const passing = coming?.outcome === 'pass' ? coming : null;
  const holderChanged = name.holderLockWaived ? null : name.holderChanged;
  return {
    policy,
    phase,
    marks,
    registeredAt: name.registered && latestEnd(name.registered),
    transferredAt: name.transferred && latestEnd(name.transferred),
    holderChangedAt: holderChanged && latestEnd(holderChanged),
    lock: isLocked || (checkedAt === null ? name.lock : false),
    statuses,
    recordAt: checkedAt,
    gracePaidAt: name.gracePaid,
    chargeAt: passing?.at ?? null,
    chargedEnd: passing?.newEnd ? earliestEnd(passing.newEnd) : null,
  };
}
