import { roundHalfAway } from '../money';
import { compareSales } from '../selling';
import type { OfferFacts } from './data';
import { isAlwaysKept } from './strategies';
import type { NameWorth, Valuing } from './worth';

/** What is thought of a name's next year, in the order in which it wants a decision. */
export const STANDS = ['not worth it', 'underpriced', 'undecided', 'worth it', 'always kept'] as const;
export type Stand = (typeof STANDS)[number];

/** A name with what its next year is worth. Amounts are minor units of the home currency; `null` where nobody can say. */
export interface RankedName {
  readonly place: number;
  readonly stand: Stand;
  readonly worth: NameWorth | null;
  /** What the next year costs, and when it is charged. */
  readonly next: NameWorth['next'] | null;
  /** The least asking price worth another year, whole minor units. */
  readonly leastAskingMinor: number | null;
  /** The median of what like names were sold for. */
  readonly likeMinor: number | null;
  readonly factor: number;
  readonly offers: number;
}

/** Every name that could be renewed, by its place: how it stands and what keeping it is worth, in columns; what wants a decision first. */
export interface Ranking {
  /** Places of the ledger in order: by how they stand, then by what keeping is worth, the least first. */
  readonly order: Int32Array;
  /** By place: the number of how it stands in `STANDS`; 255 for what is not ranked. */
  readonly stand: Uint8Array;
  /** By place, minor units, `NaN` where nobody can say. */
  readonly value: Float64Array;
  readonly cost: Float64Array;
  readonly chance: Float64Array;
  readonly proceeds: Float64Array;
  /** How many stand how, by `STANDS`, and what the next year of those that are not worth it costs. */
  readonly counts: readonly number[];
  readonly savesMinor: number;
  readonly gainMinor: number;
}

const NOT_RANKED = 255;

/** Ranks every name. A name is underpriced where it is not worth its cost at its own asking price, and would be at one that like names were sold for. */
export function rankNames(valuing: Valuing, { past }: OfferFacts): Ranking {
  const { today } = valuing;
  const { length } = today;
  const { homeCurrency } = today.projection.index.rules;
  const dearest = past.reduce(
    (most, { price }) => (price.currency === homeCurrency ? Math.max(most, price.minor) : most),
    0,
  );
  const stand = new Uint8Array(length).fill(NOT_RANKED);
  const column = () => new Float64Array(length).fill(Number.NaN);
  const [value, cost, chance, proceeds] = [column(), column(), column(), column()];
  const counts = STANDS.map(() => 0);
  const places: number[] = [];
  let [saves, gain] = [0, 0];
  for (let place = 0; place < length; place += 1) {
    const worth = valuing.worthOf(place);
    const next = worth?.next ?? valuing.costsOf(place);
    if (!next && !isUndecided(valuing, place)) continue;
    if (next) cost[place] = next.costs[0] ?? 0;
    if (worth) {
      value[place] = worth.keep.value;
      chance[place] = worth.keep.chance;
      proceeds[place] = worth.proceeds;
    }
    const code = STANDS.indexOf(standOf(valuing, place, worth, past, dearest));
    stand[place] = code;
    counts[code] = (counts[code] as number) + 1;
    if (code === 0) {
      saves += roundHalfAway(cost[place] as number);
      gain -= value[place] as number;
    }
    places.push(place);
  }
  const order = Int32Array.from(places).sort(
    (a, b) => (stand[a] as number) - (stand[b] as number) || byValue(value, a, b) || a - b,
  );
  return { order, stand, value, cost, chance, proceeds, counts, savesMinor: saves, gainMinor: roundHalfAway(gain) };
}

const byValue = (value: Float64Array, a: number, b: number) => {
  const [one, other] = [value[a] as number, value[b] as number];
  return Number.isNaN(one) || Number.isNaN(other) ? 0 : one - other;
};

/** A name that could be kept, of which too little is known to judge it. */
function isUndecided({ today }: Valuing, place: number): boolean {
  const phase = today.phaseAt(place);
  return (
    today.projection.names.flag(place, 'purpose') !== 'drop' && (phase === null || phase === 'term' || phase === 'late')
  );
}

function standOf(
  valuing: Valuing,
  place: number,
  worth: NameWorth | null,
  past: OfferFacts['past'],
  dearest: number,
): Stand {
  if (isAlwaysKept(valuing, place)) return 'always kept';
  if (!worth) return 'undecided';
  if (worth.keep.value >= 0) return 'worth it';
  const least = valuing.leastAskingOf(place, worth);
  // Nothing was ever sold for so much: no name need be held against it.
  if (least === null || least > dearest) return 'not worth it';
  const { names, index } = valuing.today.projection;
  const like = compareSales(names.ascii(place), past, index.rules.homeCurrency);
  return like !== null && like.medianMinor >= least ? 'underpriced' : 'not worth it';
}

/** One name of a ranking in full. */
export function rankedName(valuing: Valuing, facts: OfferFacts, { stand }: Ranking, place: number): RankedName {
  const { book, today } = valuing;
  const worth = valuing.worthOf(place);
  const i = book.at[place] as number;
  const like = compareSales(today.projection.names.ascii(place), facts.past, today.projection.index.rules.homeCurrency);
  return {
    place,
    stand: STANDS[stand[place] as number] ?? 'undecided',
    worth,
    next: worth?.next ?? valuing.costsOf(place),
    leastAskingMinor: worth && valuing.leastAskingOf(place, worth),
    likeMinor: like?.medianMinor ?? null,
    factor: i < 0 ? 1 : (book.factor[i] as number),
    offers: book.offers.get(place) ?? 0,
  };
}

/** The charges of the names that are not worth their next year, by the day on which each falls due: what dropping them saves, month by month. */
export interface DropMonth {
  /** Milliseconds: the first charge that is saved in it. */
  readonly from: number;
  /** `YYYY-MM`. */
  readonly month: string;
  readonly names: number;
  readonly savesMinor: number;
  readonly gainMinor: number;
  readonly places: readonly number[];
}

/** A plan of dropping: names that are not worth their next year by when that is charged. */
export function dropPlan(valuing: Valuing, ranking: Ranking): DropMonth[] {
  const months = new Map<
    string,
    { from: number; names: number; savesMinor: number; gainMinor: number; places: [number, number][] }
  >();
  for (const place of ranking.order) {
    if (ranking.stand[place] !== 0) continue;
    const next = valuing.costsOf(place);
    if (!next) continue;
    const month = new Date(next.firstAt).toISOString().slice(0, 7);
    const known = months.get(month) ?? { from: next.firstAt, names: 0, savesMinor: 0, gainMinor: 0, places: [] };
    months.set(month, known);
    known.from = Math.min(known.from, next.firstAt);
    known.names += 1;
    known.savesMinor += roundHalfAway(ranking.cost[place] as number);
    known.gainMinor -= ranking.value[place] as number;
    known.places.push([next.firstAt, place]);
  }
  return [...months]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([month, { places, gainMinor, ...rest }]) => ({
      ...rest,
      month,
      gainMinor: roundHalfAway(gainMinor),
      places: places.sort(([a, x], [b, y]) => a - b || x - y).map(([, place]) => place),
    }));
}
