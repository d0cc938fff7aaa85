import { fundingOf, LOOK_AHEAD_YEARS, type Projection, projectIf } from '../ledger';
import type { Policy } from '../lifecycle';
import { type Amount, amount } from '../money';
import { addDays, addYears, type Instant } from '../time';

/** Days in which the holder of a new name has to confirm the mail address. Registrar agreement, from memory. */
export const CONFIRM_MAIL_DAYS = 15;

/**
 * The last instant at which a new name can be given back for its price: the ending's refundable days, where the account credits them;
 * `null` where it does not, or the ending has none. At most 5 days are usual (common practice).
 */
export function refundableUntil(
  registeredAt: Instant,
  { refundableDays }: Pick<Policy, 'refundableDays'>,
  { refunds }: { readonly refunds: boolean },
): Instant | null {
  return refunds && refundableDays > 0 ? addDays(registeredAt, refundableDays) : null;
}

/** A coming automatic charge that would no longer find its money. */
export interface StarvedCharge {
  readonly ascii: string;
  readonly at: Instant;
  readonly cost: Amount | null;
}

/**
 * The first coming charge of an account that passes as things stand, and fails once `spendMinor` has been taken off its balance; `null`
 * where none does, or the balance is not known. Minor units of the account's currency.
 */
export function starvedBy(projection: Projection, accountId: number, spendMinor: number): StarvedCharge | null {
  const account = projection.index.accounts.get(accountId);
  if (!account || account.balanceMinor === null || spendMinor <= 0) return null;
  const until = addYears(projection.asOf, LOOK_AHEAD_YEARS);
  const failing = (played: Projection) => {
    const funded = fundingOf(played, until).find((one) => one.account.id === accountId);
    return (funded?.charges ?? [])
      .filter(({ outcome }) => outcome === 'fail')
      .map((charge) => ({ ascii: played.names.ascii(charge.place), at: charge.at, cost: charge.cost }));
  };
  const before = new Set(failing(projection).map(({ ascii, at }) => `${ascii} ${at}`));
  const spent = projectIf(projection, { accountId, topUpMinor: -spendMinor, card: null });
  return failing(spent).find(({ ascii, at }) => !before.has(`${ascii} ${at}`)) ?? null;
}

/** What an account has left once several sums of its currency are taken: below nothing where it is not enough. `null`: not known. */
export function balanceAfter(balanceMinor: number | null, sums: readonly Amount[], currency: string): Amount | null {
  if (balanceMinor === null) return null;
  const spent = sums.reduce((sum, one) => (one.currency === currency ? sum + one.minor : sum), 0);
  return amount(balanceMinor - spent, currency);
}
