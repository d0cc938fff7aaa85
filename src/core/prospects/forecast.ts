import type { LedgerDay, LedgerView } from '../ledger';
import { minorFactor, roundHalfAway } from '../money';
import { type Assumptions, type PriceShare, type RateSpread, spreadOf } from '../odds';
import { dayOf, type Instant, type Month } from '../time';
import { certainCosts } from './course';
import type { OfferFacts } from './data';
import { type Compared, compareOutcomes, type Fan, fanOf } from './fan';
import { monthNames, monthScale } from './months';
import { type Mover, moversOf } from './movers';
import { type OfferBook, type OfferGroup, type Origin, offerBook } from './offerBook';
import { asItStands, keepAll, type Schedule } from './schedule';
import { type Outcome, simulate } from './simulate';
import { courseOf, keepsNames, type Strategy } from './strategies';
import { type Valuing, valuing } from './worth';

/** Strategies under the names by which they are told. */
export interface NamedStrategy {
  readonly label: string;
  readonly strategy: Strategy;
}

export interface ForecastAsked {
  readonly assumptions: Assumptions;
  /** The saved view that groups are made by; `null` for another grouping. */
  readonly view: LedgerView | null;
  readonly facts: OfferFacts;
  /** The first is what the others are held against. */
  readonly strategies: readonly NamedStrategy[];
  /** How far ahead, 12 to 120. */
  readonly months: number;
  /** A whole number of 32 bits: the same gives the same picture again. */
  readonly seed: number;
  readonly paths: number;
}

/** What nobody knows, and without which there is no fan. */
export interface LackingForForecast {
  /** How many names have a charge of no known price, on one of the strategies. */
  readonly unpricedCount: number;
  /** Accounts that pay from a balance nobody knows. */
  readonly balances: readonly number[];
  /** Currencies that something is charged in, or kept in, and from which no rate into the home currency is known: nothing stands in for one. */
  readonly currencies: readonly string[];
  /** Names that are asked for in a currency without a rate, and of which nobody knows when their term ends or whether they are renewed: they are left out, and said. */
  readonly noRate: number;
  readonly noEnd: number;
  readonly noSetting: number;
}

/** A group as it is shown: what was seen, and what its chance is held to be. */
export interface GroupTold extends OfferGroup {
  readonly spread: RateSpread;
}

/** What a forecast tells. Amounts are minor units of the home currency. */
export interface Forecast {
  readonly asOf: Instant;
  readonly currency: string;
  readonly months: readonly Month[];
  readonly seed: number;
  readonly paths: number;
  readonly openingMinor: number;
  readonly lacking: LackingForForecast;
  /** By strategy; empty while something is lacking that it cannot do without. */
  readonly fans: readonly Fan[];
  /** Each strategy against the first. */
  readonly compared: readonly Compared[];
  /** What the first strategy is certain to pay each month if nothing sells. */
  readonly costs: readonly number[];
  readonly movers: readonly Mover[];
  readonly groups: readonly GroupTold[];
  readonly share: PriceShare;
  readonly shareFrom: Origin;
  readonly pricedSales: number;
  readonly offered: number;
  readonly beingSold: number;
}

/** Everything that a forecast is worked out from, and that stays while only its assumptions of selling move. */
export interface Schedules {
  readonly standing: Schedule;
  readonly kept: Schedule;
}

export function schedulesOf(today: LedgerDay, assumptions: Assumptions): Schedules {
  const scale = monthScale(today.projection.asOf);
  return { standing: asItStands(today.projection, scale, assumptions), kept: keepAll(today, scale, assumptions) };
}

/** Money at hand today, and what is not known of it. */
function openingOf(
  today: LedgerDay,
  { cashMinor, unknownBalanceMinor }: Assumptions,
): { minor: number; unknown: number[]; unrated: string[] } {
  const { index, asOf } = today.projection;
  const { homeCurrency, rates, accounts } = index.rules;
  const unknown: number[] = [];
  const unrated: string[] = [];
  let minor = cashMinor;
  for (const { id, balanceMinor, currency, paymentMethods } of accounts) {
    const paysFromBalance = paymentMethods.some(({ kind }) => kind === 'balance');
    if (balanceMinor === null) {
      if (!paysFromBalance) continue;
      if (unknownBalanceMinor === null) unknown.push(id);
      else minor += unknownBalanceMinor;
      continue;
    }
    const factor = minorFactor(currency, homeCurrency, rates, dayOf(asOf));
    if (factor === null) unrated.push(currency);
    else minor += roundHalfAway(balanceMinor * factor);
  }
  return { minor, unknown, unrated };
}

function lackingOf(
  today: LedgerDay,
  { standing, kept }: Schedules,
  strategies: readonly NamedStrategy[],
  book: OfferBook,
  opening: ReturnType<typeof openingOf>,
): LackingForForecast {
  const { names } = today.projection;
  let [noEnd, noSetting] = [0, 0];
  for (let place = 0; place < names.length; place += 1) {
    if (names.flag(place, 'purpose') === 'drop') continue;
    if (names.termEnd(place) === null) noEnd += 1;
    else if (names.flag(place, 'setting') === 'unknown') noSetting += 1;
  }
  // What only a strategy pays that keeps names is lacking where one of these is asked for.
  const paid = strategies.some(({ strategy }) => keepsNames(strategy)) ? [standing, kept] : [standing];
  return {
    unpricedCount: new Set(paid.flatMap(({ unpriced }) => unpriced)).size,
    balances: opening.unknown,
    currencies: [...new Set([...paid.flatMap(({ unrated }) => unrated), ...opening.unrated])].sort(),
    noRate: book.noRate,
    noEnd,
    noSetting,
  };
}

/** Why there is no fan yet. */
export const isBlocked = ({ unpricedCount, balances, currencies }: LackingForForecast, assumptions: Assumptions) =>
  (unpricedCount > 0 && assumptions.unknownPriceMinor === null) || balances.length > 0 || currencies.length > 0;

/** Works a forecast out, path by path: tells how many are done, and answers what came of it, with what it was worked out from. */
export function* forecast(
  today: LedgerDay,
  asked: ForecastAsked,
  schedules: Schedules = schedulesOf(today, asked.assumptions),
): Generator<
  number,
  { readonly told: Forecast; readonly outcomes: readonly Outcome[]; readonly valuing: Valuing },
  void
> {
  const { assumptions, facts, view, strategies, months, seed, paths } = asked;
  const { asOf, index } = today.projection;
  const scale = monthScale(asOf);
  const book = offerBook(today, { facts, assumptions, view, thought: namesThought(strategies) });
  const judge = valuing(today, { facts, assumptions, view }, book);
  const ground = { valuing: judge, ...schedules };
  const courses = strategies.map(({ label, strategy }) => courseOf(strategy, label, ground));
  const opening = openingOf(today, assumptions);
  const lacking = lackingOf(today, schedules, strategies, book, opening);
  const blocked = isBlocked(lacking, assumptions);
  const outcomes = blocked ? [] : yield* simulate({ book, courses, scale, openingMinor: opening.minor, seed, paths });
  const [first] = courses;
  const [base] = outcomes;
  return {
    outcomes,
    valuing: judge,
    told: {
      asOf,
      currency: index.rules.homeCurrency,
      months: monthNames(scale).slice(0, months),
      seed,
      paths,
      openingMinor: opening.minor,
      lacking,
      fans: outcomes.map((outcome) => fanOf(outcome, months, assumptions.floorMinor)),
      compared: base ? outcomes.slice(1).map((outcome) => compareOutcomes(outcome, base, months)) : [],
      costs: first ? Array.from(certainCosts(first).subarray(0, months)) : [],
      movers: first && !blocked ? moversOf(judge, first, scale, months) : [],
      groups: book.groups.map((group) => ({ ...group, spread: spreadOf(group.rate) })),
      share: book.share,
      shareFrom: book.shareFrom,
      pricedSales: book.pricedSales,
      offered: book.groups.reduce((sum, group) => sum + group.names, 0),
      beingSold: book.selling.size,
    },
  };
}

/** Names that are thought of being offered. */
function namesThought(strategies: readonly NamedStrategy[]): ReadonlySet<number> {
  return new Set(
    strategies.flatMap(({ strategy }) =>
      strategy.kind === 'thought' ? strategy.asked.map(({ nameId }) => nameId) : [],
    ),
  );
}
