import { type Charge, type ChargedName, chargedState, projectCharges } from '../funding';
import {
  type AccountWindow,
  lifecycleMarks,
  type Marks,
  movedBy,
  type Phase,
  type Policy,
  phaseAt,
  policyFor,
} from '../lifecycle';
import { type Deadline, deadlineAt } from '../pricing';
import { addDays, addYears, earliestEnd, type Instant, stretchBetween, type TermEnd, type TimeStretch } from '../time';
import {
  type CostGroups,
  groupByCost,
  type KeepingCosts,
  keepingCostsAt,
  priceChangesOf,
  type RuleIndex,
  renewalCostsAt,
} from './costs';
import type { LedgerAccount, LedgerName } from './data';
import { type Outlook, outlookOf } from './outlook';

/** How far ahead of today the date may be moved, and how far beyond that life strips still show charges. */
export const LOOK_AHEAD_YEARS = 2;
const STRIP_YEARS = 1;

/** The whole ledger played forward from `asOf`, if nothing is done. Names are known by their place in it. */
export interface Projection {
  readonly index: RuleIndex;
  readonly names: readonly LedgerName[];
  readonly asOf: Instant;
  /** The automatic charges of each name. */
  readonly charges: readonly (readonly Charge[])[];
  /** The names that each account may charge. */
  readonly charged: ReadonlyMap<number, readonly ChargedName[]>;
  /** The ending's policy and the account of each name, and what costs the same. */
  readonly policies: readonly Policy[];
  readonly accounts: readonly AccountWindow[];
  readonly groups: CostGroups;
  /** The instants at which any price or fee changes, in order. */
  readonly priceChanges: readonly Instant[];
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
  readonly deadline: Deadline | null;
  readonly coming: Charge | null;
  readonly failed: Charge | null;
  readonly outlook: Outlook;
  readonly costs: KeepingCosts;
  /** The row is the same on every instant from `from` up to, not including, `until`. */
  readonly from: Instant;
  readonly until: Instant;
}

type ChargeableName = LedgerName & { readonly termEnd: TermEnd };

const NO_CHARGES: readonly Charge[] = [];
const NO_ACCOUNT = { lateDays: 0, auctionDay: null } as const;

/** How many years one automatic charge buys: the account's, never under the ending's least term, in its steps. */
function yearsPerCharge(account: LedgerAccount, policy: Policy): number {
  const { least, step } = policy.terms.renew;
  return least + Math.ceil(Math.max(0, account.yearsPerCharge - least) / step) * step;
}

/** Plays every account forward from `asOf` for as long as the date can be moved and a lifecycle strip drawn. */
export function projectLedger(index: RuleIndex, names: readonly LedgerName[], asOf: Instant): Projection {
  const charges: (readonly Charge[])[] = names.map(() => NO_CHARGES);
  const until = addYears(asOf, LOOK_AHEAD_YEARS + STRIP_YEARS);
  const groups = groupByCost(index, names);
  const groupPolicies = groups.samples.map((name) => policyFor(name.ending, index.policies));
  const policies = names.map((_, place) => groupPolicies[groups.groupOf[place] as number] as Policy);
  const accounts = names.map((name) => index.accounts.get(name.accountId) ?? NO_ACCOUNT);
  const priceChanges = priceChangesOf(index);
  const costAt = renewalCostsAt(index, groups, priceChanges);
  const chargedAt = new Map<number, readonly ChargedName[]>();
  for (const [accountId, places] of byAccount(names)) {
    const account = index.accounts.get(accountId);
    if (!account) continue;
    const charged = places.map((place): ChargedName => {
      const name = names[place] as LedgerName & { termEnd: TermEnd };
      const policy = policies[place] as Policy;
      return {
        place,
        ascii: name.ascii,
        termEnd: name.termEnd,
        setting: name.setting,
        years: yearsPerCharge(account, policy),
        chargeableUntil: addDays(earliestEnd(name.termEnd), Math.min(policy.lateDays, account.lateDays)),
        costAt: (years, at, isLate) => costAt(place, years, at, isLate),
      };
    });
    chargedAt.set(accountId, charged);
    for (const [i, list] of projectCharges(account, charged, asOf, until).entries())
      charges[places[i] as number] = list;
  }
  return { index, names, asOf, charges, charged: chargedAt, policies, accounts, groups, priceChanges };
}

/** True for a name that was seen deleted: no automatic charge brings it back. */
function isDeleted(observed: LedgerName['observed']): boolean {
  return observed !== null && observed.phase !== 'pending transfer' && observed.phase !== 'registered';
}

/** The places of the names that an account may charge: auto-renew on, a known term, nothing unusual seen. */
function byAccount(names: readonly LedgerName[]): Map<number, number[]> {
  const places = new Map<number, number[]>();
  for (const [place, name] of names.entries()) {
    const tried = name.setting === 'on' || name.setting === 'stalled';
    if (!tried || name.termEnd === null || isDeleted(name.observed)) continue;
    const list = places.get(name.accountId);
    if (list) list.push(place);
    else places.set(name.accountId, [place]);
  }
  return places;
}

/**
 * Reads rows of a projection on one day; what the names share is worked out once. Rows of `earlier`, read on another day of the
 * same projection, are taken over where they still hold, so that moving the date costs only what the move changes.
 */
export function rowsOn(
  projection: Projection,
  day: Instant,
  earlier: readonly LedgerRow[] = [],
): (place: number) => LedgerRow {
  const { index, names, charges, asOf, policies, accounts, groups } = projection;
  const costsOf = keepingCostsAt(index, groups, day);
  const prices = stretchAround(projection.priceChanges, asOf, day);
  return (place) => {
    const known = earlier[place];
    if (known && known.from <= day && day < known.until) return known;
    const name = names[place] as LedgerName;
    const costs = costsOf(place);
    if (name.termEnd === null) {
      const nothing = { termEnd: null, phase: null, marks: null, deadline: null, coming: null, failed: null };
      return { place, name, setting: name.setting, costs, outlook: { kind: 'unknown' }, ...nothing, ...prices };
    }
    const own = charges[place] ?? NO_CHARGES;
    const state = chargedState(name as ChargeableName, own, asOf, day);
    // A date alone: what may be refunded counts from its earliest instant, so that no day too many is promised.
    const registeredAt = name.registered && earliestEnd(name.registered);
    const registration = { registeredAt, termEnd: state.termEnd, observed: name.observed };
    const marks = lifecycleMarks(registration, policies[place] as Policy, accounts[place] as AccountWindow);
    const phase = phaseAt(marks, name.observed, day);
    const deadline = deadlineAt(phase, marks, state.saving, costs, day);
    const outlook = outlookOf(phase, marks, state, day);
    const { termEnd, setting, coming, failed } = state;
    const { from, until } = stretchOf(prices, marks, own, name.observed, day);
    return { place, name, termEnd, setting, phase, marks, deadline, coming, failed, outlook, costs, from, until };
  };
}

/** The stretch of time around `day` in which no price changes. Today's facts hold on today's instant alone. */
function stretchAround(changes: readonly Instant[], asOf: Instant, day: Instant): TimeStretch {
  if (day <= asOf) return { from: day, until: (day + 1) as Instant };
  let from = (asOf + 1) as Instant;
  for (const change of changes) {
    if (change > day) return { from, until: change };
    if (change > from) from = change;
  }
  return { from, until: Number.MAX_SAFE_INTEGER as Instant };
}

/** `within`, cut down to where none of a name's marks and charges lies. */
function stretchOf(
  within: TimeStretch,
  marks: Marks,
  charges: readonly Charge[],
  observed: LedgerName['observed'],
  day: Instant,
): TimeStretch {
  const own = [
    marks.refundableUntil,
    marks.termEnd,
    marks.auction,
    marks.deletion,
    marks.restoreReportDue,
    marks.redemptionEnd,
    marks.release,
    observed?.at ?? null,
    observed?.phase === 'pending transfer' ? movedBy(observed) : null,
  ];
  for (let i = 0; i < charges.length; i += 1) own.push((charges[i] as Charge).at);
  return stretchBetween(within, own, day);
}
