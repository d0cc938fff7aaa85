import { isGone, type Marks, type Phase, type Policy, transferLockEnds } from '../lifecycle';
import type { EppStatus } from '../records';
import { addDays, addYears, type Instant } from '../time';

/** Why a name may not be transferred now, or would lose by it. */
export type GroundKind =
  | 'registered lately'
  | 'transferred lately'
  | 'holder changed lately'
  | 'transfer lock'
  | 'update lock'
  | 'registry lock'
  | 'pending'
  | 'redemption'
  | 'pending delete'
  | 'past its term'
  | 'charge not settled'
  | 'over the ceiling';

/** Who mends it, or what. */
export type Mends = 'time' | 'owner' | 'registrar' | 'renewal' | 'restore' | 'nobody';

export interface Ground {
  readonly kind: GroundKind;
  readonly mends: Mends;
  /** From when on; `null` for what stands already. */
  readonly from: Instant | null;
  /** Up to when; `null` until it is mended. */
  readonly until: Instant | null;
  /** A transfer goes through and loses a year that was paid for. */
  readonly losesYear: boolean;
}

/** What decides whether a name may be transferred, and when. */
export interface MovingFacts {
  readonly policy: Pick<
    Policy,
    'transferLockDays' | 'holderLockDays' | 'lateDays' | 'transferYears' | 'ceilingYears' | 'terms'
  >;
  readonly phase: Phase | null;
  readonly marks: Marks | null;
  /** The latest instant at which it may have been registered, and transferred last. */
  readonly registeredAt: Instant | null;
  readonly transferredAt: Instant | null;
  /** The latest instant at which its holder may have changed, unless the lock after that was waived. */
  readonly holderChangedAt: Instant | null;
  /** By the ledger or the record; `null` where neither says. */
  readonly lock: boolean | null;
  /** Statuses of its registration record (RFC 5731, RFC 3915); none where there is no record. */
  readonly statuses: readonly EppStatus[];
  /** When the record was seen last; `null` where there is none. */
  readonly recordAt: Instant | null;
  /** The last automatic charge or renewal past the term that was told of; `null` where none was. */
  readonly gracePaidAt: Instant | null;
  /** The next automatic charge that passes; `null` where none does. */
  readonly chargeAt: Instant | null;
  /** The end of the term once that has passed. */
  readonly chargedEnd: Instant | null;
}

const PENDING: readonly EppStatus[] = ['pendingCreate', 'pendingUpdate', 'pendingRenew', 'pendingTransfer'];

/**
 * Every ground against transferring a name, dated where it begins or ends by itself. Statuses: RFC 5731 section 2.3; redemption and the
 * registry's auto-renew grace: RFC 3915; the days after a registration or a transfer: the ending's policy. That a year which the grace
 * lets stand is lost with a transfer: from memory.
 */
export function groundsAgainst(facts: MovingFacts, asOf: Instant): Ground[] {
  const { lock, statuses } = facts;
  const found: Ground[] = [];
  const add: Add = (kind, mends, more = {}) =>
    found.push({ kind, mends, from: null, until: null, losesYear: false, ...more });
  const has = (status: EppStatus) => statuses.includes(status);
  if (facts.phase === 'pending transfer' || PENDING.some(has)) add('pending', 'time');
  if (has('serverTransferProhibited')) add('registry lock', 'registrar');
  if (has('clientUpdateProhibited')) add('update lock', 'owner');
  if (lock === true) add('transfer lock', 'owner');
  for (const [kind, at] of [
    ['registered lately', facts.registeredAt],
    ['transferred lately', facts.transferredAt],
    ['holder changed lately', facts.holderChangedAt],
  ] as const) {
    const { transferLockDays, holderLockDays } = facts.policy;
    const until = transferLockEnds(at, kind === 'holder changed lately' ? holderLockDays : transferLockDays);
    if (until !== null && until > asOf) add(kind, 'time', { until });
  }
  addTermGrounds(facts, asOf, add);
  return found;
}

type Add = (kind: GroundKind, mends: Mends, more?: Partial<Ground>) => void;

/** Grounds that come from where the name stands in its term. */
function addTermGrounds(facts: MovingFacts, asOf: Instant, add: Add): void {
  const { policy, phase, marks, chargeAt } = facts;
  if (phase === 'redemption' || phase === 'pending restore') add('redemption', 'restore');
  if (isGone(phase)) add('pending delete', 'nobody');
  if (phase === 'late') add('past its term', 'renewal');
  if (marks === null || phase === 'pending transfer') return;
  const { termEnd } = marks;
  if (chargeAt !== null && policy.lateDays > 0)
    add('charge not settled', 'time', { from: chargeAt, until: addDays(termEnd, policy.lateDays), losesYear: true });
  if (chargeAt === null && termEnd > asOf) add('past its term', 'renewal', { from: termEnd });
  const graceEnds = graceOfLastYear(facts, termEnd, asOf);
  if (graceEnds !== null && graceEnds > asOf) add('charge not settled', 'time', { until: graceEnds, losesYear: true });
  // Ten years from the arrival at most: until the old end has come near enough.
  const fits = addYears(termEnd, policy.transferYears - policy.ceilingYears);
  if (policy.transferYears > 0 && fits > asOf) add('over the ceiling', 'time', { until: fits });
}

/**
 * Until when the registry may still take back the last year, which it let stand when the term before ended: an automatic charge or a late
 * renewal paid for it, or its record says so. A record looked at after that end which says nothing of it shows that the year was renewed explicitly.
 */
function graceOfLastYear(
  { policy, phase, statuses, gracePaidAt, recordAt }: MovingFacts,
  termEnd: Instant,
  asOf: Instant,
) {
  if (phase === 'late') return null;
  if (statuses.includes('autoRenewPeriod')) return addDays(lastAnniversary(termEnd, asOf), policy.lateDays);
  if (gracePaidAt === null || policy.lateDays === 0) return null;
  // Charged some days before the end or after it, so the nearest day on which a year began.
  const oldEnd = lastAnniversary(termEnd, addDays(gracePaidAt, HALF_A_YEAR));
  if (oldEnd >= termEnd) return null;
  const isSettled = recordAt !== null && recordAt > oldEnd && statuses.length > 0;
  return isSettled ? null : addDays(oldEnd, policy.lateDays);
}

const HALF_A_YEAR = 182;

/** The last day up to an instant on which a year of the term began: where the registry let a year stand, it did so then. */
function lastAnniversary(termEnd: Instant, asOf: Instant): Instant {
  let years = 0;
  while (addYears(termEnd, -years) > asOf) years += 1;
  return addYears(termEnd, -years);
}

/** The same grounds, those that stand at an instant. */
export function standingAt(grounds: readonly Ground[], at: Instant): Ground[] {
  return grounds.filter(({ from, until }) => (from === null || from <= at) && (until === null || until > at));
}

/** A stretch of days in which a transfer cannot be requested, would lose a paid year, or can. */
export interface MovingStretch {
  readonly kind: 'cannot' | 'loses a year' | 'can';
  readonly from: Instant;
  readonly until: Instant;
  readonly grounds: readonly GroundKind[];
}

/** What an owner can mend is taken as mended: the calendar shows what is left to wait for. */
const isWaitedFor = ({ mends }: Ground) => mends !== 'owner';

/** The days from `asOf` to `until` by what a transfer would meet, each stretch with its grounds. Half-open. */
export function movingCalendar(facts: MovingFacts, asOf: Instant, until: Instant): MovingStretch[] {
  const grounds = groundsAgainst(facts, asOf).filter(isWaitedFor);
  const edges = [...new Set([asOf, until, ...grounds.flatMap((one) => [one.from ?? asOf, one.until ?? until])])]
    .filter((at) => at >= asOf && at <= until)
    .sort((a, b) => a - b);
  const stretches: MovingStretch[] = [];
  for (const [i, from] of edges.slice(0, -1).entries()) {
    const to = edges[i + 1] as Instant;
    const standing = standingAt(grounds, from);
    const kind = standing.some(({ losesYear }) => !losesYear) ? 'cannot' : standing.length > 0 ? 'loses a year' : 'can';
    const last = stretches.at(-1);
    const named = standing.map((one) => one.kind);
    if (last?.kind === kind && last.grounds.join() === named.join())
      stretches[stretches.length - 1] = { ...last, until: to };
    else stretches.push({ kind, from, until: to, grounds: named });
  }
  return stretches;
}

/** Days that a transfer takes by itself, with some to spare. Common practice: five days, no source. */
const DAYS_TO_ARRIVE = 8;

/** The last instant to request it so that it arrives before the next charge at the old account, or the end of its term. */
export function lastMoment({ chargeAt, marks }: Pick<MovingFacts, 'chargeAt' | 'marks'>): Instant | null {
  const before = chargeAt ?? marks?.termEnd ?? null;
  return before === null ? null : addDays(before, -DAYS_TO_ARRIVE);
}

/**
 * The first instant within a year at which a transfer is best requested: nothing that has to be waited for stands against it, and it
 * arrives before the next charge at the old account, or well after it. `null` where there is none.
 */
export function bestMoment(facts: MovingFacts, asOf: Instant): Instant | null {
  const last = lastMoment(facts);
  const { chargeAt } = facts;
  for (const { kind, from, until } of movingCalendar(facts, asOf, addDays(asOf, 366))) {
    if (kind !== 'can') continue;
    if (last === null || from <= last || (chargeAt !== null && from >= chargeAt)) return from;
    if (chargeAt !== null && chargeAt < until) return chargeAt;
  }
  return null;
}

/**
 * When the term ends after a transfer that arrives at an instant: the old end, without a year that auto-renew only let stand, and the
 * years that a transfer adds. `null` where the end is not known. Sources: RFC 3915 (grace), RFC 5731 section 3.2.4; that the year is lost,
 * from memory.
 */
export function endAfterTransfer(facts: MovingFacts, asOf: Instant, arrivesAt: Instant): Instant | null {
  if (facts.marks === null) return null;
  const { transferYears, terms } = facts.policy;
  const isCharged = facts.chargeAt !== null && arrivesAt >= facts.chargeAt;
  const termEnd = (isCharged ? facts.chargedEnd : null) ?? facts.marks.termEnd;
  const isLost = standingAt(groundsAgainst(facts, asOf), arrivesAt).some(({ losesYear }) => losesYear);
  // What a registry lets stand is the least term.
  return addYears(termEnd, transferYears - (isLost ? terms.renew.least : 0));
}
