import { balanceNeeded, type Charge, type FailureCause } from '../funding';
import { earliestEnd, type Instant, type Month, monthOf } from '../time';
import type { LedgerAccount } from './data';
import { type Projection, policyOf } from './projection';

/** What a month brings an account: how many charges, and what passes and what does not, in minor units. */
export interface FundedMonth {
  /** `YYYY-MM`, UTC. */
  readonly month: Month;
  readonly charges: number;
  readonly passingMinor: number;
  readonly failing: number;
  readonly failingMinor: number;
}

/** An account played forward with nobody acting. */
export interface AccountFunding {
  readonly account: LedgerAccount;
  /** In order of time, then of A-label. */
  readonly charges: readonly Charge[];
  readonly months: readonly FundedMonth[];
  /** Charges of which nobody can say whether they pass: the balance, the payment method or the price is not known. */
  readonly notKnown: number;
  readonly firstFailure: (Charge & { readonly cause: FailureCause }) | null;
  /** Places of the names that lapse because their last charge in the range fails, in the order of those charges. */
  readonly lapsing: readonly number[];
  /**
   * The least that has to be added to the balance before the first failure so that every charge of the range passes, and
   * the instant it has to be there; `null` when none fails for want of balance.
   */
  readonly leastTopUp: { readonly minor: number; readonly by: Instant } | null;
}

/** When the name at a place lapses by its failed charge, and the least term, in years, that renews it. */
export function lapseAt(projection: Projection, place: number): { readonly lapsesAt: Instant; readonly years: number } {
  const passed = projection.charges.of(place).filter((charge) => charge.outcome === 'pass');
  const paid = passed.at(-1)?.newEnd ?? projection.names.termEnd(place);
  return {
    lapsesAt: paid ? earliestEnd(paid) : projection.asOf,
    years: policyOf(projection, place).terms.renew.least,
  };
}

/** Every account's coming charges up to `until`: what passes, what fails first and why, what lapses by it. */
export function fundingOf(projection: Projection, until: Instant): AccountFunding[] {
  return projection.index.rules.accounts.map((account) => fundAccount(projection, account, until));
}

function fundAccount(projection: Projection, account: LedgerAccount, until: Instant): AccountFunding {
  const charges: Charge[] = [];
  const lapsing: Charge[] = [];
  const { charges: table } = projection;
  for (const place of projection.charged().get(account.id)?.places ?? []) {
    let last: Charge | null = null;
    for (let i = table.first(place); i >= 0 && table.at(i) <= until; i = table.next(i)) {
      last = table.charge(i);
      charges.push(last);
    }
    if (last?.outcome === 'fail') lapsing.push(last);
  }
  // Places follow the A-labels, so that equal instants come in the order in which they are charged.
  charges.sort(inOrder);
  lapsing.sort(inOrder);
  const firstFailure = charges.find((charge) => charge.cause !== null) ?? null;
  return {
    account,
    charges,
    months: byMonth(charges),
    notKnown: charges.filter(({ outcome, assumed }) => outcome === 'pass' && assumed).length,
    firstFailure: firstFailure as AccountFunding['firstFailure'],
    lapsing: lapsing.map(({ place }) => place),
    leastTopUp: leastTopUp(projection, account, firstFailure, until),
  };
}

const inOrder = (a: Charge, b: Charge) => a.at - b.at || a.place - b.place;

/** The charges, in order of time, by calendar month in UTC. */
function byMonth(charges: readonly Charge[]): FundedMonth[] {
  const months: { -readonly [K in keyof FundedMonth]: FundedMonth[K] }[] = [];
  let ends = Number.NEGATIVE_INFINITY;
  for (const { at, outcome, cost } of charges) {
    if (at >= ends) {
      const date = new Date(at);
      ends = Date.UTC(date.getUTCFullYear(), date.getUTCMonth() + 1, 1);
      const month = monthOf(at);
      months.push({ month, charges: 0, passingMinor: 0, failing: 0, failingMinor: 0 });
    }
    const sums = months[months.length - 1] as (typeof months)[number];
    sums.charges += 1;
    if (outcome === 'pass') sums.passingMinor += cost?.minor ?? 0;
    else {
      sums.failing += 1;
      sums.failingMinor += cost?.minor ?? 0;
    }
  }
  return months;
}

/** What the balance lacks so that every charge of the range passes. Costs only add up, so the whole range decides. */
function leastTopUp(
  projection: Projection,
  account: LedgerAccount,
  firstFailure: Charge | null,
  until: Instant,
): AccountFunding['leastTopUp'] {
  const { balanceMinor } = account;
  if (!firstFailure || balanceMinor === null || !account.paymentMethods.some(({ kind }) => kind === 'balance'))
    return null;
  const charged = projection.charged().get(account.id);
  const needed = charged ? balanceNeeded(account, charged, projection.asOf, until) : 0;
  return needed > balanceMinor ? { minor: needed - balanceMinor, by: firstFailure.at } : null;
}
