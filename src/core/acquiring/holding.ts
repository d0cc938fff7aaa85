import { bestPaths, MOST_YEARS, type NextPayment, type PricedAccount, pricesOfEnding, type RuleIndex } from '../ledger';
import { minorFactor, roundHalfAway } from '../money';
import type { YearPath } from '../pricing';
import { addYears, type Day, dayOf, startOfDay } from '../time';
import type { LinkAnswer } from './outcome';

/** For whom and when a name would be registered. */
export interface HoldingAsked {
  readonly day: Day;
  /** Accounts at which the buyer is a new customer. */
  readonly newAt: ReadonlySet<number>;
  readonly codes: readonly string[];
  readonly privacy: boolean;
}

/** What holding a new name of an ending costs for 1 to ten years, in the office's currency. */
export interface EndingHolding {
  readonly ending: string;
  readonly accounts: readonly PricedAccount[];
  /** The cheapest payments of all, moving included; `null` where no account is known to sell it for so long. */
  readonly best: readonly (YearPath | null)[];
}

/** What holding a new name costs: at each account, and the cheapest way of all. */
export function holdingOf(index: RuleIndex, ending: string, asked: HoldingAsked): EndingHolding {
  const whole = { ...asked, held: { kind: 'new' } as const };
  return { ending, accounts: pricesOfEnding(index, ending, whole).accounts, best: bestPaths(index, ending, whole) };
}

/** A name's own price, over years, at the account that told it. Minor units of the office's currency. */
export interface OwnHolding {
  /** 1, 2, 3 … ten years, renewed each year; `null` where it was not said, or no rate is known. */
  readonly totals: readonly (number | null)[];
  readonly firstMinor: number | null;
  readonly next: NextPayment | null;
}

/** What was told of a name's own price: for so many years at first, and for as many later. */
export interface OwnPriceTold extends Pick<LinkAnswer, 'register' | 'renew'> {
  /** The term that was asked for. */
  readonly years: number;
}

/** What a name with a price of its own comes to over years: its first term as it was told, then renewed for what was told. */
export function ownHolding(index: RuleIndex, { register, renew, years: term }: OwnPriceTold, day: Day): OwnHolding {
  const { homeCurrency, rates } = index.rules;
  const home = (amount: LinkAnswer['register']) => {
    const factor = amount && minorFactor(amount.currency, homeCurrency, rates, day);
    return amount && factor !== null ? roundHalfAway(amount.minor * factor) : null;
  };
  const [first, later] = [home(register), home(renew)];
  const total = (years: number) => {
    const renewals = Math.max(0, Math.ceil((years - term) / term));
    if (first === null || (later === null && renewals > 0)) return null;
    return first + renewals * (later ?? 0);
  };
  return {
    totals: Array.from({ length: MOST_YEARS }, (_, i) => total(i + 1)),
    firstMinor: first,
    next: later === null ? null : { minor: later, years: term, on: dayOf(addYears(startOfDay(day), term)) },
  };
}
