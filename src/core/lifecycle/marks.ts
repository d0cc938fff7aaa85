import { addDays, earliestEnd, type Instant, latestEnd, type TermEnd } from '../time';
import type { Policy } from './policy';

/** What an account's own rules change about the time after a term. */
export interface AccountWindow {
  /** How many days after the term the registrar still renews at the ordinary price; the policy's window caps it. */
  readonly lateDays: number;
  /** Days after the term on which the registrar auctions the name away, or `null`. */
  readonly auctionDay: number | null;
}

/**
 * A phase that was seen at the registry or registrar, and since when. It outranks the computed one from then on. `registered` is a
 * name that was seen alive then, past the day on which it should have been deleted.
 */
export interface ObservedPhase {
  readonly phase: 'registered' | 'redemption' | 'pending restore' | 'pending delete' | 'pending transfer';
  readonly at: Instant;
}

/** What the lifecycle needs to know of one name. */
export interface Registration {
  /** The earliest instant at which it may have been registered. */
  readonly registeredAt: Instant | null;
  readonly termEnd: TermEnd;
  readonly observed: ObservedPhase | null;
}

/** The instants at which a name changes phase if nobody acts. Intervals are half-open: a mark belongs to what follows. */
export interface Marks {
  readonly refundableUntil: Instant | null;
  readonly termEnd: Instant;
  /** The registrar may auction the name from here on; only inside the late window. */
  readonly auction: Instant | null;
  /** The registrar deletes the name: the late window ends, redemption begins. */
  readonly deletion: Instant;
  /** The restore report is due: without it redemption begins again. Only while a restore is pending. */
  readonly restoreReportDue: Instant | null;
  /** Redemption ends: nothing can be done from here on. */
  readonly redemptionEnd: Instant;
  /** The earliest instant at which anyone may register the name. Releases are batched. */
  readonly release: Instant;
}

/**
 * The marks of a name that nobody renews: deletion at the end of the late window (the shorter of the ending's and the
 * account's), the end of redemption after it, release after deletion. What was seen moves them, earlier and later. A date without a time
 * counts with its earliest end for deadlines and its latest for the release. Notions: RFC 3915; days: the policy.
 */
export function lifecycleMarks(name: Registration, policy: Policy, account: AccountWindow): Marks {
  const termEnd = earliestEnd(name.termEnd);
  const lateDays = Math.min(policy.lateDays, account.lateDays);
  let deletion = addDays(termEnd, lateDays);
  const span = latestEnd(name.termEnd) - termEnd;
  const observed = name.observed;
  if (observed?.phase === 'redemption') deletion = observed.at;
  // It was to be deleted by then and was not: at the earliest at the end of the ending's own window, or a day later.
  if (observed?.phase === 'registered' && observed.at >= deletion)
    deletion = Math.max(addDays(termEnd, policy.lateDays), addDays(observed.at, 1)) as Instant;
  let redemptionEnd = addDays(deletion, policy.redemptionDays);
  let restoreReportDue: Instant | null = null;
  if (observed?.phase === 'pending restore') {
    restoreReportDue = addDays(observed.at, policy.pendingRestoreDays);
    if (observed.at < deletion || observed.at >= redemptionEnd) deletion = observed.at;
    // Redemption stands still while a restore is pending: without a report, what remained of it goes on.
    const remaining = addDays(deletion, policy.redemptionDays) - observed.at;
    redemptionEnd = (restoreReportDue + remaining) as Instant;
  }
  if (observed?.phase === 'pending delete') {
    redemptionEnd = observed.at;
    deletion = Math.min(deletion, redemptionEnd) as Instant;
  }
  const release = addDays((redemptionEnd + span) as Instant, policy.pendingDeleteDays);
  const auction = account.auctionDay === null ? null : addDays(termEnd, account.auctionDay);
  return {
    refundableUntil:
      name.registeredAt === null || policy.refundableDays === 0
        ? null
        : addDays(name.registeredAt, policy.refundableDays),
    termEnd,
    auction: auction !== null && auction < addDays(termEnd, lateDays) && auction < deletion ? auction : null,
    deletion,
    restoreReportDue,
    redemptionEnd,
    release,
  };
}

/**
 * Until when a late name is renewed at its registrar for sure: the registrar's own auction of late names ends that before the
 * deletion does. Past the auction nobody but the registrar can say.
 */
export function renewableUntil({ auction, deletion }: Pick<Marks, 'auction' | 'deletion'>, asOf: Instant): Instant {
  return auction !== null && asOf < auction ? auction : deletion;
}
