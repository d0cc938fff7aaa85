import { type Amount, convert, sumByCurrency } from '../money';
import { addDays, DAY_MS, type Day, dayIn, dayOf, type Instant } from '../time';
import type { LedgerRules } from './data';
import type { LedgerRow, Projection } from './projection';

/** What doing nothing leads to, the gravest first: the name is lost, it stops working, or keeping it gets dearer. */
export const CONSEQUENCES = ['lost', 'stops working', 'dearer'] as const;
export type Consequence = (typeof CONSEQUENCES)[number];

/** How far ahead today's list and its line of time look, in days. */
export const TODAY_DAYS = 60;

/** The names of one consequence, the nearest deadline first. */
export interface TodayList {
  readonly consequence: Consequence;
  readonly rows: readonly LedgerRow[];
}

/**
 * What a row comes to within `TODAY_DAYS`, or `null` when nothing needs a decision soon. What is being dropped nags nobody. A charge
 * that passes is no consequence.
 */
export function consequenceOf(row: LedgerRow, asOf: Instant): Consequence | null {
  const { outlook, phase, deadline, name, setting, marks } = row;
  if (name.purpose === 'drop' || phase === null || deadline === null) return null;
  const until = addDays(asOf, TODAY_DAYS);
  const soon = deadline.at < until;
  if (deadline.kind === 'lost' || deadline.kind === 'auction') return soon ? 'lost' : null;
  if (phase === 'late' || phase === 'redemption' || phase === 'pending restore') return 'dearer';
  if (outlook.kind === 'charge fails') return outlook.charge.at < until ? 'dearer' : null;
  if (setting === 'stalled' && soon) return 'dearer';
  if (outlook.kind === 'lapses') return marks !== null && marks.termEnd < until ? 'dearer' : null;
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

/** When a row has to be decided on: the failing charge where one comes first, else its deadline. */
export function decideBy({ outlook, deadline }: Pick<LedgerRow, 'outlook' | 'deadline'>): Instant | null {
  if (outlook.kind === 'charge fails') return outlook.charge.at;
  return deadline?.at ?? null;
}

/**
 * Today's list: every name that needs a decision, by what doing nothing leads to, what comes first before what comes later; what
 * falls on one day of the office’s zone by what waiting costs. A name whose holder has to confirm the mail address stops working without it, and stands there besides.
 */
export function todayLists(rows: readonly LedgerRow[], asOf: Instant, worth: Worth, zone: string): TodayList[] {
  const lists = new Map<Consequence, LedgerRow[]>(CONSEQUENCES.map((consequence) => [consequence, []]));
  for (const row of rows) {
    const consequence = consequenceOf(row, asOf);
    if (consequence) lists.get(consequence)?.push(row);
    if (row.name.confirmMailBy !== null) lists.get('stops working')?.push(row);
  }
  return CONSEQUENCES.map((consequence) => {
    const list = lists.get(consequence) ?? [];
    const at = (row: LedgerRow) =>
      (consequence === 'stops working' ? row.name.confirmMailBy : decideBy(row)) ?? Number.POSITIVE_INFINITY;
    const dayAndLoss = new Map(
      list.map((row) => [row, [dayIn(at(row) as Instant, zone), lossPerDay(row, asOf, worth)] as const]),
    );
    const of = (row: LedgerRow) => dayAndLoss.get(row) as readonly [Day, number];
    list.sort((a, b) => {
      const [[dayA, lossA], [dayB, lossB]] = [of(a), of(b)];
      return (dayA < dayB ? -1 : dayA > dayB ? 1 : 0) || lossB - lossA || a.place - b.place;
    });
    return { consequence, rows: list };
  });
}

/** The charges of one day that go the same way. */
export interface ChargeDay {
  readonly day: Day;
  /** The first of them. */
  readonly at: Instant;
  readonly passes: boolean;
  readonly count: number;
  /** What they come to, by currency; those without a known price are missing from it. */
  readonly amounts: readonly Amount[];
  readonly unpriced: number;
  readonly places: readonly number[];
}

/** Every automatic charge up to `until`, by the day it falls on in the office's zone and by whether it passes, in order. */
export function chargeDays({ charges, names, index, asOf }: Projection, until: Instant): ChargeDay[] {
  const { zone } = index.rules;
  const days = new Map<
    string,
    { day: Day; at: Instant; passes: boolean; costs: Amount[]; unpriced: number; places: number[] }
  >();
  for (let place = 0; place < names.length; place += 1)
    for (let i = charges.first(place); i >= 0; i = charges.next(i)) {
      const at = charges.at(i);
      if (at > until) break;
      if (at < asOf) continue;
      const day = dayIn(at, zone);
      const passes = charges.passes(i);
      const key = `${day} ${passes}`;
      const one = days.get(key) ?? { day, at, passes, costs: [], unpriced: 0, places: [] };
      days.set(key, one);
      one.places.push(place);
      if (at < one.at) one.at = at;
      const minor = charges.costMinor(i);
      if (Number.isNaN(minor)) one.unpriced += 1;
      else one.costs.push({ minor, currency: charges.currency(i) });
    }
  return [...days.values()]
    .sort((a, b) => a.at - b.at)
    .map(({ costs, ...one }) => ({ ...one, count: one.places.length, amounts: sumByCurrency(costs) }));
}

/** What the next `TODAY_DAYS` bring if nothing is done, in figures. */
export interface TodaySummary {
  /** Names whose next deadline loses them, the last of those days, and what keeps them all now, by currency. */
  readonly lost: number;
  readonly lostBy: Instant | null;
  readonly saving: readonly Amount[];
  /** Of them, those that nobody can price. */
  readonly savingUnpriced: number;
  /** Charges that pass, and what they come to. */
  readonly charges: number;
  readonly charged: readonly Amount[];
  /** Of the charges, those at a price that is not known: they are missing from the sum. */
  readonly unpriced: number;
  /** Charges that fail, the first of them, and at which account most do. */
  readonly fails: number;
  readonly failsFrom: Instant | null;
}

/** Sums up what is lost and charged, from today's lists and the charges by day. */
export function todaySummary(lists: readonly TodayList[], days: readonly ChargeDay[]): TodaySummary {
  const lost = lists.find(({ consequence }) => consequence === 'lost')?.rows ?? [];
  const [passing, failing] = [days.filter(({ passes }) => passes), days.filter(({ passes }) => !passes)];
  const count = (some: readonly ChargeDay[]) => some.reduce((sum, one) => sum + one.count, 0);
  const saving = lost.flatMap(({ deadline }) => deadline?.before ?? []);
  return {
    lost: lost.length,
    lostBy: lost.reduce<Instant | null>(
      (last, { deadline }) => (deadline && (last === null || deadline.at > last) ? deadline.at : last),
      null,
    ),
    saving: sumByCurrency(saving),
    savingUnpriced: lost.length - saving.length,
    charges: count(passing),
    charged: sumByCurrency(passing.flatMap(({ amounts }) => amounts)),
    unpriced: passing.reduce((sum, one) => sum + one.unpriced, 0),
    fails: count(failing),
    failsFrom: failing[0]?.at ?? null,
  };
}
