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
  /** Places of names with a charge of which no price, or no rate into the home currency, is known. */
  readonly unpriced: readonly number[];
}

/** What stands in for what nobody knows, minor units of the home currency. */
export interface StandIns {
  readonly unknownPriceMinor: number | null;
  readonly unknownBalanceMinor: number | null;
}

interface Line {
  readonly place: number;
  readonly month: number;
  readonly minor: number;
  readonly endAt: number;
}

/** Puts lines that come account by account into columns by place. */
class Lines {
  readonly #month: number[] = [];
  readonly #place: number[] = [];
  readonly #minor: number[] = [];
  readonly #endAt: number[] = [];
  readonly #unpriced = new Set<number>();
  readonly #into = new Map<string, number | null>();
  constructor(
    readonly projection: Projection,
    readonly scale: MonthScale,
    readonly standIns: StandIns,
  ) {}

  /** A cost in minor units of the home currency, each rounded once; what is not known by its stand-in. */
  minorOf(place: number, cost: Amount | null): number {
    const { index, asOf } = this.projection;
    const { homeCurrency, rates } = index.rules;
    if (cost !== null && cost.currency === homeCurrency) return cost.minor;
    if (cost !== null) {
      let factor = this.#into.get(cost.currency);
      if (factor === undefined) {
        factor = minorFactor(cost.currency, homeCurrency, rates, dayOf(asOf));
        this.#into.set(cost.currency, factor);
      }
      if (factor !== null) return roundHalfAway(cost.minor * factor);
    }
    this.#unpriced.add(place);
    return this.standIns.unknownPriceMinor ?? 0;
  }

  add({ place, month, minor, endAt }: Line): void {
    this.#place.push(place);
    this.#month.push(month);
    this.#minor.push(minor);
    this.#endAt.push(endAt);
  }

  schedule(): Schedule {
    const { names } = this.projection;
    const count = this.#place.length;
    const first = new Int32Array(names.length + 1);
    for (const place of this.#place) first[place + 1] = (first[place + 1] as number) + 1;
    for (let place = 0; place < names.length; place += 1)
      first[place + 1] = (first[place + 1] as number) + (first[place] as number);
    const next = first.slice();
    const [month, minor, endAt] = [new Int16Array(count), new Float64Array(count), new Float32Array(count)];
    for (let i = 0; i < count; i += 1) {
      const place = this.#place[i] as number;
      const at = next[place] as number;
      next[place] = at + 1;
      month[at] = this.#month[i] as number;
      minor[at] = this.#minor[i] as number;
      endAt[at] = this.#endAt[i] as number;
    }
    const paidTo = Float64Array.from({ length: names.length }, (_, place) => {
      const end = names.termEnd(place);
      return end === null ? Number.NaN : monthPlace(this.scale, end.at);
    });
    return { first, month, minor, endAt, paidTo, unpriced: [...this.#unpriced].sort((a, b) => a - b) };
  }
}

/**
 * What is charged over ten years if nothing is done: the ledger's own charges, with the same balances, failures and retries, each ending's
 * prices rising as its list or the office says. A name whose charge fails for good ends with its term, and so does one that is not renewed by itself.
 */
export function asItStands(projection: Projection, scale: MonthScale, standIns: StandIns): Schedule {
  const { index, names, groups, asOf, charged } = projection;
  const costAt = renewalCostsAt(index, names, groups, { from: asOf });
  const lines = new Lines(projection, scale, standIns);
  for (const [accountId, own] of charged) {
    const account = withBalance(projection, index.accounts.get(accountId) as LedgerAccount, standIns);
    const table = new ChargeTable(names.length, own.places.length * 10);
    const last = (horizonOf(scale) - 1) as Instant;
    playCharges(account, { ...own, costAt }, asOf, last, table);
    for (let i = 0; i < table.size; i += 1) {
      if (!table.passes(i)) continue;
      const place = table.place(i);
      const minor = table.costMinor(i);
      const cost = Number.isNaN(minor) ? null : { minor, currency: table.currency(i) };
      const endAt = monthPlace(scale, table.newEnd(i).at);
      lines.add({ place, month: monthAt(scale, table.at(i)), minor: lines.minorOf(place, cost), endAt });
    }
  }
  return lines.schedule();
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

/** What keeping every name costs over ten years. See `keepCharges`. */
export function keepAll(today: LedgerDay, scale: MonthScale, standIns: StandIns): Schedule {
  const { projection } = today;
  const lines = new Lines(projection, scale, standIns);
  const chargesOf = keepCharges(today, scale);
  for (let place = 0; place < projection.names.length; place += 1)
    chargesOf(place, (at, cost, newEnd) => {
      const minor = lines.minorOf(place, cost);
      lines.add({ place, month: monthAt(scale, at), minor, endAt: monthPlace(scale, newEnd) });
    });
  return lines.schedule();
}
