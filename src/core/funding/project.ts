import type { Amount } from '../money';
import { addDays, earliestEnd, type Instant, laterEnd, type TermEnd } from '../time';
import type { AutoRenewSetting, FundedAccount } from './account';
import { type Charge, cardIsGood, pay } from './charge';

/** A name as its account's charges see it. */
export interface ChargedName {
  /** Where the caller keeps the name; its charges carry it. */
  readonly place: number;
  readonly ascii: string;
  readonly termEnd: TermEnd;
  readonly setting: AutoRenewSetting;
  /** Years each charge buys, never under the policy's least term. */
  readonly years: number;
  /** Until when a charge can still renew the name at the ordinary price (end of the late window), for the term as it stands. */
  readonly chargeableUntil: Instant;
  /** Cost of renewing for `years` on the day of the charge, past the term's end or not; `null` when it is not known. */
  readonly costAt: (years: number, at: Instant, isLate: boolean) => Amount | null;
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
    const at = firstAttempt(account, name, asOf);
    if (at === null) continue;
    const overdue = at > addDays(earliestEnd(name.termEnd), -account.leadDays) && name.setting === 'on';
    queue.push({ at, index, end: name.termEnd, overdue });
  }
  for (let due = queue.pop(); due && due.at <= until; due = queue.pop()) {
    const name = names[due.index] as ChargedName;
    const cost = name.costAt(name.years, due.at, isLate(due.at, due.end));
    const payment = pay(account, balanceMinor, cost, due.at);
    balanceMinor = payment.balanceMinor;
    const newEnd = laterEnd(due.end, name.years);
    const passes = payment.outcome === 'pass';
    charges[due.index]?.push({
      place: name.place,
      at: due.at,
      years: name.years,
      cost,
      outcome: payment.outcome,
      assumed: due.overdue || (passes && payment.assumed),
      paymentMethod: passes ? payment.paymentMethod : null,
      cause: passes ? null : payment.cause,
      newEnd,
      balanceMinor,
    });
    if (passes) {
      queue.push({ at: nextCharge(newEnd, account, due.at), index: due.index, end: newEnd, overdue: false });
      continue;
    }
    const retry = nextRetry(account, due.end, due.at);
    if (retry !== null) queue.push({ at: retry, index: due.index, end: due.end, overdue: false });
  }
  return charges;
}

/**
 * What an account's balance has to hold at `asOf` so that every charge up to `until` passes, in minor units: the sum of what
 * it would pay if it were never short. Charges that a good card in front of it pays are not among them.
 */
export function balanceNeeded(
  account: FundedAccount,
  names: readonly ChargedName[],
  asOf: Instant,
  until: Instant,
): number {
  let needed = 0;
  for (const name of names) {
    let end = name.termEnd;
    let at = firstAttempt(account, name, asOf);
    while (at !== null && at <= until) {
      const cost = name.costAt(name.years, at, isLate(at, end));
      if (cost !== null && cost.currency === account.currency && paidByBalance(account, at)) needed += cost.minor;
      end = laterEnd(end, name.years);
      at = nextCharge(end, account, at);
    }
  }
  return needed;
}

/** True when a balance that is never short pays a charge at `at`: no good card or wallet stands before it. */
function paidByBalance(account: FundedAccount, at: Instant): boolean {
  const first = account.paymentMethods.find((method) => method.kind === 'balance' || cardIsGood(method.endsMonth, at));
  return first?.kind === 'balance';
}

/** A charge at the very end of a term is on its day: only what comes after that is late, and may cost a late fee. */
function isLate(at: Instant, end: TermEnd): boolean {
  return at > earliestEnd(end);
}

/** When a name is first tried: on its lead days, at once when those have passed, or on the next retry day when stalled. */
function firstAttempt(account: FundedAccount, name: ChargedName, asOf: Instant): Instant | null {
  if (name.setting === 'stalled') return nextRetry(account, name.termEnd, (asOf - 1) as Instant);
  if (name.setting !== 'on') return null;
  const due = addDays(earliestEnd(name.termEnd), -account.leadDays);
  const at = Math.max(due, asOf) as Instant;
  // At the instant of deletion an overdue charge comes too late; one that is due at that very instant comes before it.
  return at < name.chargeableUntil || at === due ? at : null;
}

/** True when switching auto-renew on makes the account charge a name at once: its lead days have passed, its late window has not. */
export function isChargedAtOnce(
  account: Pick<FundedAccount, 'leadDays'>,
  name: Pick<ChargedName, 'termEnd' | 'chargeableUntil'>,
  asOf: Instant,
): boolean {
  return addDays(earliestEnd(name.termEnd), -account.leadDays) <= asOf && asOf < name.chargeableUntil;
}

/** A charge is never due before the one that it follows, however short the term and long the lead. */
function nextCharge(end: TermEnd, account: FundedAccount, after: Instant): Instant {
  return Math.max(addDays(earliestEnd(end), -account.leadDays), after + 1) as Instant;
}

/** The first of the account's retry days after an instant and before the end of the term. */
function nextRetry(account: FundedAccount, termEnd: TermEnd, after: Instant): Instant | null {
  const end = earliestEnd(termEnd);
  const later = account.retryDays.map((days) => addDays(end, -days)).filter((at) => at > after && at < end);
  return later.length === 0 ? null : (Math.min(...later) as Instant);
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
