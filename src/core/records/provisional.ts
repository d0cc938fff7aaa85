import { addDays, addYears, earliestEnd, HOUR_MS, type Instant, latestEnd, type TermEnd } from '../time';
import type { EppStatus } from './statuses';

/**
 * What the registry's end of a term says beside the ledger's. In the late window a registry may show a year that nobody has paid
 * for: then only a receipt, an account's answer or the registrar's own end decide. `end` is what a later or earlier record proves.
 */
export type TermVerdict =
  | { readonly kind: 'agrees' }
  | { readonly kind: 'renewed'; readonly by: 'receipt' | 'account' | 'registrar' }
  | { readonly kind: 'not renewed'; readonly by: 'account' | 'registrar' }
  | { readonly kind: 'undetermined' }
  | {
      readonly kind: 'record later' | 'record earlier';
      readonly days: number;
      readonly end: TermEnd;
      /** Who says the same of a later end, besides the registry. */
      readonly confirmedBy?: 'account' | 'registrar';
    }
  | { readonly kind: 'unknown' };

/** What is known of a term besides the registry's record. */
export interface TermEvidence {
  readonly ledger: TermEnd | null;
  readonly registry: TermEnd | null;
  readonly statuses: readonly EppStatus[];
  /** The registrar's own end: only an event `registrar expiration` says it (RDAP event actions, RFC 9083 section 10.2.3). */
  readonly registrar: TermEnd | null;
  /** The end that the account's answer gave, since the end of the term. */
  readonly account: TermEnd | null;
  /** There is a receipt for the year that the registry shows. */
  readonly receipt: boolean;
  /** When the record was last seen to say so. */
  readonly seenAt: Instant;
  /** Days after an end in which the registry's extra year may be one that nobody has paid for: the late window of the ending. */
  readonly graceDays: number;
}

/** Ends of two sources mean the same within this: one counts the last second, another a day in its own zone. */
export const SAME_END_HOURS = 24;

const tolerance = SAME_END_HOURS * HOUR_MS;

/** A date without a time is an interval: it agrees with any instant near what it may stand for. */
function sameEnd(a: TermEnd, b: TermEnd): boolean {
  const apart = Math.max(earliestEnd(a) - latestEnd(b), earliestEnd(b) - latestEnd(a));
  return a.precision === 'day' || b.precision === 'day' ? apart <= 0 || sameDate(a, b) : apart <= tolerance;
}

const sameDate = (a: TermEnd, b: TermEnd) => Math.abs(a.at - b.at) <= tolerance;

/** The end before the registry's extra year, while nobody may have paid for that; else the end as the registry shows it. */
function provenEnd({ registry, statuses, seenAt, graceDays }: TermEvidence & { registry: TermEnd }): TermEnd {
  if (!statuses.includes('autoRenewPeriod')) return registry;
  const before: TermEnd = { at: addYears(registry.at, -1), precision: registry.precision };
  return seenAt < addDays(latestEnd(before), graceDays) ? before : registry;
}

/** Compares the registry's end with the ledger's, by the order of trust: receipt, account, registrar, registry. */
export function judgeTerm(evidence: TermEvidence): TermVerdict {
  const { ledger, registry, registrar, account, receipt } = evidence;
  if (ledger === null || registry === null) return { kind: 'unknown' };
  if (sameEnd(ledger, registry)) return { kind: 'agrees' };
  const proven = provenEnd({ ...evidence, registry });
  if (proven !== registry && sameEnd(ledger, proven)) {
    if (receipt) return { kind: 'renewed', by: 'receipt' };
    for (const [end, by] of [
      [account, 'account'],
      [registrar, 'registrar'],
    ] as const) {
      if (end === null) continue;
      if (sameEnd(end, registry)) return { kind: 'renewed', by };
      if (sameEnd(end, ledger)) return { kind: 'not renewed', by };
    }
    return { kind: 'undetermined' };
  }
  const days = Math.round((proven.at - ledger.at) / (24 * HOUR_MS));
  const confirmedBy =
    account && sameEnd(account, proven) ? 'account' : registrar && sameEnd(registrar, proven) ? 'registrar' : null;
  return days > 0
    ? { kind: 'record later', days, end: proven, ...(confirmedBy ? { confirmedBy } : {}) }
    : { kind: 'record earlier', days: Math.max(1, -days), end: proven };
}
