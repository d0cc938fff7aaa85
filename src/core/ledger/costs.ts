import { type Policy, policyFor, type RegistryFee, registryFeeOn } from '../lifecycle';
import { type Amount, amount, roundHalfAway } from '../money';
import {
  type Cost,
  type CostsToKeep,
  indexPrices,
  type PriceList,
  priceInForce,
  type RenewalPricing,
  renewalCost,
  restoreWithYear,
} from '../pricing';
import { type Day, dayOf, type Instant, startOfDay } from '../time';
import type { LedgerAccount, LedgerName, LedgerRules } from './data';

/** The rules of a ledger, put into the order in which they are looked up. */
export interface RuleIndex {
  readonly rules: LedgerRules;
  readonly accounts: ReadonlyMap<number, LedgerAccount>;
  readonly policies: ReadonlyMap<string, Policy>;
  readonly book: PriceList;
  readonly fees: readonly RegistryFee[];
  /** Ids of the names that have a price of their own. */
  readonly premium: ReadonlySet<number>;
}

export function indexRules(rules: LedgerRules): RuleIndex {
  return {
    rules,
    accounts: new Map(rules.accounts.map((account) => [account.id, account])),
    policies: new Map(rules.policies.map((policy) => [policy.ending, policy])),
    book: indexPrices(rules.prices),
    fees: rules.fees,
    premium: new Set(rules.prices.flatMap((price) => (price.nameId === null ? [] : [price.nameId]))),
  };
}

/** What keeping a name costs on one day, by the way it is kept, and what it costs per year. */
export interface KeepingCosts extends CostsToKeep {
  readonly perYear: Amount | null;
}

type Asked = Pick<LedgerName, 'id' | 'ending' | 'accountId'>;

/** What a name's renewal is priced by on a day. */
export function pricingOf(index: RuleIndex, name: Asked, day: Day): RenewalPricing {
  return {
    price: priceInForce(index.book, pricedAs(index, name), 'renew', day),
    fee: policyFor(name.ending, index.policies).yearlyFee ? registryFeeOn(index.fees, day) : null,
    account: index.accounts.get(name.accountId) ?? null,
    rates: index.rules.rates,
    day,
  };
}

/** What a restore of a name and its year cost on a day; `taxPercent` as in `RenewalTerms`. */
export function restoreCostOf(index: RuleIndex, name: Asked, day: Day, taxPercent?: number | null): Cost | null {
  const restore = priceInForce(index.book, pricedAs(index, name), 'restore', day);
  return restoreWithYear(pricingOf(index, name, day), restore, taxPercent);
}

/** What keeping a name costs on `day`: renewal for the least term, the same with a late fee, restore and a year. */
export function keepingCosts(index: RuleIndex, name: Asked, day: Day): KeepingCosts {
  const account = index.accounts.get(name.accountId);
  const lateFee = account && account.lateFeeMinor > 0 ? amount(account.lateFeeMinor, account.currency) : null;
  const pricing = pricingOf(index, name, day);
  const years = policyFor(name.ending, index.policies).terms.renew.least;
  const renewal = renewalCost(pricing, { years })?.total ?? null;
  const restore = restoreCostOf(index, name, day);
  return {
    renewal,
    lateFee,
    lateRenewal: renewalCost(pricing, { years, isLate: true })?.total ?? null,
    restore: restore?.total ?? null,
    perYear: renewal && { minor: roundHalfAway(renewal.minor / years), currency: renewal.currency },
    restoreRuleOfThumb: restore?.ruleOfThumb ?? false,
  };
}

function pricedAs(index: RuleIndex, name: Asked) {
  return {
    accountId: name.accountId,
    ending: name.ending,
    nameId: index.premium.has(name.id) ? name.id : null,
  };
}

/** Names that cost the same on every day: those of one account and ending, and each premium name by itself. */
export interface CostGroups {
  /** The group of each name, by its place. */
  readonly groupOf: Uint32Array;
  /** One name of each group. */
  readonly samples: readonly LedgerName[];
}

export function groupByCost(index: RuleIndex, names: readonly LedgerName[]): CostGroups {
  const groups = new Map<number, Map<string, number>>();
  const samples: LedgerName[] = [];
  const groupOf = Uint32Array.from(names, (name) => {
    if (index.premium.has(name.id)) return samples.push(name) - 1;
    let byEnding = groups.get(name.accountId);
    if (!byEnding) {
      byEnding = new Map();
      groups.set(name.accountId, byEnding);
    }
    let group = byEnding.get(name.ending);
    if (group === undefined) {
      group = samples.push(name) - 1;
      byEnding.set(name.ending, group);
    }
    return group;
  });
  return { groupOf, samples };
}

/** `keepingCosts` by place, on one instant, worked out once for each group. */
export function keepingCostsAt(index: RuleIndex, groups: CostGroups, at: Instant): (place: number) => KeepingCosts {
  const day = dayOf(at);
  const known: KeepingCosts[] = [];
  return (place) => {
    const group = groups.groupOf[place] as number;
    known[group] ??= keepingCosts(index, groups.samples[group] as LedgerName, day);
    return known[group];
  };
}

/** The instants at which any price, fee or rate changes, in order. */
export function priceChangesOf(index: RuleIndex): Instant[] {
  const { prices, rates } = index.rules;
  const days = [...prices, ...index.fees, ...rates].map(({ from }) => from);
  return [...new Set(days)].sort().map(startOfDay);
}

/** What renewing costs by place, remembered for each group, term, and stretch of time in which no price changes. */
export function renewalCostsAt(
  index: RuleIndex,
  groups: CostGroups,
  changes: readonly Instant[],
): (place: number, years: number, at: Instant, isLate: boolean) => Amount | null {
  const known = new Map<number, Amount | null>();
  return (place, years, at, isLate) => {
    const group = groups.groupOf[place] as number;
    let stretch = 0;
    while (stretch < changes.length && (changes[stretch] as Instant) <= at) stretch += 1;
    const key = ((group * 128 + years) * 4096 + stretch) * 2 + (isLate ? 1 : 0);
    let cost = known.get(key);
    if (cost === undefined) {
      const pricing = pricingOf(index, groups.samples[group] as LedgerName, dayOf(at));
      cost = renewalCost(pricing, { years, isLate })?.total ?? null;
      known.set(key, cost);
    }
    return cost;
  };
}
