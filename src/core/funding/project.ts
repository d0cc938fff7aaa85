import type { Amount } from '../money';
import { addDays, earliestEnd, type Instant, laterEnd, type TermEnd } from '../time';
import type { AutoRenewSetting, FundedAccount } from './account';
import { type Charge, pay } from './charge';

/** A name as its account's charges see it. */
export interface ChargedName {
  readonly ascii: string;
  readonly termEnd: TermEnd;
  readonly setting: AutoRenewSetting;
  /** Years each charge buys, never under the policy's least term. */
  readonly years: number;
  /** Until when a charge can still renew the name at the ordinary price (end of the late window), for the term as it stands. */
  readonly chargeableUntil: Instant;
  /** Cost of renewing for `years` on the day of the charge; `null` when no price is known. */
  readonly costAt: (years: number, at: Instant) => Amount | null;
}

interface Due {
  readonly at: Instant;
  readonly index: number;
  readonly end: TermEnd;
  readonly overdue: boolean;
}

/**
 * Plays one account forward from `asOf` to `until` with nobody acting: every automatic charge in order, what pays it,
 * whether it passes, and the balance after it. A charge due before `asOf` whose result is unknown is attempted at `asOf`
 * and marked assumed. After a failure the name is stalled and tried again only on the account's retry days.
 *
 * Charges at one instant go by A-label, so the order of the input does not matter. Answers one list of charges for each
 * name, in order of time; a name whose charges need no thought (auto-renew not on) has none.
 */
export function projectCharges(
  account: FundedAccount,
  names: readonly ChargedName[],
  asOf: Instant,
  until: Instant,
): Charge[][] {
  const charges: Charge[][] = names.map(() => []);
  const queue = dueQueue(names);
  let balanceMinor = account.balanceMinor;
  for (const [index, name] of names.entries()) {
    if (name.setting !== 'on' || asOf > name.chargeableUntil) continue;
    const due = addDays(earliestEnd(name.termEnd), -account.leadDays);
    queue.push({ at: due < asOf ? asOf : due, index, end: name.termEnd, overdue: due < asOf });
  }
  for (let due = queue.pop(); due && due.at <= until; due = queue.pop()) {
    const name = names[due.index] as ChargedName;
    const cost = name.costAt(name.years, due.at);
    const payment = pay(account, balanceMinor, cost, due.at);
    balanceMinor = payment.balanceMinor;
    const newEnd = laterEnd(due.end, name.years);
    const passes = payment.outcome === 'pass';
    charges[due.index]?.push({
      at: due.at,
      years: name.years,
      cost,
      outcome: payment.outcome,
      assumed: due.overdue || (passes && payment.assumed),
      means: passes ? payment.means : null,
      cause: passes ? null : payment.cause,
      newEnd,
      balanceMinor,
    });
    if (passes) {
      queue.push({ at: nextCharge(newEnd, account, due.at), index: due.index, end: newEnd, overdue: false });
      continue;
    }
    const retry = nextRetry(account, due);
    if (retry) queue.push(retry);
  }
  return charges;
}

/** A charge is never due before the one that it follows, however short the term and long the lead. */
function nextCharge(end: TermEnd, account: FundedAccount, after: Instant): Instant {
  return Math.max(addDays(earliestEnd(end), -account.leadDays), after + 1) as Instant;
}

function nextRetry(account: FundedAccount, due: Due): Due | null {
  const end = earliestEnd(due.end);
  const later = account.retryDays.map((days) => addDays(end, -days)).filter((at) => at > due.at && at < end);
  const at = later.sort((a, b) => a - b)[0];
  return at === undefined ? null : { at, index: due.index, end: due.end, overdue: false };
}

/** A binary heap of what is due next: by instant, then by A-label. */
function dueQueue(names: readonly ChargedName[]): { push(due: Due): void; pop(): Due | undefined } {
  const heap: Due[] = [];
  const before = (a: Due, b: Due) =>
    a.at - b.at || ((names[a.index]?.ascii ?? '') < (names[b.index]?.ascii ?? '') ? -1 : 1);
  return {
    push(due) {
      let at = heap.push(due) - 1;
      while (at > 0) {
        const parent = (at - 1) >> 1;
        const above = heap[parent] as Due;
        if (before(above, due) <= 0) break;
        heap[at] = above;
        at = parent;
      }
      heap[at] = due;
    },
    pop() {
      const first = heap[0];
      const last = heap.pop();
      if (first === undefined || last === undefined || heap.length === 0) return first;
      let at = 0;
      for (;;) {
        let child = 2 * at + 1;
        if (child >= heap.length) break;
        if (child + 1 < heap.length && before(heap[child + 1] as Due, heap[child] as Due) < 0) child += 1;
        if (before(last, heap[child] as Due) <= 0) break;
        heap[at] = heap[child] as Due;
        at = child;
      }
      heap[at] = last;
      return first;
    },
  };
}

/** What an account's charges have made of a name by some day, and what comes next. */
export interface ChargedState {
  readonly termEnd: TermEnd;
  readonly setting: AutoRenewSetting;
  /** The next charge, whether it passes or fails. */
  readonly coming: Charge | null;
  /** The next charge that passes and so keeps the name: `coming`, or a retry of it. */
  readonly saving: Charge | null;
  /** The last charge that failed by that day and has not been made good. */
  readonly failed: Charge | null;
}

/** The state of one name on `day` after the charges projected from `asOf`. On `asOf` itself only facts count. */
export function chargedState(
  name: Pick<ChargedName, 'termEnd' | 'setting'>,
  charges: readonly Charge[],
  asOf: Instant,
  day: Instant,
): ChargedState {
  let { termEnd, setting } = name;
  let failed: Charge | null = null;
  if (charges.length === 0) return { termEnd, setting, coming: null, saving: null, failed };
  for (let i = 0; i < charges.length; i += 1) {
    const coming = charges[i] as Charge;
    if (day <= asOf || coming.at > day) {
      const saving =
        coming.outcome === 'pass' ? coming : (charges.find((charge, j) => j > i && charge.outcome === 'pass') ?? null);
      return { termEnd, setting, coming, saving, failed };
    }
    if (coming.outcome === 'pass') {
      termEnd = coming.newEnd;
      setting = 'on';
      failed = null;
    } else {
      setting = 'stalled';
      failed = coming;
    }
  }
  return { termEnd, setting, coming: null, saving: null, failed };
}
