import { type Amount, amount } from '../money';
import type { Instant, TermEnd } from '../time';
import { cardIsGood, type FundedAccount } from './account';

/** Why no means of an account paid. */
export type FailureCause =
  | { readonly kind: 'balance short'; readonly missing: Amount }
  | { readonly kind: 'card ended'; readonly label: string; readonly endsMonth: string }
  | { readonly kind: 'no means' };

/** An automatic charge, as it is expected to go. */
export interface Charge {
  /** The name it is for, as `ChargedName.place` has it. */
  readonly place: number;
  readonly at: Instant;
  readonly years: number;
  /** `null` when no price is known. */
  readonly cost: Amount | null;
  readonly outcome: 'pass' | 'fail';
  /** True when the result rests on something nobody has said: an unknown balance, price, means, or an overdue result. */
  readonly assumed: boolean;
  readonly means: string | null;
  readonly cause: FailureCause | null;
  readonly newEnd: TermEnd;
  /** The balance after it, minor units of the account's currency; `null` when the balance is unknown. */
  readonly balanceMinor: number | null;
}

type Payment =
  | {
      readonly outcome: 'pass';
      readonly means: string | null;
      readonly assumed: boolean;
      readonly balanceMinor: number | null;
    }
  | { readonly outcome: 'fail'; readonly cause: FailureCause; readonly balanceMinor: number | null };

/**
 * Tries an account's means in order for one charge at `at`. One charge is never split between two. Without any means
 * recorded, or with an unknown balance or price, the charge is assumed to pass and says so.
 */
export function pay(account: FundedAccount, balanceMinor: number | null, cost: Amount | null, at: Instant): Payment {
  if (account.means.length === 0) return { outcome: 'pass', means: null, assumed: true, balanceMinor };
  const inCurrency = cost !== null && cost.currency === account.currency;
  let cause: FailureCause = { kind: 'no means' };
  for (const means of account.means) {
    if (means.kind !== 'balance') {
      if (cardIsGood(means.endsMonth, at))
        return { outcome: 'pass', means: means.label, assumed: cost === null, balanceMinor };
      cause = { kind: 'card ended', label: means.label, endsMonth: means.endsMonth ?? '' };
    } else if (balanceMinor === null || !inCurrency) {
      return { outcome: 'pass', means: means.label, assumed: true, balanceMinor };
    } else if (balanceMinor >= cost.minor) {
      return { outcome: 'pass', means: means.label, assumed: false, balanceMinor: balanceMinor - cost.minor };
    } else if (cause.kind === 'no means') {
      cause = { kind: 'balance short', missing: amount(cost.minor - balanceMinor, account.currency) };
    }
  }
  return { outcome: 'fail', cause, balanceMinor };
}
