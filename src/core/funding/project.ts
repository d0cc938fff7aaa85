import type { Amount } from '../money';
import { addDays, earliestEnd, type Instant, laterEnd, type TermEnd } from '../time';
import type { AutoRenewSetting, FundedAccount } from './account';
import { type Charge, cardIsGood, pay } from './charge';
import { ChargeTable } from './chargeTable';
import { DueQueue } from './dueQueue';

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

/**
 * The names that one account charges, in columns, in the order of their A-labels: what falls on one instant is charged in that order.
 * Instants are milliseconds.
 */
export interface ChargedNames {
  /** Where the caller keeps each name; its charges carry it. */
  readonly places: Int32Array;
  readonly termEnd: Float64Array;
  /** Only the date of the end is known. */
  readonly isDay: Uint8Array;
  readonly isStalled: Uint8Array;
  readonly years: Uint8Array;
  readonly chargeableUntil: Float64Array;
  /** As `ChargedName.costAt`, of the name at a place. */
  readonly costAt: (place: number, years: number, at: Instant, isLate: boolean) => Amount | null;
}

/** Those of some names that are charged at all, as columns; each at its index. */
export function chargedNames(names: readonly ChargedName[]): ChargedNames {
  const order = names
    .map((name, index) => ({ name, index }))
    .filter(({ name: { setting } }) => setting === 'on' || setting === 'stalled')
    .sort((a, b) => (a.name.ascii < b.name.ascii ? -1 : 1));
  const column = (of: (name: ChargedName) => number) => order.map(({ name }) => of(name));
  return {
    places: Int32Array.from(order, ({ index }) => index),
    termEnd: Float64Array.from(column(({ termEnd }) => termEnd.at)),
    isDay: Uint8Array.from(column(({ termEnd }) => (termEnd.precision === 'day' ? 1 : 0))),
    isStalled: Uint8Array.from(column(({ setting }) => (setting === 'stalled' ? 1 : 0))),
    years: Uint8Array.from(column(({ years }) => years)),
    chargeableUntil: Float64Array.from(column(({ chargeableUntil }) => chargeableUntil)),
    costAt: (place, years, at, isLate) => (names[place] as ChargedName).costAt(years, at, isLate),
  };
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
  const table = new ChargeTable(names.length);
  playCharges(account, chargedNames(names), asOf, until, table);
  return names.map((name, index) => table.of(index).map((charge) => ({ ...charge, place: name.place })));
}

/** `projectCharges` for many names: the charges are added to a table. */
export function playCharges(
  account: FundedAccount,
  names: ChargedNames,
  asOf: Instant,
  until: Instant,
  table: ChargeTable,
): void {
  const { places } = names;
  const end = names.termEnd.slice();
  const endOf = (i: number): TermEnd => ({ at: end[i] as Instant, precision: names.isDay[i] ? 'day' : 'instant' });
  // A charge that was due before today, and of which nobody has said what came of it, is only assumed.
  const overdue = new Uint8Array(places.length);
  const due = new Float64Array(places.length);
  for (let i = 0; i < places.length; i += 1) {
    const at = firstAttempt(account, names, i, asOf);
    due[i] = at ?? Number.NaN;
    if (at !== null && !names.isStalled[i] && at > addDays(earliestEnd(endOf(i)), -account.leadDays)) overdue[i] = 1;
  }
  const queue = new DueQueue(due);
  let { balanceMinor } = account;
  for (let i = queue.first; i >= 0 && queue.at(i) <= until; i = queue.first) {
    const at = queue.at(i);
    const place = places[i] as number;
    const years = names.years[i] as number;
    const before = endOf(i);
    const cost = names.costAt(place, years, at, isLate(at, before));
    const payment = pay(account, balanceMinor, cost, at);
    balanceMinor = payment.balanceMinor;
    const newEnd = laterEnd(before, years);
    const passes = payment.outcome === 'pass';
    table.add({
      place,
      at,
      years,
      cost,
      outcome: payment.outcome,
      assumed: overdue[i] === 1 || (passes && payment.assumed),
      paymentMethod: passes ? payment.paymentMethod : null,
      cause: passes ? null : payment.cause,
      newEnd,
      balanceMinor,
    });
    overdue[i] = 0;
    if (passes) end[i] = newEnd.at;
    queue.pass(passes ? nextCharge(newEnd, account, at) : nextRetry(account, before, at));
  }
}

/**
 * What an account's balance has to hold at `asOf` so that every charge up to `until` passes, in minor units: the sum of what
 * it would pay if it were never short. Charges that a good card in front of it pays are not among them.
 */
export function balanceNeeded(account: FundedAccount, names: ChargedNames, asOf: Instant, until: Instant): number {
  let needed = 0;
  for (let i = 0; i < names.places.length; i += 1) {
    const years = names.years[i] as number;
    let end: TermEnd = { at: names.termEnd[i] as Instant, precision: names.isDay[i] ? 'day' : 'instant' };
    let at = firstAttempt(account, names, i, asOf);
    while (at !== null && at <= until) {
      const cost = names.costAt(names.places[i] as number, years, at, isLate(at, end));
      if (cost !== null && cost.currency === account.currency && paidByBalance(account, at)) needed += cost.minor;
      end = laterEnd(end, years);
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
function firstAttempt(account: FundedAccount, names: ChargedNames, i: number, asOf: Instant): Instant | null {
  const end: TermEnd = { at: names.termEnd[i] as Instant, precision: names.isDay[i] ? 'day' : 'instant' };
  if (names.isStalled[i]) return nextRetry(account, end, (asOf - 1) as Instant);
  const due = addDays(earliestEnd(end), -account.leadDays);
  const at = Math.max(due, asOf) as Instant;
  // At the instant of deletion an overdue charge comes too late; one that is due at that very instant comes before it.
  return at < (names.chargeableUntil[i] as number) || at === due ? at : null;
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
  let next: Instant | null = null;
  for (const days of account.retryDays) {
    const at = addDays(end, -days);
    if (at > after && at < end && (next === null || at < next)) next = at;
  }
  return next;
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
  charges: Pick<ChargeTable, 'first' | 'next' | 'at' | 'passes' | 'newEnd' | 'charge'>,
  place: number,
  asOf: Instant,
  day: Instant,
): ChargedState {
  let { termEnd, setting } = name;
  let failed = -1;
  const failure = () => (failed < 0 ? null : charges.charge(failed));
  for (let i = charges.first(place); i >= 0; i = charges.next(i)) {
    if (day <= asOf || charges.at(i) > day) {
      const coming = charges.charge(i);
      let saving = i;
      while (saving >= 0 && !charges.passes(saving)) saving = charges.next(saving);
      const kept = saving === i ? coming : saving < 0 ? null : charges.charge(saving);
      return { termEnd, setting, coming, saving: kept, failed: failure() };
    }
    if (charges.passes(i)) {
      termEnd = charges.newEnd(i);
      setting = 'on';
      failed = -1;
    } else {
      setting = 'stalled';
      failed = i;
    }
  }
  return { termEnd, setting, coming: null, saving: null, failed: failure() };
}
