import { type Amount, amount } from '../money';
import type { Instant, TermEnd } from '../time';
import type { FundedAccount } from './account';

/** Why no payment method of an account paid. */
export type FailureCause =
  | { readonly kind: 'balance short'; readonly missing: Amount }
  | { readonly kind: 'card ended'; readonly label: string; readonly endsMonth: string }
  | { readonly kind: 'no payment method' };

/** An automatic charge, as it is expected to go. */
export interface Charge {
  /** The name it is for, as `ChargedName.place` has it. */
  readonly place: number;
  readonly at: Instant;
  readonly years: number;
  /** `null` when no price is known. */
  readonly cost: Amount | null;
  readonly outcome: 'pass' | 'fail';
  /** True when the result rests on something nobody has said: an unknown balance, price, payment method, or an overdue result. */
  readonly assumed: boolean;
  readonly paymentMethod: string | null;
  readonly cause: FailureCause | null;
  readonly newEnd: TermEnd;
  /** The balance after it, minor units of the account's currency; `null` when the balance is unknown. */
  readonly balanceMinor: number | null;
}

/** What came of trying to pay. */
export type Payment =
  | {
      readonly outcome: 'pass';
      readonly paymentMethod: string | null;
      readonly assumed: boolean;
      readonly balanceMinor: number | null;
    }
  | { readonly outcome: 'fail'; readonly cause: FailureCause; readonly balanceMinor: number | null };

/**
 * Tries an account’s payment methods in order for one charge at `at`. One charge is never split between two. Without any payment method
 * recorded, or with an unknown balance or price, the charge is assumed to pass and says so.
 */
export function pay(account: FundedAccount, balanceMinor: number | null, cost: Amount | null, at: Instant): Payment {
  if (account.paymentMethods.length === 0) return { outcome: 'pass', paymentMethod: null, assumed: true, balanceMinor };
  const inCurrency = cost !== null && cost.currency === account.currency;
  let cause: FailureCause = { kind: 'no payment method' };
  for (const method of account.paymentMethods) {
    if (method.kind !== 'balance') {
      if (cardIsGood(method.endsMonth, at))
        return { outcome: 'pass', paymentMethod: method.label, assumed: cost === null, balanceMinor };
      cause = { kind: 'card ended', label: method.label, endsMonth: method.endsMonth ?? '' };
    } else if (balanceMinor === null || !inCurrency) {
      return { outcome: 'pass', paymentMethod: method.label, assumed: true, balanceMinor };
    } else if (balanceMinor >= cost.minor) {
      return { outcome: 'pass', paymentMethod: method.label, assumed: false, balanceMinor: balanceMinor - cost.minor };
    } else if (cause.kind === 'no payment method') {
      cause = { kind: 'balance short', missing: amount(cost.minor - balanceMinor, account.currency) };
    }
  }
  return { outcome: 'fail', cause, balanceMinor };
}

/** True while a card that ends in `endsMonth` can still be charged: through the last day of that month, UTC. */
export function cardIsGood(endsMonth: string | null, at: Instant): boolean {
  // The month after it begins: months of `Date.UTC` count from 0.
  return endsMonth === null || at < Date.UTC(Number(endsMonth.slice(0, 4)), Number(endsMonth.slice(5, 7)), 1);
}
