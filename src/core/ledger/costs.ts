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
import { addYears, type Day, dayOf, type Instant, startOfDay } from '../time';
import type { LedgerAccount, LedgerName, LedgerRules } from './data';
import type { NameTable } from './nameTable';
import { riseOf } from './rises';

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
  /** The place of one name of each group. */
  readonly samples: readonly number[];
}

export function groupByCost(index: RuleIndex, names: NameTable): CostGroups {
  const { accountId, ending, endings, id } = names.columns;
  const groups = new Map<number, number>();
  const samples: number[] = [];
  const groupOf = new Uint32Array(names.length);
  for (let place = 0; place < names.length; place += 1) {
    if (index.premium.has(id[place] as number)) {
      groupOf[place] = samples.push(place) - 1;
      continue;
    }
    const key = (accountId[place] as number) * endings.length + (ending[place] as number);
    let group = groups.get(key);
    if (group === undefined) {
      group = samples.push(place) - 1;
      groups.set(key, group);
    }
    groupOf[place] = group;
  }
  return { groupOf, samples };
}

const askedAt = (names: NameTable, place: number): Asked => ({
  id: names.columns.id[place] as number,
  ending: names.ending(place),
  accountId: names.accountId(place),
});

/** `keepingCosts` by group, on one instant, each worked out once. */
export function groupCostsAt(
  index: RuleIndex,
  names: NameTable,
  { samples }: CostGroups,
  at: Instant,
): (group: number) => KeepingCosts {
  const day = dayOf(at);
  const known: KeepingCosts[] = [];
  return (group) => {
    known[group] ??= keepingCosts(index, askedAt(names, samples[group] as number), day);
    return known[group];
  };
}

/** `keepingCosts` by place, on one instant. */
export function keepingCostsAt(
  index: RuleIndex,
  names: NameTable,
  groups: CostGroups,
  at: Instant,
): (place: number) => KeepingCosts {
  const ofGroup = groupCostsAt(index, names, groups, at);
  return (place) => ofGroup(groups.groupOf[place] as number);
}

/** The instants at which any price, fee or rate changes, in order. */
function priceChangesOf(index: RuleIndex): Instant[] {
  const { prices, rates } = index.rules;
  const days = [...prices, ...index.fees, ...rates].map(({ from }) => from);
  return [...new Set(days)].sort().map(startOfDay);
}

/** As far as anything is played forward, in years. */
const MOST_YEARS = 11;
const laterYears = (from: Instant) => Array.from({ length: MOST_YEARS }, (_, i) => addYears(from, i + 1));

/**
 * What renewing costs by place, remembered for each group, term, and stretch of time in which no price changes. With `rising`, prices rise
 * with every whole year from its `from` on, by the rise of the name's account and ending.
 */
export function renewalCostsAt(
  index: RuleIndex,
  names: NameTable,
  groups: CostGroups,
  rising: { readonly from: Instant } | null = null,
): (place: number, years: number, at: Instant, isLate: boolean) => Amount | null {
  const years = rising === null ? [] : laterYears(rising.from);
  const changes = [...new Set([...priceChangesOf(index), ...years])].sort((a, b) => a - b);
  const rises = groups.samples.map((place) =>
    rising === null ? 0 : riseOf(index, names.accountId(place), names.ending(place)).yearly,
  );
  const known = new Map<number, Amount | null>();
  // Charges come in order of time: the stretch of the last one is nearly always that of the next.
  let stretch = 0;
  return (place, term, at, isLate) => {
    const group = groups.groupOf[place] as number;
    while (stretch > 0 && (changes[stretch - 1] as Instant) > at) stretch -= 1;
    while (stretch < changes.length && (changes[stretch] as Instant) <= at) stretch += 1;
    const key = ((group * 128 + term) * 4096 + stretch) * 2 + (isLate ? 1 : 0);
    let cost = known.get(key);
    if (cost === undefined) {
      const pricing = pricingOf(index, askedAt(names, groups.samples[group] as number), dayOf(at));
      const factor = (1 + (rises[group] as number)) ** years.filter((year) => year <= at).length;
      cost = renewalCost(pricing, { years: term, isLate, factor })?.total ?? null;
      known.set(key, cost);
    }
    return cost;
  };
}
