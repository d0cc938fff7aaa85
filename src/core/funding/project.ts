import type { Amount } from '../money';
import { inOneGo, type Steps } from '../steps';
import { addDays, addYears, earliestAt, earliestEnd, type Instant, type TermEnd } from '../time';
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
export function playCharges(...played: Parameters<typeof playingCharges>): void {
  inOneGo(playingCharges(...played));
}

/** So many names, or charges, are played in a millisecond or two. */
const A_STEP = 1000;

/** The same in steps. */
export function* playingCharges(
  account: FundedAccount,
  names: ChargedNames,
  asOf: Instant,
  until: Instant,
  table: ChargeTable,
): Steps<void> {
  const { places, isDay, isStalled } = names;
  const end = names.termEnd.slice();
  // A charge that was due before today, and of which nobody has said what came of it, is only assumed.
  const overdue = new Uint8Array(places.length);
  const due = new Float64Array(places.length);
  for (let i = 0; i < places.length; i += 1) {
    if (i % (10 * A_STEP) === A_STEP) yield;
    const at = firstAttempt(account, names, i, asOf);
    due[i] = at ?? Number.NaN;
    const lead = addDays(earliestAt(end[i] as number, isDay[i] === 1), -account.leadDays);
    if (at !== null && isStalled[i] === 0 && at > lead) overdue[i] = 1;
  }
  let { balanceMinor } = account;
  /** One attempt for a name; answers when the next is due. */
  const attempt = (i: number, at: Instant): Instant | null => {
    const years = names.years[i] as number;
    const dateAlone = isDay[i] === 1;
    const before = end[i] as Instant;
    const ends = earliestAt(before, dateAlone);
    const cost = names.costAt(places[i] as number, years, at, isLate(at, ends));
    const payment = pay(account, balanceMinor, cost, at);
    balanceMinor = payment.balanceMinor;
    const newEnd = addYears(before, years);
    const passes = payment.outcome === 'pass';
    const assumed = overdue[i] === 1 || (passes && payment.assumed);
    table.add(places[i] as number, at, years, cost, payment, assumed, newEnd, dateAlone);
    overdue[i] = 0;
    if (!passes) return nextRetry(account, ends, at);
    end[i] = newEnd;
    return nextCharge(earliestAt(newEnd, dateAlone), account, at);
  };
  if (!sharesBalance(account)) {
    for (let i = 0; i < places.length; i += 1) {
      if (i % A_STEP === A_STEP - 1) yield;
      for (let at = dueAt(due, i); at !== null && at <= until; at = attempt(i, at));
    }
    return;
  }
  const queue = new DueQueue(due);
  let played = 0;
  for (let i = queue.first; i >= 0 && queue.at(i) <= until; i = queue.first) {
    queue.pass(attempt(i, queue.at(i)));
    played += 1;
    if (played % A_STEP === 0) yield;
  }
}

/** What one charge takes is missing for the next only where a balance that is known pays: else the order of names does not matter. */
export function sharesBalance({ balanceMinor, paymentMethods }: FundedAccount): boolean {
  return balanceMinor !== null && paymentMethods.some(({ kind }) => kind === 'balance');
}

const dueAt = (due: Float64Array, i: number): Instant | null => (Number.isNaN(due[i]) ? null : (due[i] as Instant));

/**
 * What an account's balance has to hold at `asOf` so that every charge up to `until` passes, in minor units: the sum of what
 * it would pay if it were never short. Charges that a good card in front of it pays are not among them.
 */
export function balanceNeeded(account: FundedAccount, names: ChargedNames, asOf: Instant, until: Instant): number {
  let needed = 0;
  for (let i = 0; i < names.places.length; i += 1) {
    const years = names.years[i] as number;
    const dateAlone = names.isDay[i] === 1;
    let end = names.termEnd[i] as Instant;
    let at = firstAttempt(account, names, i, asOf);
    while (at !== null && at <= until) {
      const late = isLate(at, earliestAt(end, dateAlone));
      const cost = names.costAt(names.places[i] as number, years, at, late);
      if (cost !== null && cost.currency === account.currency && paidByBalance(account, at)) needed += cost.minor;
      end = addYears(end, years);
      at = nextCharge(earliestAt(end, dateAlone), account, at);
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
function isLate(at: Instant, ends: Instant): boolean {
  return at > ends;
}

/** When a name is first tried: on its lead days, at once when those have passed, or on the next retry day when stalled. */
function firstAttempt(account: FundedAccount, names: ChargedNames, i: number, asOf: Instant): Instant | null {
  const ends = earliestAt(names.termEnd[i] as number, names.isDay[i] === 1);
  if (names.isStalled[i]) return nextRetry(account, ends, (asOf - 1) as Instant);
  const due = addDays(ends, -account.leadDays);
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
function nextCharge(ends: Instant, account: FundedAccount, after: Instant): Instant {
  return Math.max(addDays(ends, -account.leadDays), after + 1) as Instant;
}

/** The first of the account's retry days after an instant and before the end of the term. */
function nextRetry(account: FundedAccount, ends: Instant, after: Instant): Instant | null {
  let next: Instant | null = null;
  for (const days of account.retryDays) {
    const at = addDays(ends, -days);
    if (at > after && at < ends && (next === null || at < next)) next = at;
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

/** The charges that decide how a name stands on a day, by number; below nothing where there is none. */
export interface ChargesOn {
  /** The last that passed by that day, and the last that failed since. */
  passed: number;
  failed: number;
  /** The next, and the next that passes. */
  coming: number;
  saving: number;
}

/** Finds them among the charges projected from `asOf`. On `asOf` itself only facts count. `found` is filled in, to be used again. */
export function chargesOn(
  charges: Pick<ChargeTable, 'first' | 'next' | 'at' | 'passes'>,
  place: number,
  asOf: Instant,
  day: Instant,
  found: ChargesOn = { passed: -1, failed: -1, coming: -1, saving: -1 },
): ChargesOn {
  found.passed = -1;
  found.failed = -1;
  let i = charges.first(place);
  if (day > asOf)
    for (; i >= 0 && charges.at(i) <= day; i = charges.next(i)) {
      if (charges.passes(i)) {
        found.passed = i;
        found.failed = -1;
      } else found.failed = i;
    }
  found.coming = i;
  while (i >= 0 && !charges.passes(i)) i = charges.next(i);
  found.saving = i;
  return found;
}

/** The state of one name on `day` after the charges projected from `asOf`. */
export function chargedState(
  name: Pick<ChargedName, 'termEnd' | 'setting'>,
  charges: ChargeTable,
  place: number,
  asOf: Instant,
  day: Instant,
): ChargedState {
  const { passed, failed, coming, saving } = chargesOn(charges, place, asOf, day);
  const charge = (i: number) => (i < 0 ? null : charges.charge(i));
  const next = charge(coming);
  return {
    termEnd: passed < 0 ? name.termEnd : charges.newEnd(passed),
    setting: failed >= 0 ? 'stalled' : passed >= 0 ? 'on' : name.setting,
    coming: next,
    saving: saving === coming ? next : charge(saving),
    failed: charge(failed),
  };
}
