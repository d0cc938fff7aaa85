import { addYears, dayOf, earliestEnd, type TermEnd } from '../time';
import type { EppStatus } from './statuses';

/**
 * What the registry's end of a term says beside the ledger's. In the late window a registry may show a year that nobody has paid
 * for: then only a receipt, an account's answer or the registrar's own end decide.
 */
export type TermVerdict =
  | { readonly kind: 'agrees' }
  | { readonly kind: 'renewed'; readonly by: 'receipt' | 'account' | 'registrar' }
  | { readonly kind: 'not renewed'; readonly by: 'account' | 'registrar' }
  | { readonly kind: 'undetermined' }
  | { readonly kind: 'record later' | 'record earlier'; readonly days: number }
  | { readonly kind: 'unknown' };

/** What is known of a term besides the registry's record. */
export interface TermEvidence {
  readonly ledger: TermEnd | null;
  readonly registry: TermEnd | null;
  readonly statuses: readonly EppStatus[];
  /** The end in the registrar's own record. */
  readonly registrar: TermEnd | null;
  /** The end that the account's answer gave, since the end of the term. */
  readonly account: TermEnd | null;
  /** There is a receipt for the year that the registry shows. */
  readonly receipt: boolean;
}

const DAY_MS = 86_400_000;
const sameDay = (a: TermEnd, b: TermEnd) => Math.abs(a.at - b.at) < 2 * DAY_MS && near(a, b);
/** A date without a time is an interval: it agrees with any instant it may stand for. */
const near = (a: TermEnd, b: TermEnd) =>
  a.precision === 'day' || b.precision === 'day' ? Math.abs(a.at - b.at) <= 1.5 * DAY_MS : dayOf(a.at) === dayOf(b.at);

/** Compares the registry's end with the ledger's, by the order of trust: receipt, account, registrar, registry. */
export function judgeTerm(evidence: TermEvidence): TermVerdict {
  const { ledger, registry, statuses, registrar, account, receipt } = evidence;
  if (ledger === null || registry === null) return { kind: 'unknown' };
  if (sameDay(ledger, registry)) return { kind: 'agrees' };
  const provisional: TermEnd = { at: addYears(ledger.at, 1), precision: ledger.precision };
  if (statuses.includes('autoRenewPeriod') && sameDay(provisional, registry)) {
    if (receipt) return { kind: 'renewed', by: 'receipt' };
    for (const [end, by] of [
      [account, 'account'],
      [registrar, 'registrar'],
    ] as const) {
      if (end === null) continue;
      if (sameDay(end, registry)) return { kind: 'renewed', by };
      if (sameDay(end, ledger)) return { kind: 'not renewed', by };
    }
    return { kind: 'undetermined' };
  }
  const days = Math.round((earliestEnd(registry) - earliestEnd(ledger)) / DAY_MS);
  return days > 0 ? { kind: 'record later', days } : { kind: 'record earlier', days: -days };
}
