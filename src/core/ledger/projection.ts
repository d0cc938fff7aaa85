import { type Charge, type ChargedName, chargedState, projectCharges } from '../funding';
import { lifecycleMarks, type Marks, type Phase, type Policy, phaseAt, policyFor } from '../lifecycle';
import type { Amount } from '../money';
import { type PriceStep, priceStep } from '../pricing';
import { addDays, addYears, dayOf, earliestEnd, type Instant, type TermEnd } from '../time';
import { type KeepingCosts, keepingCostsAt, type RuleIndex, renewalCost } from './costs';
import type { LedgerAccount, LedgerName } from './data';
import { type Outlook, outlookOf } from './outlook';

/** How far ahead of today the date may be moved, and how far beyond that life strips still show charges. */
export const LOOK_AHEAD_YEARS = 2;
const STRIP_YEARS = 1;

/** The whole ledger played forward from `asOf`, if nothing is done. */
export interface Projection {
  readonly index: RuleIndex;
  readonly names: readonly LedgerName[];
  readonly asOf: Instant;
  /** The automatic charges of each name, by its place in `names`. */
  readonly charges: readonly (readonly Charge[])[];
}

/** One name on one day: facts up to `asOf`, the projection after it. */
export interface LedgerRow {
  /** The name's place in the projection. */
  readonly place: number;
  readonly name: LedgerName;
  /** `null` when nobody has said when the term ends; then phase, marks and step are `null` too. */
  readonly termEnd: TermEnd | null;
  readonly setting: LedgerName['setting'];
  readonly phase: Phase | null;
  readonly marks: Marks | null;
  readonly step: PriceStep | null;
  readonly coming: Charge | null;
  readonly failed: Charge | null;
  readonly outlook: Outlook;
  readonly costs: KeepingCosts;
}

const NO_CHARGES: readonly Charge[] = [];
const NO_ACCOUNT = { lateDays: 0, auctionDay: null } as const;

/** How many years one automatic charge buys: the account's, never under the ending's least term, in its steps. */
function yearsPerCharge(account: LedgerAccount, policy: Policy): number {
  const { least, step } = policy.terms.renew;
  return least + Math.ceil(Math.max(0, account.yearsPerCharge - least) / step) * step;
}

/** Plays every account forward from `asOf` for as long as the date can be moved and a life strip drawn. */
export function projectLedger(index: RuleIndex, names: readonly LedgerName[], asOf: Instant): Projection {
  const charges: (readonly Charge[])[] = names.map(() => NO_CHARGES);
  const until = addYears(asOf, LOOK_AHEAD_YEARS + STRIP_YEARS);
  const costs = renewalCosts(index);
  for (const [accountId, places] of byAccount(names)) {
    const account = index.accounts.get(accountId);
    if (!account) continue;
    const charged = places.map((place): ChargedName => {
      const name = names[place] as LedgerName & { termEnd: TermEnd };
      const policy = policyFor(name.ending, index.policies);
      return {
        ascii: name.ascii,
        termEnd: name.termEnd,
        setting: name.setting,
        years: yearsPerCharge(account, policy),
        chargeableUntil: addDays(earliestEnd(name.termEnd), Math.min(policy.lateDays, account.lateDays)),
        costAt: (years, at) => costs(name, years, at),
      };
    });
    for (const [i, list] of projectCharges(account, charged, asOf, until).entries())
      charges[places[i] as number] = list;
  }
  return { index, names, asOf, charges };
}

/** The places of the names that an account may charge: auto-renew on, a known term, nothing unusual seen. */
function byAccount(names: readonly LedgerName[]): Map<number, number[]> {
  const places = new Map<number, number[]>();
  for (const [place, name] of names.entries()) {
    if (name.setting !== 'on' || name.termEnd === null || (name.observed && name.observed.phase !== 'moving')) continue;
    const list = places.get(name.accountId);
    if (list) list.push(place);
    else places.set(name.accountId, [place]);
  }
  return places;
}

/** `renewalCost`, remembered for each account, ending, term and day on which prices may differ. */
function renewalCosts(index: RuleIndex): (name: LedgerName, years: number, at: Instant) => Amount | null {
  const changes = [...new Set([...index.rules.prices.map((p) => p.from), ...index.fees.map((f) => f.from)])].sort();
  const cache = new Map<string, Amount | null>();
  return (name, years, at) => {
    const day = dayOf(at);
    if (index.premium.has(name.id)) return renewalCost(index, name, years, day);
    const key = `${name.accountId}/${name.ending}/${years}/${changes.findLast((from) => from <= day) ?? ''}`;
    let cost = cache.get(key);
    if (cost === undefined) {
      cost = renewalCost(index, name, years, day);
      cache.set(key, cost);
    }
    return cost;
  };
}

/** Reads rows of a projection on one day; what the names share is worked out once. */
export function rowsOn(projection: Projection, day: Instant): (place: number) => LedgerRow {
  const { index, names, charges, asOf } = projection;
  const costsOf = keepingCostsAt(index, day);
  return (place) => {
    const name = names[place] as LedgerName;
    const costs = costsOf(name);
    if (name.termEnd === null) {
      const nothing = { termEnd: null, phase: null, marks: null, step: null, coming: null, failed: null };
      return { place, name, setting: name.setting, costs, outlook: { kind: 'unknown' }, ...nothing };
    }
    const state = chargedState(
      { termEnd: name.termEnd, setting: name.setting },
      charges[place] ?? NO_CHARGES,
      asOf,
      day,
    );
    const policy = policyFor(name.ending, index.policies);
    const account = index.accounts.get(name.accountId) ?? NO_ACCOUNT;
    const registeredAt = name.registered?.at ?? null;
    const registration = { registeredAt, termEnd: state.termEnd, observed: name.observed };
    const marks = lifecycleMarks(registration, policy, account);
    const phase = phaseAt(marks, name.observed, day);
    const step = priceStep(phase, marks, state.saving, costs, day);
    const outlook = outlookOf(phase, marks, state, day);
    const { termEnd, setting, coming, failed } = state;
    return { place, name, termEnd, setting, phase, marks, step, coming, failed, outlook, costs };
  };
}
