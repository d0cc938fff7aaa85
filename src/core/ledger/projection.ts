import { type Charge, type ChargedNames, ChargeTable, chargedState, playingCharges } from '../funding';
import {
  type AccountWindow,
  lifecycleMarks,
  type Marks,
  type Phase,
  type Policy,
  phaseAt,
  policyFor,
} from '../lifecycle';
import { type Deadline, deadlineAt } from '../pricing';
import { inOneGo, type Steps } from '../steps';
import { addDays, addYears, dayOf, earliestEnd, type Instant, startOfDay, type TermEnd } from '../time';
import { columnsOf } from './columns';
import {
  type CostGroups,
  groupByCost,
  type KeepingCosts,
  keepingCostsAt,
  type RuleIndex,
  renewalCostsAt,
} from './costs';
import type { LedgerAccount, LedgerName } from './data';
import { NameTable } from './nameTable';
import { type Outlook, outlookOf } from './outlook';

/** How far ahead of today the date may be moved, and how far beyond that life strips still show charges. */
export const LOOK_AHEAD_YEARS = 2;
const STRIP_YEARS = 1;

/** The whole ledger played forward from `asOf`, if nothing is done. Names are known by their place in it. */
export interface Projection {
  readonly index: RuleIndex;
  readonly names: NameTable;
  readonly asOf: Instant;
  /** The automatic charges of each name. */
  readonly charges: ChargeTable;
  /** The names that each account may charge; put together when they are first asked for. */
  readonly charged: () => ReadonlyMap<number, ChargedNames>;
  /** What costs the same, and the policy and the account window that a group's names share. */
  readonly groups: CostGroups;
  readonly windows: readonly LifecycleWindow[];
  /** Stands for this projection where only which one it is matters, and keeping the whole of it would be too much. */
  readonly key: object;
  /** The projection that this one was played on from, by its key, and which names may stand otherwise there: 1 at their place. */
  readonly since: { readonly key: object; readonly anew: Uint8Array } | null;
}

/** What the lives of names of one ending in one account have in common. */
export interface LifecycleWindow {
  readonly policy: Policy;
  readonly account: AccountWindow;
}

/** The window of the name at a place. */
export function windowOf({ windows, groups }: Projection, place: number): LifecycleWindow {
  return windows[groups.groupOf[place] as number] as LifecycleWindow;
}

/** The policy of a name's ending. */
export function policyOf(projection: Projection, place: number): Policy {
  return windowOf(projection, place).policy;
}

/** How a name stands on one day: facts up to `asOf`, the projection after it. */
export interface NameStanding {
  /** The name's place in the projection. */
  readonly place: number;
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
}

/** The same with everything the ledger knows of the name. */
export interface LedgerRow extends NameStanding {
  readonly name: LedgerName;
}

const NO_ACCOUNT = { lateDays: 0, auctionDay: null } as const;

/** How many years one automatic charge buys: the account's, never under the ending's least term, in its steps. */
export function yearsPerCharge(account: LedgerAccount, policy: Policy): number {
  const { least, step } = policy.terms.renew;
  return least + Math.ceil(Math.max(0, account.yearsPerCharge - least) / step) * step;
}

/** Plays every account forward from `asOf` for as long as the date can be moved and a lifecycle strip drawn. */
export function projectLedger(index: RuleIndex, ledger: NameTable | readonly LedgerName[], asOf: Instant): Projection {
  const names = ledger instanceof NameTable ? ledger : new NameTable(columnsOf(ledger));
  return inOneGo(projectedInSteps(index, names, asOf));
}

/** The same in steps, one account after the other. */
export function* projectedInSteps(index: RuleIndex, names: NameTable, asOf: Instant): Steps<Projection> {
  const ground = groundOf(index, names);
  const charges = new ChargeTable(names.length, names.length * (LOOK_AHEAD_YEARS + STRIP_YEARS));
  const charged = new Map<number, ChargedNames>();
  for (const [account, places] of byAccount(index, names)) {
    yield;
    const own = chargedBy(account, names, places, ground);
    charged.set(account.id, own);
    yield;
    yield* playingCharges(account, own, asOf, playedUntil(asOf), charges);
  }
  return projectionOf(index, names, asOf, charges, ground, null, charged);
}

/** Puts a projection together. `charged`: the names that each account may charge, where they are put together already. */
export function projectionOf(
  index: RuleIndex,
  names: NameTable,
  asOf: Instant,
  charges: ChargeTable,
  ground: Ground,
  since: Projection['since'],
  charged: ReadonlyMap<number, ChargedNames> | null = null,
): Projection {
  const { groups, windows } = ground;
  let known = charged;
  const askedFor = () => {
    known ??= new Map(
      [...byAccount(index, names)].map(([account, places]) => [account.id, chargedBy(account, names, places, ground)]),
    );
    return known;
  };
  return { index, names, asOf, charges, charged: askedFor, groups, windows, key: {}, since };
}

/** The end of what is played: the same for every instant of a day (UTC), so that what was played earlier that day may be taken over. */
export function playedUntil(asOf: Instant): Instant {
  return addYears(addDays(startOfDay(dayOf(asOf)), 1), LOOK_AHEAD_YEARS + STRIP_YEARS);
}

/** What is worked out of rules and names before anything is played. */
export interface Ground extends Pick<Projection, 'groups' | 'windows'> {
  readonly costAt: ChargedNames['costAt'];
}

export function groundOf(index: RuleIndex, names: NameTable, groups: CostGroups = groupByCost(index, names)): Ground {
  const windows = groups.samples.map(
    (place): LifecycleWindow => ({
      policy: policyFor(names.ending(place), index.policies),
      account: index.accounts.get(names.accountId(place)) ?? NO_ACCOUNT,
    }),
  );
  return { groups, windows, costAt: renewalCostsAt(index, names, groups) };
}

/** The names at some places as their account charges them. */
export function chargedBy(
  account: LedgerAccount,
  names: NameTable,
  places: readonly number[],
  { groups, windows, costAt }: Ground,
): ChargedNames {
  const count = places.length;
  const [termEnd, chargeableUntil] = [new Float64Array(count), new Float64Array(count)];
  const [isDay, isStalled, years] = [new Uint8Array(count), new Uint8Array(count), new Uint8Array(count)];
  for (let i = 0; i < count; i += 1) {
    const place = places[i] as number;
    const { policy } = windows[groups.groupOf[place] as number] as LifecycleWindow;
    const end = names.termEnd(place) as TermEnd;
    termEnd[i] = end.at;
    isDay[i] = end.precision === 'day' ? 1 : 0;
    isStalled[i] = names.flag(place, 'setting') === 'stalled' ? 1 : 0;
    years[i] = yearsPerCharge(account, policy);
    chargeableUntil[i] = addDays(earliestEnd(end), Math.min(policy.lateDays, account.lateDays));
  }
  return { places: Int32Array.from(places), termEnd, isDay, isStalled, years, chargeableUntil, costAt };
}

/** True for a name that was seen deleted: no automatic charge brings it back. */
function isDeleted(observed: LedgerName['observed']): boolean {
  return observed !== null && observed.phase !== 'pending transfer' && observed.phase !== 'registered';
}

/** The places of the names that each account may charge: auto-renew on, a known term, nothing unusual seen. Of those marked 1, or of all. */
export function byAccount(
  index: RuleIndex,
  names: NameTable,
  marked: Uint8Array | null = null,
): Map<LedgerAccount, number[]> {
  const places = new Map<LedgerAccount, number[]>();
  const { termEnd } = names.columns;
  for (let place = 0; place < names.length; place += 1) {
    if (marked !== null && marked[place] === 0) continue;
    const setting = names.flag(place, 'setting');
    const tried = setting === 'on' || setting === 'stalled';
    if (!tried || Number.isNaN(termEnd[place]) || isDeleted(names.observed(place))) continue;
    const account = index.accounts.get(names.accountId(place));
    if (!account) continue;
    const list = places.get(account);
    if (list) list.push(place);
    else places.set(account, [place]);
  }
  return places;
}

/** The marks of the name at a place, with its term ending when it does by then. */
export function marksOf(projection: Projection, place: number, termEnd: TermEnd): Marks {
  const { names } = projection;
  const { policy, account } = windowOf(projection, place);
  const registered = names.registered(place);
  // A date alone: what may be refunded counts from its earliest instant, so that no day too many is promised.
  const registeredAt = registered && earliestEnd(registered);
  return lifecycleMarks({ registeredAt, termEnd, observed: names.observed(place) }, policy, account);
}

/** Reads rows of a projection on one day; what the names share is worked out once. */
export function rowsOn(projection: Projection, day: Instant): (place: number) => LedgerRow {
  const standing = standingsOn(projection, day);
  return (place) => named(standing(place), projection.names.at(place));
}

/** Completes what has just been read: a copy of it would take as long again. */
function named(standing: NameStanding, name: LedgerName): LedgerRow {
  const row = standing as { -readonly [K in keyof LedgerRow]: LedgerRow[K] };
  row.name = name;
  return row;
}

/** Reads how the names of a projection stand on one day, without what else is known of them. */
export function standingsOn(projection: Projection, day: Instant): (place: number) => NameStanding {
  const { index, names, charges, asOf, groups } = projection;
  const costsOf = keepingCostsAt(index, names, groups, day);
  return (place) => {
    const costs = costsOf(place);
    const end = names.termEnd(place);
    const said = names.flag(place, 'setting');
    if (end === null) {
      const nothing = { termEnd: null, phase: null, marks: null, deadline: null, coming: null, failed: null };
      return { place, setting: said, costs, outlook: { kind: 'unknown' }, ...nothing };
    }
    const state = chargedState({ termEnd: end, setting: said }, charges, place, asOf, day);
    const marks = marksOf(projection, place, state.termEnd);
    const phase = phaseAt(marks, names.observed(place), day);
    const deadline = deadlineAt(phase, marks, state.saving, costs, day);
    const outlook = outlookOf(phase, marks, state, day);
    const { termEnd, setting, coming, failed } = state;
    return { place, termEnd, setting, phase, marks, deadline, coming, failed, outlook, costs };
  };
}

/** Every row of a projection on one day, in order. Costly where there are many names: what only filters and counts reads `LedgerDay`. */
export function everyRow(projection: Projection, day: Instant = projection.asOf): LedgerRow[] {
  const read = rowsOn(projection, day);
  return Array.from({ length: projection.names.length }, (_, place) => read(place));
}
