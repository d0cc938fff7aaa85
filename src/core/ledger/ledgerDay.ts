import { AUTO_RENEW_SETTINGS, type ChargesOn, chargesOn } from '../funding';
import { type Marks, movedBy, PHASES, type Phase, phaseAt } from '../lifecycle';
import type { Amount } from '../money';
import { DEADLINE_KINDS, type Deadline, deadlineAt } from '../pricing';
import type { Steps } from '../steps';
import type { Instant } from '../time';
import { groupCostsAt, type KeepingCosts } from './costs';
import type { LedgerName } from './data';
import {
  everyRow,
  type LedgerRow,
  marksOf,
  type NameStanding,
  type Projection,
  rowsOn,
  standingsOn,
} from './projection';

/** The number of a phase in a column; 0 for none. */
export const phaseCode = (phase: Phase | null): number => (phase === null ? 0 : PHASES.indexOf(phase) + 1);
export const settingCode = (setting: LedgerName['setting']): number => AUTO_RENEW_SETTINGS.indexOf(setting);
export const deadlineCode = (kind: Deadline['kind'] | null): number =>
  kind === null ? 0 : DEADLINE_KINDS.indexOf(kind) + 1;

/** What a name's cost before its deadline is: one of the costs of its group, or the charge that is coming. */
const BEFORE = ['nothing', 'renewal', 'lateRenewal', 'restore', 'charge'] as const;

/** Stand-ins for the costs of a group: they tell which of them a deadline takes, whatever the prices of the day are. */
const costNamed = (minor: number): Amount => ({ minor, currency: '' });
const COSTS = {
  renewal: costNamed(BEFORE.indexOf('renewal')),
  lateRenewal: costNamed(BEFORE.indexOf('lateRenewal')),
  restore: costNamed(BEFORE.indexOf('restore')),
  perYear: null,
  restoreRuleOfThumb: false,
};
/** Stands for what the coming charge costs. */
const CHARGED = costNamed(BEFORE.indexOf('charge'));
const WITH_LATE_FEE: KeepingCosts = { ...COSTS, lateFee: costNamed(0) };
const WITHOUT_LATE_FEE: KeepingCosts = { ...COSTS, lateFee: null };

const [ON, STALLED] = [settingCode('on'), settingCode('stalled')];
/** Filled in anew for each name. */
const FOUND: ChargesOn = { passed: -1, failed: -1, coming: -1, saving: -1 };

/**
 * The whole ledger on one day, in columns by place: what is filtered, sorted and counted by. `from` and `until` say how long a name
 * stands as it does, prices aside, so that another day works out only what the move changes.
 */
export class LedgerDay {
  readonly projection: Projection;
  readonly day: Instant;
  readonly phase: Uint8Array;
  readonly setting: Uint8Array;
  /** `NaN` where nobody has said. */
  readonly termEnd: Float64Array;
  /** Positive infinity where there is no deadline. */
  readonly deadlineAt: Float64Array;
  readonly deadlineKind: Uint8Array;
  readonly #before: Uint8Array;
  readonly #from: Float64Array;
  readonly #until: Float64Array;
  readonly #costs: (group: number) => KeepingCosts;

  /**
   * Reads every name on `day`; what `earlier` knows of another day of the same projection, or of the one that it was played on from, and
   * still holds, is taken over. The memory of `spare`, a day that nobody looks at any more, is used again: a date that moves needs
   * megabytes for each step. Names from the place `upTo` on are left unread: whatever is made on the same day with this as `earlier` reads them.
   */
  constructor(
    projection: Projection,
    day: Instant,
    earlier: LedgerDay | null = null,
    spare: LedgerDay | null = null,
    upTo: number = projection.names.length,
  ) {
    const { names } = projection;
    const isSame = earlier?.projection === projection;
    const anew = !isSame && earlier && projection.since?.key === earlier.projection.key ? projection.since.anew : null;
    const known = isSame || anew ? earlier : null;
    const room = spare !== earlier && spare?.phase.length === names.length ? spare : null;
    const column = <T extends Uint8Array | Float64Array>(of: (other: LedgerDay) => T, make: () => T): T => {
      const mine = room ? of(room) : make();
      if (known) mine.set(of(known));
      return mine;
    };
    const codes = () => new Uint8Array(names.length);
    const instants = () => new Float64Array(names.length);
    this.projection = projection;
    this.day = day;
    this.phase = column((other) => other.phase, codes);
    this.setting = column((other) => other.setting, codes);
    this.termEnd = column((other) => other.termEnd, instants);
    this.deadlineAt = column((other) => other.deadlineAt, instants);
    this.deadlineKind = column((other) => other.deadlineKind, codes);
    this.#before = column((other) => other.#before, codes);
    this.#from = column((other) => other.#from, instants);
    this.#until = column((other) => other.#until, instants);
    this.#costs = groupCostsAt(projection.index, names, projection.groups, day);
    const lateFees = projection.groups.samples.map(
      (place) => (projection.index.accounts.get(names.accountId(place))?.lateFeeMinor ?? 0) > 0,
    );
    const read = (place: number) =>
      this.#read(place, lateFees[projection.groups.groupOf[place] as number] ? WITH_LATE_FEE : WITHOUT_LATE_FEE);
    // A stretch holds the day it was read on: only the end that the day moves towards can be passed.
    const [from, until] = [this.#from, this.#until];
    if (anew)
      for (let place = 0; place < anew.length; place += 1)
        if (anew[place] === 1) from[place] = until[place] = Number.NaN;
    const end = Math.min(upTo, names.length);
    if (!known) for (let place = 0; place < end; place += 1) read(place);
    else if (day >= known.day) {
      for (let place = 0; place < end; place += 1) if (!(day < (until[place] as number))) read(place);
    } else for (let place = 0; place < names.length; place += 1) if (!((from[place] as number) <= day)) read(place);
  }

  /** Works out how a name stands: the same as `rowsOn`, without making objects of what is not kept. */
  #read(place: number, costs: KeepingCosts): void {
    const { names, charges, asOf } = this.projection;
    const known = names.termEnd(place);
    const now = names.flagCode(place, 'setting');
    if (known === null) {
      this.phase[place] = 0;
      this.setting[place] = now;
      this.termEnd[place] = Number.NaN;
      this.#keepDeadline(place, null);
      this.#keepStretch(place, null);
      return;
    }
    const { passed, failed, saving } = chargesOn(charges, place, asOf, this.day, FOUND);
    const termEnd = passed < 0 ? known : charges.newEnd(passed);
    const observed = names.observed(place);
    const marks = marksOf(this.projection, place, termEnd);
    const phase = phaseAt(marks, observed, this.day);
    const charge =
      saving < 0 ? null : { at: charges.at(saving), cost: Number.isNaN(charges.costMinor(saving)) ? null : CHARGED };
    this.phase[place] = phaseCode(phase);
    this.setting[place] = failed >= 0 ? STALLED : passed >= 0 ? ON : now;
    this.termEnd[place] = termEnd.at;
    this.#keepDeadline(place, deadlineAt(phase, marks, charge, costs, this.day));
    this.#keepStretch(place, marks);
  }

  #keepDeadline(place: number, deadline: Deadline | null): void {
    this.deadlineAt[place] = deadline === null ? Number.POSITIVE_INFINITY : deadline.at;
    this.deadlineKind[place] = deadlineCode(deadline === null ? null : deadline.kind);
    this.#before[place] = deadline?.before?.minor ?? 0;
  }

  /** The stretch in which none of a name's marks and charges lies. A charge that is due counts only after today's instant: until then facts alone do. */
  #keepStretch(place: number, marks: Marks | null): void {
    const { asOf, charges, names } = this.projection;
    const { day } = this;
    let [from, until] = [Math.min(day, asOf + 1), Number.MAX_SAFE_INTEGER as number];
    const first = charges.first(place);
    if (day < asOf || (day === asOf && first >= 0 && charges.at(first) <= asOf)) until = day + 1;
    if (marks) {
      const cut = (at: number | null) => {
        if (at === null) return;
        if (at <= day) from = Math.max(from, at);
        else until = Math.min(until, at);
      };
      cut(marks.refundableUntil);
      cut(marks.termEnd);
      cut(marks.auction);
      cut(marks.deletion);
      cut(marks.restoreReportDue);
      cut(marks.redemptionEnd);
      cut(marks.release);
      const observed = names.observed(place);
      if (observed) {
        cut(observed.at);
        if (observed.phase === 'pending transfer') cut(movedBy(observed));
      }
      for (let i = first; i >= 0; i = charges.next(i)) cut(charges.at(i));
    }
    this.#from[place] = from;
    this.#until[place] = until;
  }

  get length(): number {
    return this.projection.names.length;
  }

  /** The phase of the name at a place; `null` where the end of its term is not known. */
  phaseAt(place: number): Phase | null {
    return PHASES[(this.phase[place] as number) - 1] ?? null;
  }

  /** What keeping the name at a place costs on the day. */
  costs(place: number): KeepingCosts {
    return this.#costs(this.projection.groups.groupOf[place] as number);
  }

  /** What keeping a name costs before its deadline; `null` where nothing is owed or no price is known. */
  before(place: number): Amount | null {
    switch (BEFORE[this.#before[place] as number]) {
      case 'renewal':
        return this.costs(place).renewal;
      case 'lateRenewal':
        return this.costs(place).lateRenewal;
      case 'restore':
        return this.costs(place).restore;
      case 'charge':
        return this.#comingCost(place);
      default:
        return null;
    }
  }

  /** The cost of the next charge that passes. */
  #comingCost(place: number): Amount | null {
    const { charges, asOf } = this.projection;
    for (let i = charges.first(place); i >= 0; i = charges.next(i))
      if (charges.passes(i) && (this.day <= asOf || charges.at(i) > this.day)) return charges.charge(i).cost;
    return null;
  }

  /** Reads names in full, one after the other; what they share is worked out once. */
  reader(): (place: number) => LedgerRow {
    return rowsOn(this.projection, this.day);
  }

  /** Reads how names stand, one after the other, without what else is known of them. */
  standings(): (place: number) => NameStanding {
    return standingsOn(this.projection, this.day);
  }

  /** One name in full. */
  row(place: number): LedgerRow {
    return this.reader()(place);
  }

  /** The names at some places in full. */
  rows(places: ArrayLike<number>): LedgerRow[] {
    return Array.from(places, this.reader());
  }

  /** The names whose place passes a test, in full. */
  rowsWhere(wanted: (place: number) => boolean): LedgerRow[] {
    const read = this.reader();
    const found: LedgerRow[] = [];
    for (let place = 0; place < this.length; place += 1) if (wanted(place)) found.push(read(place));
    return found;
  }

  /** All of them. Costly where there are many. */
  everyRow(): LedgerRow[] {
    return everyRow(this.projection, this.day);
  }
}

/** Today of a projection, by its key: whoever plays it on takes over what still stands. */
const todays = new WeakMap<object, LedgerDay>();

/** The whole ledger on the day that a projection begins with: read once, and of a projection that was played on only what may have changed. */
export function todayOf(projection: Projection): LedgerDay {
  const { key, since } = projection;
  const known = todays.get(key) ?? new LedgerDay(projection, projection.asOf, since && todays.get(since.key));
  todays.set(key, known);
  // The one before would be kept for as long as this one.
  if (since) todays.delete(since.key);
  return known;
}

/** So many names are read in a few hundredths of a second. */
const NAMES_A_STEP = 10_000;

/** The same of a projection that was not played on, in steps. */
export function* todayInSteps(projection: Projection, step: number = NAMES_A_STEP): Steps<LedgerDay> {
  let today = todays.get(projection.key) ?? null;
  if (today) return today;
  for (let upTo = step; today === null || upTo < projection.names.length + step; upTo += step) {
    yield;
    today = new LedgerDay(projection, projection.asOf, today, null, upTo);
  }
  todays.set(projection.key, today);
  return today;
}
