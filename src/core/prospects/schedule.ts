import { ChargeTable, playCharges } from '../funding';
import {
  type LedgerAccount,
  type LedgerDay,
  type Projection,
  policyOf,
  renewalCostsAt,
  yearsPerCharge,
} from '../ledger';
import { type Amount, minorFactor, roundHalfAway } from '../money';
import { addDays, addYears, dayOf, earliestAt, earliestEnd, type Instant } from '../time';
import { homeCosts } from './homeCost';
import { horizonOf, type MonthScale, monthAt, monthPlace } from './months';

/**
 * What keeping every name costs over ten years, in columns by the name's place: charge after charge with its month, its cost in minor units of
 * the home currency, and where in months the term ends that it pays for.
 */
export interface Schedule {
  /** The first charge of each name, and one more behind the last. */
  readonly first: Int32Array;
  readonly month: Int16Array;
  readonly minor: Float64Array;
  readonly endAt: Float32Array;
  /** Where the term ends that is paid for now; `NaN` where nobody has said. */
  readonly paidTo: Float64Array;
  /** Places of names with a charge of which no price is known. */
  readonly unpriced: readonly number[];
  /** Currencies in which something is charged, and from which no rate into the home currency is known. */
  readonly unrated: readonly string[];
}

/** What stands in for what nobody knows, minor units of the home currency. */
export interface StandIns {
  readonly unknownPriceMinor: number | null;
  readonly unknownBalanceMinor: number | null;
}

/** Charges as they are put into columns, name after name. */
class Columns {
  readonly #first: Int32Array;
  #month: Int16Array;
  #minor: Float64Array;
  #endAt: Float32Array;
  readonly #unpriced: number[] = [];
  readonly #unrated = new Set<string>();
  readonly #toHome: (cost: Amount | null) => number | null;
  #size = 0;

  /** With room for so many charges; more are made room for. */
  constructor(
    readonly projection: Projection,
    readonly scale: MonthScale,
    standIns: StandIns,
    room: number,
  ) {
    this.#toHome = homeCosts(projection, standIns.unknownPriceMinor);
    this.#first = new Int32Array(projection.names.length + 1);
    this.#month = new Int16Array(room);
    this.#minor = new Float64Array(room);
    this.#endAt = new Float32Array(room);
  }

  /** A cost in minor units of the home currency; what is not known is noted, and counts as nothing until something stands in for it. */
  #minorOf(place: number, cost: Amount | null): number {
    const minor = this.#toHome(cost);
    if (cost === null) {
      if (this.#unpriced.at(-1) !== place) this.#unpriced.push(place);
    } else if (minor === null) this.#unrated.add(cost.currency);
    return minor ?? 0;
  }

  /** A further charge of a name; names come in order, and each one's charges too. */
  add(place: number, at: Instant, cost: Amount | null, newEnd: Instant): void {
    const i = this.#size;
    if (i === this.#month.length) this.#grow();
    this.#size += 1;
    this.#month[i] = monthAt(this.scale, at);
    this.#minor[i] = this.#minorOf(place, cost);
    this.#endAt[i] = monthPlace(this.scale, newEnd);
    this.#first[place + 1] = this.#size;
  }

  #grow(): void {
    const room = Math.ceil(this.#month.length * 1.5) + 16;
    const grown = <T extends { set(from: T): void }>(from: T, to: T): T => {
      to.set(from);
      return to;
    };
    this.#month = grown(this.#month, new Int16Array(room));
    this.#minor = grown(this.#minor, new Float64Array(room));
    this.#endAt = grown(this.#endAt, new Float32Array(room));
  }

  schedule(): Schedule {
    const { names } = this.projection;
    const first = this.#first;
    // A name without charges begins where the one before it ends.
    for (let place = 1; place <= names.length; place += 1)
      first[place] = Math.max(first[place] as number, first[place - 1] as number);
    const paidTo = Float64Array.from({ length: names.length }, (_, place) => {
      const end = names.termEnd(place);
      return end === null ? Number.NaN : monthPlace(this.scale, end.at);
    });
    return {
      first,
      month: this.#month.slice(0, this.#size),
      minor: this.#minor.slice(0, this.#size),
      endAt: this.#endAt.slice(0, this.#size),
      paidTo,
      unpriced: this.#unpriced,
      unrated: [...this.#unrated].sort(),
    };
  }
}

/**
 * What is charged over ten years if nothing is done: the ledger's own charges, with the same balances, failures and retries, each ending's
 * prices rising as its list or the office says. A name whose charge fails for good ends with its term, and so does one that is not renewed by itself.
 */
export function asItStands(projection: Projection, scale: MonthScale, standIns: StandIns): Schedule {
  const { index, names, groups, asOf, charged } = projection;
  const costAt = renewalCostsAt(index, names, groups, { from: asOf });
  const table = new ChargeTable(names.length, names.length * 10);
  const last = (horizonOf(scale) - 1) as Instant;
  for (const [accountId, own] of charged()) {
    const account = withBalance(projection, index.accounts.get(accountId) as LedgerAccount, standIns);
    playCharges(account, { ...own, costAt }, asOf, last, table);
  }
  const columns = new Columns(projection, scale, standIns, table.size);
  for (let place = 0; place < names.length; place += 1)
    for (let i = table.first(place); i >= 0; i = table.next(i)) {
      if (!table.passes(i)) continue;
      const minor = table.costMinor(i);
      const cost = Number.isNaN(minor) ? null : { minor, currency: table.currency(i) };
      columns.add(place, table.at(i), cost, table.newEnd(i).at);
    }
  return columns.schedule();
}

/** An account with its unknown balance taken as the stand-in, in its own money. */
function withBalance({ index, asOf }: Projection, account: LedgerAccount, standIns: StandIns): LedgerAccount {
  const { homeCurrency, rates } = index.rules;
  const factor = minorFactor(homeCurrency, account.currency, rates, dayOf(asOf));
  if (account.balanceMinor !== null || standIns.unknownBalanceMinor === null || factor === null) return account;
  return { ...account, balanceMinor: roundHalfAway(standIns.unknownBalanceMinor * factor) };
}

/** By what a name is kept now: a renewal, or the cost of bringing it back; `null` for what nothing keeps, or is let go on purpose. */
function keptBy(today: LedgerDay, place: number): 'renewal' | { readonly cost: Amount | null } | null {
  const { names, index } = today.projection;
  if (names.flag(place, 'purpose') === 'drop') return null;
  switch (today.phaseAt(place)) {
    case 'redemption':
      return { cost: today.costs(place).restore };
    case 'pending restore':
      return { cost: { minor: 0, currency: index.rules.homeCurrency } };
    case 'pending delete':
    case 'available':
    case null:
      return null;
    default:
      return 'renewal';
  }
}

/** Takes a charge: when it falls due, what it costs (`null` where no price is known), the end of the term that it pays for, and how many years these are. */
type TakeCharge = (at: Instant, cost: Amount | null, newEnd: Instant, years: number) => void;

/**
 * The charges of one name over ten years if it is kept, whatever its setting, and as if money were never short: it is renewed on the day its account
 * charges, for as many years as a charge buys. What is past its term begins with what bringing it back costs; a name that is let go
 * on purpose, or can no longer be brought back, has none.
 */
export function keepCharges(today: LedgerDay, scale: MonthScale): (place: number, take: TakeCharge) => void {
  const { projection } = today;
  const { index, names, groups, asOf } = projection;
  const costAt = renewalCostsAt(index, names, groups, { from: asOf });
  const horizon = horizonOf(scale);
  return (place, take) => {
    const end = names.termEnd(place);
    const first = end && keptBy(today, place);
    if (!end || !first) return;
    const account = index.accounts.get(names.accountId(place));
    const years = account ? yearsPerCharge(account, policyOf(projection, place)) : 1;
    const isDay = end.precision === 'day';
    const lead = account?.leadDays ?? 0;
    let at = Math.max(asOf, addDays(earliestEnd(end), -lead)) as Instant;
    for (let ends = end.at; at < horizon; ) {
      const isOther = ends === end.at && first !== 'renewal';
      const cost = isOther ? first.cost : costAt(place, years, at, at > earliestAt(ends, isDay));
      // A restore brings one year.
      const bought = isOther ? 1 : years;
      ends = addYears(ends, bought);
      take(at, cost, ends, bought);
      at = Math.max(addDays(earliestAt(ends, isDay), -lead), at + 1) as Instant;
    }
  };
}

/** As many charges as a name has over ten years, where its account does not charge long before: one a year. */
const USUAL_CHARGES = 10;

/** What keeping every name costs over ten years. See `keepCharges`. */
export function keepAll(today: LedgerDay, scale: MonthScale, standIns: StandIns): Schedule {
  const { projection } = today;
  const { length } = projection.names;
  const columns = new Columns(projection, scale, standIns, length * USUAL_CHARGES);
  const chargesOf = keepCharges(today, scale);
  for (let place = 0; place < length; place += 1)
    chargesOf(place, (at, cost, newEnd) => columns.add(place, at, cost, newEnd));
  return columns.schedule();
}
