import type { Charge, FailureCause } from '../funding';
import type { Instant } from '../time';
import { indexRules } from './costs';
import type { LedgerAccount } from './data';
import { type Projection, projectLedger } from './projection';

/** One automatic charge of an account, with the name it is for. */
export interface AccountCharge extends Charge {
  /** The name's place in the projection. */
  readonly place: number;
}

/** What a month brings an account: how many charges, and what passes and what does not, in minor units. */
export interface FundedMonth {
  /** `YYYY-MM`, UTC. */
  readonly month: string;
  readonly charges: number;
  readonly passingMinor: number;
  readonly failing: number;
  readonly failingMinor: number;
}

/** An account played forward with nobody acting. */
export interface AccountFunding {
  readonly account: LedgerAccount;
  /** In order of time, then of A-label. */
  readonly charges: readonly AccountCharge[];
  readonly months: readonly FundedMonth[];
  readonly firstFailure: (AccountCharge & { readonly cause: FailureCause }) | null;
  /** Places of the names that lapse because their last charge in the range fails. */
  readonly lapsing: readonly number[];
  /**
   * The least that has to be added to the balance before the first failure so that every charge of the range passes, and
   * the instant it has to be there; `null` when none fails for want of balance.
   */
  readonly leastTopUp: { readonly minor: number; readonly by: Instant } | null;
}

/** Every account's coming charges up to `until`: what passes, what fails first and why, what lapses by it. */
export function fundingOf(projection: Projection, until: Instant): AccountFunding[] {
  const byAccount = new Map<number, AccountCharge[]>();
  for (const [place, charges] of projection.charges.entries()) {
    if (charges.length === 0) continue;
    const { accountId } = projection.names[place] as Projection['names'][number];
    let list = byAccount.get(accountId);
    if (!list) {
      list = [];
      byAccount.set(accountId, list);
    }
    for (const charge of charges) {
      if (charge.at > until) break;
      list.push({ ...charge, place });
    }
  }
  return projection.index.rules.accounts.map((account) =>
    fundAccount(projection, account, byAccount.get(account.id) ?? [], until),
  );
}

function fundAccount(
  projection: Projection,
  account: LedgerAccount,
  charges: AccountCharge[],
  until: Instant,
): AccountFunding {
  // Places follow the A-labels, so that equal instants come in the order in which they are charged.
  charges.sort((a, b) => a.at - b.at || a.place - b.place);
  const last = new Map<number, AccountCharge>();
  for (const charge of charges) last.set(charge.place, charge);
  const firstFailure = charges.find((charge) => charge.cause !== null) ?? null;
  return {
    account,
    charges,
    months: byMonth(charges),
    firstFailure: firstFailure as AccountFunding['firstFailure'],
    lapsing: [...last.values()].flatMap((charge) => (charge.outcome === 'fail' ? [charge.place] : [])),
    leastTopUp: leastTopUp(projection, account, charges, until),
  };
}

function byMonth(charges: readonly AccountCharge[]): FundedMonth[] {
  const months = new Map<string, { -readonly [K in keyof FundedMonth]: FundedMonth[K] }>();
  for (const { at, outcome, cost } of charges) {
    const month = new Date(at).toISOString().slice(0, 7);
    let sums = months.get(month);
    if (!sums) {
      sums = { month, charges: 0, passingMinor: 0, failing: 0, failingMinor: 0 };
      months.set(month, sums);
    }
    sums.charges += 1;
    if (outcome === 'pass') sums.passingMinor += cost?.minor ?? 0;
    else {
      sums.failing += 1;
      sums.failingMinor += cost?.minor ?? 0;
    }
  }
  return [...months.values()];
}

/** More than any account holds: with it, every charge finds its money. */
const PLENTY_MINOR = 1e12;

/**
 * The greatest over j of (cost of the first j charges - balance), with every charge of the range passing, since what passes
 * is charged again a term later. Enough in any case; exactly the least where the balance is the only means.
 */
function leastTopUp(
  projection: Projection,
  account: LedgerAccount,
  charges: readonly AccountCharge[],
  until: Instant,
): AccountFunding['leastTopUp'] {
  const failing = charges.find((charge) => charge.outcome === 'fail');
  const { balanceMinor } = account;
  if (!failing || balanceMinor === null || !account.means.some(({ kind }) => kind === 'balance')) return null;
  const rich = { ...account, balanceMinor: PLENTY_MINOR };
  const rules = { ...projection.index.rules, accounts: [rich] };
  const names = projection.names.filter((name) => name.accountId === account.id);
  const { charges: passing } = projectLedger(indexRules(rules), names, projection.asOf);
  const costs = passing
    .flatMap((list, place) => list.map((charge) => ({ ...charge, place })))
    .filter((charge) => charge.at <= until && charge.balanceMinor !== PLENTY_MINOR)
    .sort((one, other) => one.at - other.at || one.place - other.place);
  let spent = 0;
  let most = 0;
  for (const { cost } of costs) {
    spent += cost?.minor ?? 0;
    most = Math.max(most, spent - balanceMinor);
  }
  return most > 0 ? { minor: most, by: failing.at } : null;
}
