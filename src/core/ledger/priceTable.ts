import { policyFor } from '../lifecycle';
import { roundHalfAway } from '../money';
import { type Crossing, cheapestPaths, crossings, type Held, type YearPath, type YearPrices } from '../pricing';
import { addDays, addYears, type Day, dayOf, startOfDay } from '../time';
import type { RuleIndex } from './costs';
import type { LedgerAccount } from './data';
import { type Rise, riseOf } from './rises';
import {
  firstConditionOf,
  type NotCompared,
  whyNotCompared,
  type YearsAsked,
  yearPricesOf,
  yearTermsOf,
} from './yearPrices';

/** The longest that prices are compared over. */
export const MOST_YEARS = 10;

/** What is compared: everything but the ending. */
export interface PricesAsked extends Omit<YearsAsked, 'ending' | 'nameId'> {
  /** A name that is still to be registered, or one that is held at an account already. */
  readonly held: Held;
}

/** The payment after the first one: its sum and its day. */
export interface NextPayment {
  readonly minor: number;
  readonly years: number;
  readonly on: Day;
}

/** What one account comes to for an ending, in minor units of the office's currency. */
export interface PricedAccount {
  readonly accountId: number;
  /** The cheapest total over 1, 2, 3 … ten years at this account alone; `null` where it is not sold for so long, or not known. */
  readonly totals: readonly (number | null)[];
  /** The payments behind each total. */
  readonly paths: readonly (YearPath | null)[];
  readonly rise: Rise;
  /** What a first price there is bound to, in words. */
  readonly condition: string | null;
  readonly notCompared: NotCompared | null;
  /** For each number of years: what is charged next, and when. */
  readonly next: readonly (NextPayment | null)[];
}

export interface EndingPrices {
  readonly ending: string;
  readonly accounts: readonly PricedAccount[];
}

/** What holding a name of an ending costs at each account over 1 to ten years. */
export function pricesOfEnding(index: RuleIndex, ending: string, asked: PricesAsked): EndingPrices {
  const { accounts } = index.rules;
  const terms = yearTermsOf(policyFor(ending, index.policies));
  const whole: YearsAsked = { ...asked, ending, nameId: null };
  const prices = accounts.map((account) => yearPricesOf(index, account, whole));
  return {
    ending,
    accounts: accounts.map((account, i): PricedAccount => {
      const own = prices[i] ? [prices[i]] : [];
      const paths = cheapestPaths({ held: asked.held, years: MOST_YEARS, prices: own, terms });
      return {
        accountId: account.id,
        totals: paths.map((one) => one?.totalMinor ?? null),
        paths,
        rise: riseOf(index, account.id, ending),
        condition: asked.held.kind === 'new' ? firstConditionOf(index, account.id, whole) : null,
        notCompared:
          paths[0] === null ? whyNotCompared(index, account, whole, firstActionAt(asked.held, account)) : null,
        next: paths.map((path) => path && nextAfter(path, prices[i], terms.renew[0] ?? 1, asked)),
      };
    }),
  };
}

/** The cheapest payments of all for 1 to ten years, moving included. */
export function bestPaths(index: RuleIndex, ending: string, asked: PricesAsked): (YearPath | null)[] {
  const prices = index.rules.accounts.map((account) =>
    yearPricesOf(index, account, { ...asked, ending, nameId: null }),
  );
  const terms = yearTermsOf(policyFor(ending, index.policies));
  return cheapestPaths({ held: asked.held, years: MOST_YEARS, prices, terms });
}

function firstActionAt(held: Held, { id }: LedgerAccount) {
  if (held.kind === 'new') return 'register' as const;
  return held.accountId === id ? ('renew' as const) : ('transfer' as const);
}

export const DAYS_PER_YEAR = 365.25;

/** The payment that follows the first one: of the way itself, or the shortest renewal after its end. */
function nextAfter(
  path: YearPath,
  own: YearPrices | undefined,
  least: number,
  { held, day }: PricesAsked,
): NextPayment | null {
  const left = held.kind === 'new' ? 0 : Math.max(0, held.yearsLeft);
  const later = { yearsFromNow: Math.floor(left + path.years), isFirst: false };
  const renewal = own?.pay('renew', least, later) ?? null;
  const payment =
    path.payments[1] ?? (renewal === null ? null : { minor: roundHalfAway(renewal), years: least, after: path.years });
  if (!payment) return null;
  const end = addDays(startOfDay(day), Math.round(left * DAYS_PER_YEAR));
  return { minor: payment.minor, years: payment.years, on: dayOf(addYears(end, payment.after)) };
}

/** Every ending that an account's price list names, in order of the alphabet. */
export function pricedEndings(index: RuleIndex): string[] {
  return [...new Set(index.rules.prices.flatMap(({ nameId, ending }) => (nameId === null ? [ending] : [])))].sort();
}

/** Two accounts whose totals cross, and at how many years. */
export interface AccountCrossing extends Crossing {
  readonly first: number;
  readonly second: number;
}

/** Every crossing between accounts, the earliest first. */
export function accountCrossings(accounts: readonly PricedAccount[]): AccountCrossing[] {
  return accounts
    .flatMap((a, i) =>
      accounts
        .slice(i + 1)
        .flatMap((b) =>
          crossings(a.totals, b.totals).map((crossing) => ({ ...crossing, first: a.accountId, second: b.accountId })),
        ),
    )
    .sort((a, b) => a.years - b.years || a.first - b.first || a.second - b.second);
}

/** A first year so much cheaper than the next that it is said in words. */
const CHEAP_SHARE = 0.75;

/** True where a first year is so much cheaper than each further one that it is said. Both in minor units of one currency. */
export function isCheapFirst(firstMinor: number, laterMinor: number): boolean {
  return firstMinor < laterMinor * CHEAP_SHARE;
}

/** A cheap first year that becomes dear: what the first and each further year cost, minor units; `null` where it does not. */
export function cheapFirstYear({
  paths,
}: Pick<PricedAccount, 'paths'>): { firstMinor: number; laterMinor: number } | null {
  const [one, two] = [paths[0], paths[1]];
  if (!one || !two || one.years !== 1) return null;
  const laterMinor = two.totalMinor - one.totalMinor;
  return isCheapFirst(one.totalMinor, laterMinor) ? { firstMinor: one.totalMinor, laterMinor } : null;
}
