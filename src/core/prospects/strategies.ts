import { discountOf, keepValue } from '../odds';
import { type Course, wholeCourse } from './course';
import type { OfferGroup } from './offerBook';
import type { Schedule } from './schedule';
import type { Valuing } from './worth';

/** A way of going on that can be chosen. Amounts are minor units of the home currency; shares 0 to 1; names by id. */
export type Strategy =
  /** Nothing is done: the ledger's own charges. */
  | { readonly kind: 'as it stands' }
  /** Every name is renewed as long as it is not sold, and money is never short. */
  | { readonly kind: 'keep all' }
  /** A name is given up once keeping it costs more than it may bring. */
  | { readonly kind: 'drop what is not worth it' }
  /** So much a year is spent on what is worth most for its cost. */
  | { readonly kind: 'budget'; readonly yearlyMinor: number }
  /** All asking prices fall by a share. */
  | { readonly kind: 'lower prices'; readonly share: number }
  /** What is thought of doing with some names: giving them up now, or asking another price for them. */
  | { readonly kind: 'thought'; readonly dropped: readonly number[]; readonly asked: readonly Asked[] };

export interface Asked {
  readonly nameId: number;
  readonly minor: number;
}

/** What strategies are made into courses with. */
export interface Ground {
  readonly valuing: Valuing;
  readonly standing: Schedule;
  readonly kept: Schedule;
}

/** True for a strategy that pays for names whatever their setting: what they cost has to be known. */
export function keepsNames({ kind }: Strategy): boolean {
  return kind === 'keep all' || kind === 'drop what is not worth it' || kind === 'budget';
}

/** The course that a strategy comes to. */
export function courseOf(strategy: Strategy, label: string, ground: Ground): Course {
  const { valuing, standing, kept } = ground;
  const { book, assumptions } = valuing;
  switch (strategy.kind) {
    case 'as it stands':
      return wholeCourse(label, standing, book);
    case 'keep all':
      return wholeCourse(label, kept, book);
    case 'drop what is not worth it':
      return { ...wholeCourse(label, kept, book), paid: whatIsWorthIt(ground) };
    case 'budget':
      return { ...wholeCourse(label, kept, book), paid: underBudget(ground, strategy.yearlyMinor) };
    case 'lower prices': {
      const left = 1 - strategy.share;
      const asking = book.asking.map((minor) => Math.round(minor * left));
      const pace = Float64Array.from(asking, () => paceAt(left, assumptions.elasticity));
      return { ...wholeCourse(label, standing, book), asking, pace };
    }
    case 'thought':
      return thought(strategy, label, ground);
  }
}

/** Nothing sells more often than this makes it: events are drawn at the greatest pace, and would not come to an end. */
const GREATEST_PACE = 1000;

/** How many times as often a name sells at another price, `left` of what was asked before: λ × left^(−ε), a thousandfold at the most. */
const paceAt = (left: number, elasticity: number) => (left > 0 ? Math.min(GREATEST_PACE, left ** -elasticity) : 1);

function thought(
  { dropped, asked }: Extract<Strategy, { kind: 'thought' }>,
  label: string,
  { valuing, standing }: Ground,
): Course {
  const { book, assumptions, today } = valuing;
  const { names } = today.projection;
  const course = wholeCourse(label, standing, book);
  const placeOf = (id: number) => names.placeOf(id) ?? -1;
  for (const id of dropped) {
    const place = placeOf(id);
    if (place >= 0) course.paid[place] = standing.first[place] as number;
  }
  const asking = book.asking.slice();
  const pace = new Float64Array(asking.length).fill(1);
  for (const { nameId, minor } of asked) {
    const place = placeOf(nameId);
    const i = place < 0 ? -1 : (book.at[place] as number);
    if (i < 0) continue;
    if ((asking[i] as number) > 0) pace[i] = paceAt(minor / (asking[i] as number), assumptions.elasticity);
    asking[i] = minor;
  }
  return { ...course, asking, pace };
}

/** True for a name that is kept whatever it costs: it is in use, never to be lost, kept on purpose, or being sold. */
export function isAlwaysKept({ today, book }: Valuing, place: number): boolean {
  const { names } = today.projection;
  return (
    names.flag(place, 'neverLost') ||
    names.flag(place, 'purpose') === 'in use' ||
    names.flag(place, 'rescue') === 'keep' ||
    book.selling.has(place)
  );
}

/** The end of the charges that pay for a name's first years from the term on that ends next. */
function paidFor({ first, endAt, paidTo }: Schedule, place: number, years: number): number {
  const from = first[place] as number;
  const now = paidTo[place] as number;
  const beginsIn = (i: number) => Math.round(((i === from ? now : (endAt[i - 1] as number)) - now) / 12);
  let to = from;
  while (to < (first[place + 1] as number) && beginsIn(to) < years) to += 1;
  return to;
}

/** For every name the charges up to which it is worth keeping. What nobody can judge is kept. */
function whatIsWorthIt({ valuing, kept }: Ground): Int32Array {
  const paid = kept.first.slice(1);
  for (let place = 0; place < paid.length; place += 1) {
    if (paid[place] === kept.first[place] || isAlwaysKept(valuing, place)) continue;
    const worth = valuing.worthOf(place);
    if (worth) paid[place] = paidFor(kept, place, worth.keep.years);
  }
  return paid;
}

/** What a name is worth in a later year, if it is still there: what was paid and not sold counts against it. */
function valuesByYear(
  valuing: Valuing,
  place: number,
): { readonly costs: readonly number[]; readonly values: readonly number[] } | null {
  const { book, assumptions } = valuing;
  const worth = valuing.worthOf(place);
  if (!worth) return null;
  const i = book.at[place] as number;
  const { rate } = book.groups[book.group[i] as number] as OfferGroup;
  const factor = book.factor[i] as number;
  const { costs } = worth.next;
  const values = costs.map((_, t) => {
    const later = { sales: rate.sales, nameYears: rate.nameYears + factor * t };
    const discount = discountOf(assumptions);
    return keepValue({ costs: costs.slice(t), proceeds: worth.proceeds, rate: later, factor, discount }).value;
  });
  return { costs, values };
}

interface Wanted {
  readonly place: number;
  readonly cost: number;
  /** Worth for each unit of cost; infinite for what is always kept. */
  readonly rank: number;
}

/** For every name the charges up to which a yearly budget keeps it: what is always kept first, then what is worth most for its cost. */
function underBudget({ valuing, kept }: Ground, yearlyMinor: number): Int32Array {
  const { first, month, minor } = kept;
  const paid = first.slice(1);
  const known = new Map<number, ReturnType<typeof valuesByYear>>();
  const isGone = new Uint8Array(paid.length);
  for (let year = 0; year < 10; year += 1) {
    const wanted: Wanted[] = [];
    for (let place = 0; place < paid.length; place += 1) {
      if (isGone[place] === 1) continue;
      let cost = 0;
      for (let i = first[place] as number; i < (first[place + 1] as number); i += 1)
        if (Math.floor((month[i] as number) / 12) === year) cost += minor[i] as number;
      if (cost > 0) wanted.push({ place, cost, rank: rankOf(valuing, place, year, cost, kept, known) });
    }
    wanted.sort((a, b) => b.rank - a.rank || a.place - b.place);
    let left = yearlyMinor;
    for (const { place, cost, rank } of wanted) {
      if (rank >= 0 && cost <= left) left -= cost;
      else {
        isGone[place] = 1;
        let to = first[place] as number;
        while (to < (first[place + 1] as number) && (month[to] as number) < 12 * year) to += 1;
        paid[place] = to;
      }
    }
  }
  return paid;
}

function rankOf(
  valuing: Valuing,
  place: number,
  year: number,
  cost: number,
  { first, month }: Schedule,
  known: Map<number, ReturnType<typeof valuesByYear>>,
): number {
  if (isAlwaysKept(valuing, place)) return Number.POSITIVE_INFINITY;
  let values = known.get(place);
  if (values === undefined) {
    values = valuesByYear(valuing, place);
    known.set(place, values);
  }
  // Nobody can say what it is worth: it comes behind everything that is worth its cost.
  if (!values) return 0;
  const t = Math.max(0, year - Math.floor((month[first[place] as number] as number) / 12));
  return (values.values[t] ?? 0) / cost;
}
