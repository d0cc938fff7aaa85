import { type Amount, convert, sumByCurrency } from '../money';
import { addDays, DAY_MS, dayOf, type Instant } from '../time';
import type { LedgerRules } from './data';
import type { LedgerRow, Projection } from './projection';

/** What a name on today's list is threatened by. */
export const TODAY_GROUPS = [
  'charge will fail',
  'past its term',
  'mail to confirm',
  'lapses',
  'will be charged',
] as const;
export type TodayGroup = (typeof TODAY_GROUPS)[number];

/** How far ahead today's list looks, in days. */
export const TODAY_DAYS = 60;
const CHARGE_DAYS = 30;

/** The names of one group, the ones whose waiting costs most per day first. */
export interface TodayList {
  readonly group: TodayGroup;
  readonly rows: readonly LedgerRow[];
}

/** What happens in the next thirty days if nothing is done. */
export interface TodaySummary {
  readonly charged: readonly Amount[];
  readonly charges: number;
  /** Of the charges, those at a price that is not known: they are missing from the sum. */
  readonly unpriced: number;
  readonly lapses: number;
  readonly lost: number;
  /** Names of which nobody has said when their term ends: nothing of the above knows of them. */
  readonly dateless: number;
}

/** Which group a row belongs to, or `null` when nothing needs a decision soon. What is being dropped nags nobody. */
export function todayGroup(row: LedgerRow, asOf: Instant): TodayGroup | null {
  const { outlook, phase, deadline, name, setting } = row;
  if (name.purpose === 'drop' || phase === null) return null;
  if (phase === 'late' || phase === 'redemption' || phase === 'pending restore') return 'past its term';
  const soon = deadline !== null && deadline.at < addDays(asOf, TODAY_DAYS);
  if (outlook.kind === 'charge fails') return outlook.charge.at < addDays(asOf, TODAY_DAYS) ? 'charge will fail' : null;
  if (setting === 'stalled' && soon) return 'charge will fail';
  if (outlook.kind === 'lapses') {
    const lapses = row.marks !== null && row.marks.termEnd < addDays(asOf, TODAY_DAYS);
    return lapses ? 'lapses' : null;
  }
  if (outlook.kind === 'charged') return outlook.charge.at < addDays(asOf, CHARGE_DAYS) ? 'will be charged' : null;
  return null;
}

/** What an amount is worth in minor units of the home currency; `null` without a rate. */
export type Worth = (amount: Amount) => number | null;

/** Worth in the home currency of some rules, by the rates of a day. */
export function worthIn({ rates, homeCurrency }: Pick<LedgerRules, 'rates' | 'homeCurrency'>, asOf: Instant): Worth {
  const day = dayOf(asOf);
  return (amount) => convert(amount, homeCurrency, rates, day)?.minor ?? null;
}

/**
 * Minor units that each day of waiting loses: what the deadline adds to the cost, or what the name is offered for where it
 * ends in loss (the restore's cost where nothing is asked), over the days until then. In the home currency by the day's rate; what
 * has none is not compared, and ranks last.
 */
export function lossPerDay({ deadline, costs, name }: LedgerRow, asOf: Instant, worth: Worth): number {
  if (deadline === null || deadline.kind === 'charge') return 0;
  const inHome = (amount: Amount | null) => (amount === null ? 0 : worth(amount));
  const before = inHome(deadline.before);
  const value = inHome(name.asking ?? costs.restore);
  const stepped = deadline.after === null ? null : inHome(deadline.after);
  if (before === null || value === null || (deadline.after !== null && stepped === null)) return 0;
  const after = stepped ?? value + before;
  const days = Math.max(1, (deadline.at - asOf) / DAY_MS);
  return (Math.max(0, after - before) * (name.neverLost ? NEVER_LOST_WEIGHT : 1)) / days;
}

/** A name that must never be lost comes before others of ten times its price. */
const NEVER_LOST_WEIGHT = 10;

/**
 * Today's list: every name that needs a decision, by consequence, ranked by what waiting costs. A name whose holder has to
 * confirm the mail address stands there besides.
 */
export function todayLists(rows: readonly LedgerRow[], asOf: Instant, worth: Worth): TodayList[] {
  const groups = new Map<TodayGroup, LedgerRow[]>(TODAY_GROUPS.map((group) => [group, []]));
  for (const row of rows) {
    const group = todayGroup(row, asOf);
    if (group) groups.get(group)?.push(row);
    if (row.name.confirmMailBy !== null) groups.get('mail to confirm')?.push(row);
  }
  return TODAY_GROUPS.map((group) => {
    const list = groups.get(group) ?? [];
    const rank = new Map(list.map((row) => [row, lossPerDay(row, asOf, worth)]));
    if (group === 'mail to confirm') {
      list.sort((a, b) => (a.name.confirmMailBy ?? 0) - (b.name.confirmMailBy ?? 0) || a.place - b.place);
      return { group, rows: list };
    }
    list.sort(
      (a, b) =>
        (rank.get(b) ?? 0) - (rank.get(a) ?? 0) ||
        (a.deadline?.at ?? Infinity) - (b.deadline?.at ?? Infinity) ||
        a.place - b.place,
    );
    return { group, rows: list };
  });
}

/** If nothing is done: what is charged in the next thirty days, how many names lapse, how many are lost for good. */
export function todaySummary(
  projection: Projection,
  now: readonly LedgerRow[],
  then: readonly LedgerRow[],
): TodaySummary {
  const until = addDays(projection.asOf, CHARGE_DAYS);
  const costs: Amount[] = [];
  let [charges, unpriced] = [0, 0];
  for (const list of projection.charges)
    for (const charge of list) {
      if (charge.at > until) break;
      if (charge.outcome === 'fail') continue;
      charges += 1;
      if (charge.cost) costs.push(charge.cost);
      else unpriced += 1;
    }
  const alive = (row: LedgerRow | undefined) => row?.phase === 'term' || row?.phase === 'refundable';
  const gone = (row: LedgerRow | undefined) => row?.phase === 'pending delete' || row?.phase === 'available';
  let [lapses, lost, dateless] = [0, 0, 0];
  for (const [i, row] of now.entries()) {
    if (row.termEnd === null) dateless += 1;
    if (alive(row) && !alive(then[i]) && then[i]?.phase !== 'pending transfer') lapses += 1;
    if (!gone(row) && gone(then[i])) lost += 1;
  }
  return { charged: sumByCurrency(costs), charges, unpriced, lapses, lost, dateless };
}
