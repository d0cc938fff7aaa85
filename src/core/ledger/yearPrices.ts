import { type Policy, policyFor, registryFeeOn } from '../lifecycle';
import { type Amount, minorFactor } from '../money';
import {
  type Cost,
  conditionWords,
  type PaidAction,
  priceInForce,
  termCost,
  type YearPrices,
  type YearTerms,
} from '../pricing';
import type { Day } from '../time';
import type { RuleIndex } from './costs';
import type { LedgerAccount } from './data';
import { riseOf } from './rises';

/** What prices over years are asked for. */
export interface YearsAsked {
  readonly ending: string;
  /** A name with prices of its own; `null` for the ending alone. */
  readonly nameId: number | null;
  readonly day: Day;
  /** Accounts at which the buyer is a new customer. */
  readonly newAt: ReadonlySet<number>;
  /** Codes that may be told anywhere. */
  readonly codes: readonly string[];
  /** Privacy is wanted with every year. */
  readonly privacy: boolean;
}

/** The terms that an ending sells: all that its policy allows. */
export function yearTermsOf({ terms, ceilingYears }: Policy): YearTerms {
  const every = ({ least, greatest, step }: Policy['terms']['renew']) => {
    const years: number[] = [];
    for (let term = least; term <= Math.min(greatest, ceilingYears); term += step) years.push(term);
    return years;
  };
  return { register: every(terms.register), renew: every(terms.renew), ceilingYears };
}

/** What an account asks over years, in the office's currency at the rate of the day. */
export function yearPricesOf(index: RuleIndex, account: LedgerAccount, asked: YearsAsked): YearPrices {
  const policy = policyFor(asked.ending, index.policies);
  const rise = riseOf(index, account.id, asked.ending);
  const known = new Map<string, number | null>();
  return {
    accountId: account.id,
    transferYears: policy.transferYears,
    pay: (action, years, when) => {
      const isFirst = when.isFirst && action !== 'renew';
      const key = `${action} ${years} ${when.yearsFromNow} ${isFirst}`;
      let minor = known.get(key);
      if (minor === undefined) {
        const factor = (1 + rise.yearly) ** when.yearsFromNow;
        minor = homeMinor(index, payment(index, account, asked, policy, { action, years, factor, isFirst }), asked.day);
        known.set(key, minor);
      }
      return minor;
    },
  };
}

interface Paying {
  readonly action: PaidAction;
  readonly years: number;
  readonly factor: number;
  readonly isFirst: boolean;
}

/** A payment in the account's own money: its price, the registry fee, tax, and privacy where that is wanted. */
function payment(
  index: RuleIndex,
  account: LedgerAccount,
  asked: YearsAsked,
  policy: Policy,
  paying: Paying,
): Amount[] | null {
  const of = { accountId: account.id, nameId: asked.nameId, ending: asked.ending };
  const { action, years, factor, isFirst } = paying;
  const price = priceInForce(index.book, of, action, asked.day);
  const isMove = action === 'transfer';
  const cost =
    price &&
    termCost(price, {
      years: isMove ? 1 : years,
      feeYears: years,
      fee: policy.yearlyFee ? registryFeeOn(index.fees, asked.day) : null,
      rates: index.rules.rates,
      day: asked.day,
      taxPercent: account.taxPercent,
      firstYear: isFirst,
      newCustomer: asked.newAt.has(account.id),
      codes: asked.codes,
      factor,
    });
  if (!cost) return null;
  if (!asked.privacy || years === 0) return [cost.total];
  const privacy = priceInForce(index.book, of, 'privacy', asked.day);
  // Nobody has said what privacy costs there: what the whole comes to is not known.
  if (!privacy) return null;
  const kept = termCost(privacy, {
    years,
    fee: null,
    taxPercent: account.taxPercent,
    firstYear: action === 'register',
    factor,
  });
  return kept && [cost.total, kept.total];
}

/** What a transfer to an account costs now in its own money, without privacy, and with codes told; `null` where no price is known. */
export function transferPrice(
  index: RuleIndex,
  account: LedgerAccount,
  ending: string,
  day: Day,
  codes: readonly string[] = [],
): Amount | null {
  const policy = policyFor(ending, index.policies);
  const asked = { ending, nameId: null, day, newAt: new Set<number>(), codes, privacy: false };
  const paying = { action: 'transfer', years: policy.transferYears, factor: 1, isFirst: true } as const;
  return payment(index, account, asked, policy, paying)?.[0] ?? null;
}

/** What registering a name of an ending costs now at an account, in its own money, with the lines that make it; `null` where no price is known. */
export function registerCost(
  index: RuleIndex,
  account: LedgerAccount,
  ending: string,
  years: number,
  day: Day,
  newCustomer = false,
): Cost | null {
  const price = priceInForce(index.book, { accountId: account.id, nameId: null, ending }, 'register', day);
  const policy = policyFor(ending, index.policies);
  return (
    price &&
    termCost(price, {
      years,
      fee: policy.yearlyFee ? registryFeeOn(index.fees, day) : null,
      rates: index.rules.rates,
      day,
      taxPercent: account.taxPercent,
      firstYear: true,
      newCustomer,
    })
  );
}

/** The code that makes a transfer to an account cheaper; `null` where its price list knows of none. */
export function transferCodeOf(index: RuleIndex, accountId: number, ending: string, day: Day): string | null {
  const price = priceInForce(index.book, { accountId, nameId: null, ending }, 'transfer', day);
  return price?.firstYearCondition?.code ?? null;
}

/** Not rounded: a cent of rounding must not decide between one payment of two years and two of one. */
function homeMinor({ rules }: RuleIndex, money: readonly Amount[] | null, day: Day): number | null {
  let sum = 0;
  for (const one of money ?? []) {
    const factor = minorFactor(one.currency, rules.homeCurrency, rules.rates, day);
    if (factor === null) return null;
    sum += one.minor * factor;
  }
  return money && sum;
}

/** Why a price cannot be compared, where it cannot. */
export type NotCompared = 'no price' | 'no rate' | 'privacy not known';

export function whyNotCompared(
  index: RuleIndex,
  account: LedgerAccount,
  asked: YearsAsked,
  action: PaidAction,
): NotCompared | null {
  const of = { accountId: account.id, nameId: asked.nameId, ending: asked.ending };
  const price = priceInForce(index.book, of, action, asked.day);
  if (!price) return 'no price';
  const { homeCurrency, rates } = index.rules;
  if (minorFactor(price.currency, homeCurrency, rates, asked.day) === null) return 'no rate';
  return asked.privacy && !priceInForce(index.book, of, 'privacy', asked.day) ? 'privacy not known' : null;
}

/** What a first price is bound to, in words, where an account gives one for an ending; `null` without. */
export function firstConditionOf(
  index: RuleIndex,
  accountId: number,
  { ending, nameId, day }: YearsAsked,
): string | null {
  const price = priceInForce(index.book, { accountId, nameId, ending }, 'register', day);
  return price === null || price.firstYearMinor === null || price.firstYearCondition === null
    ? null
    : conditionWords(price.firstYearCondition);
}
