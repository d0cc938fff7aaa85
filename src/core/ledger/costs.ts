import { type Policy, policyFor, type RegistryFee, registryFeeOn } from '../lifecycle';
import { type Amount, amount, roundHalfAway } from '../money';
import { makePriceBook, type PriceBook, priceInForce, restoreCost, type StepCosts, termCost } from '../pricing';
import { type Day, dayOf, type Instant, startOfDay } from '../time';
import type { LedgerAccount, LedgerName, LedgerRules } from './data';

/** The rules of a ledger, put into the order in which they are looked up. */
export interface RuleIndex {
  readonly rules: LedgerRules;
  readonly accounts: ReadonlyMap<number, LedgerAccount>;
  readonly policies: ReadonlyMap<string, Policy>;
  readonly book: PriceBook;
  readonly fees: readonly RegistryFee[];
  /** Ids of the names that have a price of their own. */
  readonly premium: ReadonlySet<number>;
}

export function indexRules(rules: LedgerRules): RuleIndex {
  return {
    rules,
    accounts: new Map(rules.accounts.map((account) => [account.id, account])),
    policies: new Map(rules.policies.map((policy) => [policy.ending, policy])),
    book: makePriceBook(rules.prices),
    fees: rules.fees,
    premium: new Set(rules.prices.flatMap((price) => (price.nameId === null ? [] : [price.nameId]))),
  };
}

/** What keeping a name costs on one day, by the way it is kept, and what it costs per year. */
export interface KeepingCosts extends StepCosts {
  readonly perYear: Amount | null;
  /** True when the restore figure is ten times the renewal, for want of a known price. */
  readonly restoreRuleOfThumb: boolean;
}

type Asked = Pick<LedgerName, 'id' | 'ending' | 'accountId'>;

/** What renewing for `years` costs on `day`, or `null` without a known price. */
export function renewalCost(index: RuleIndex, name: Asked, years: number, day: Day): Amount | null {
  const price = priceInForce(index.book, pricedAs(index, name), 'renew', day);
  if (!price) return null;
  const fee = policyFor(name.ending, index.policies).yearlyFee ? registryFeeOn(index.fees, day) : null;
  return termCost(price, { years, fee, taxPercent: index.accounts.get(name.accountId)?.taxPercent ?? 0 }).total;
}

/** What keeping a name costs on `day`: renewal for the least term, late fee, restore and a year. */
export function keepingCosts(index: RuleIndex, name: Asked, day: Day): KeepingCosts {
  const policy = policyFor(name.ending, index.policies);
  const account = index.accounts.get(name.accountId);
  const priced = pricedAs(index, name);
  const price = priceInForce(index.book, priced, 'renew', day);
  const lateFee = account && account.lateFeeMinor > 0 ? amount(account.lateFeeMinor, account.currency) : null;
  if (!price) return { renewal: null, lateFee, restore: null, perYear: null, restoreRuleOfThumb: false };
  const fee = policy.yearlyFee ? registryFeeOn(index.fees, day) : null;
  const years = policy.terms.renew.least;
  const taxPercent = account?.taxPercent ?? 0;
  const renewal = termCost(price, { years, fee, taxPercent });
  const oneYear = termCost(price, { years: 1, fee, taxPercent });
  const restore = restoreCost(priceInForce(index.book, priced, 'restore', day), oneYear, taxPercent);
  return {
    renewal: renewal.total,
    lateFee,
    restore: restore.total,
    perYear: { minor: roundHalfAway(renewal.total.minor / years), currency: renewal.total.currency },
    restoreRuleOfThumb: restore.ruleOfThumb,
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

/** The instants at which any price or fee changes, in order. */
export function priceChangesOf(index: RuleIndex): Instant[] {
  const days = [...index.rules.prices.map((price) => price.from), ...index.fees.map((fee) => fee.from)];
  return [...new Set(days)].sort().map(startOfDay);
}

/** `renewalCost` by place, remembered for each group, term, and stretch of time in which no price changes. */
export function renewalCostsAt(
  index: RuleIndex,
  groups: CostGroups,
  changes: readonly Instant[],
): (place: number, years: number, at: Instant) => Amount | null {
  const known = new Map<number, Amount | null>();
  return (place, years, at) => {
    const group = groups.groupOf[place] as number;
    let stretch = 0;
    while (stretch < changes.length && (changes[stretch] as Instant) <= at) stretch += 1;
    const key = (group * 128 + years) * 4096 + stretch;
    let cost = known.get(key);
    if (cost === undefined) {
      cost = renewalCost(index, groups.samples[group] as LedgerName, years, dayOf(at));
      known.set(key, cost);
    }
    return cost;
  };
}
