import type { Instant } from '../time';
import type { EndingHolding, OwnHolding } from './holding';
import type { OutcomeKind } from './outcome';

/** How a cell of a table of candidates stands: an outcome, or why there is none. */
export type CellKind = OutcomeKind | 'not asked' | 'ours' | 'not possible';

/** A letter for each kind: a table of sixty thousand names is a text. */
export const CELL_LETTERS: Readonly<Record<CellKind, string>> = {
  available: 'a',
  premium: 'p',
  perhaps: 'h',
  reserved: 'r',
  taken: 't',
  unknown: 'u',
  'not asked': '-',
  ours: 'o',
  'not possible': 'x',
};

const KINDS: ReadonlyMap<string, CellKind> = new Map(
  Object.entries(CELL_LETTERS).map(([kind, letter]) => [letter, kind as CellKind]),
);

/** A cell with a price of its own. */
export interface OwnPriceCell {
  readonly cell: number;
  readonly accountId: number | null;
  readonly holding: OwnHolding;
}

/** A taken name: the end of its term as far as it is known, and when it may come free. */
export interface TakenCell {
  readonly cell: number;
  readonly termEnd: Instant | null;
  readonly earliest: Instant | null;
  readonly latest: Instant | null;
}

/** Candidates down, endings across. A cell is `row × endings + ending`. */
export interface CandidateCells {
  readonly labels: readonly string[];
  readonly unicodes: readonly string[];
  readonly endings: readonly EndingHolding[];
  /** One letter for each cell. */
  readonly cells: string;
  readonly own: readonly OwnPriceCell[];
  readonly taken: readonly TakenCell[];
  /** Cells that have changed since the last check anew, with what they were. */
  readonly changed: readonly { readonly cell: number; readonly before: OutcomeKind }[];
}

/** The cells of a table, made ready to be sorted, filtered and drawn. */
export interface CandidateView extends CandidateCells {
  readonly width: number;
  /** What each name costs over the years held, in the office's currency; NaN where it cannot be had, or no price is known. */
  readonly prices: Float64Array;
  /** The cheapest ending of each row; -1 where none has a price. */
  readonly cheapest: Int32Array;
  readonly ownByCell: ReadonlyMap<number, OwnPriceCell>;
  readonly takenByCell: ReadonlyMap<number, TakenCell>;
  readonly changedByCell: ReadonlyMap<number, OutcomeKind>;
}

export const kindAt = ({ cells }: Pick<CandidateCells, 'cells'>, cell: number): CellKind =>
  KINDS.get(cells[cell] ?? '') ?? 'not asked';

/** Prices every cell over `years`: by its own price, or its ending's cheapest way. What nobody said is for sale has none. */
export function viewCandidates(table: CandidateCells, years: number): CandidateView {
  const width = table.endings.length;
  const ownByCell = new Map(table.own.map((one) => [one.cell, one]));
  const totals = table.endings.map(({ best }) => best[years - 1]?.totalMinor ?? Number.NaN);
  const prices = new Float64Array(table.labels.length * width).fill(Number.NaN);
  const cheapest = new Int32Array(table.labels.length).fill(-1);
  for (let cell = 0; cell < prices.length; cell += 1) {
    const letter = table.cells[cell];
    let price = Number.NaN;
    if (letter === 'a' || letter === 'h') price = totals[cell % width] ?? Number.NaN;
    else if (letter === 'p') price = ownByCell.get(cell)?.holding.totals[years - 1] ?? Number.NaN;
    prices[cell] = price;
    if (Number.isNaN(price)) continue;
    const row = Math.floor(cell / width);
    const best = cheapest[row] as number;
    if (best < 0 || price < (prices[row * width + best] as number)) cheapest[row] = cell % width;
  }
  return {
    ...table,
    width,
    prices,
    cheapest,
    ownByCell,
    takenByCell: new Map(table.taken.map((one) => [one.cell, one])),
    changedByCell: new Map(table.changed.map(({ cell, before }) => [cell, before])),
  };
}

/** Which rows are shown: those with an outcome in any of their endings. */
export const ROW_FILTERS = ['all', 'to be had', 'own price', 'taken', 'not known', 'changed'] as const;
export type RowFilter = (typeof ROW_FILTERS)[number];

export interface CandidateQuery {
  readonly text: string;
  readonly filter: RowFilter;
  /** The most it may cost over the years held, minor units; `null` for any sum. */
  readonly mostMinor: number | null;
  /** The most letters; `null` for any number. */
  readonly mostLetters: number | null;
  /** By the label, its length, the cheapest price of a row, or the price under one ending (its place). */
  readonly sort: 'as made' | 'label' | 'length' | 'price' | number;
  readonly descending: boolean;
}

const FILTER_LETTERS: Readonly<Record<Exclude<RowFilter, 'all' | 'changed'>, string>> = {
  'to be had': 'aph',
  'own price': 'p',
  taken: 't',
  'not known': 'u-',
};

/** The rows that fit, in order; what has no price comes last, whichever way it is sorted. */
export function arrangeCandidates(view: CandidateView, query: CandidateQuery): Uint32Array {
  const { unicodes, labels, width } = view;
  const text = query.text.trim().toLowerCase();
  const changedRows = new Set(view.changed.map(({ cell }) => Math.floor(cell / width)));
  const rows: number[] = [];
  for (let row = 0; row < labels.length; row += 1) {
    const unicode = unicodes[row] as string;
    if (text !== '' && !unicode.includes(text) && !(labels[row] as string).includes(text)) continue;
    if (query.mostLetters !== null && unicode.length > query.mostLetters) continue;
    if (query.mostMinor !== null && !(priceOf(view, row, query) <= query.mostMinor)) continue;
    if (
      query.filter === 'changed'
        ? !changedRows.has(row)
        : query.filter !== 'all' && !hasLetter(view, row, FILTER_LETTERS[query.filter])
    )
      continue;
    rows.push(row);
  }
  return Uint32Array.from(sorted(view, rows, query));
}

function hasLetter({ cells, width }: CandidateView, row: number, letters: string): boolean {
  for (let cell = row * width; cell < (row + 1) * width; cell += 1)
    if (letters.includes(cells[cell] as string)) return true;
  return false;
}

/** The price a row is sorted and filtered by: under one ending, or the cheapest. NaN where there is none. */
function priceOf(
  { prices, cheapest, width }: CandidateView,
  row: number,
  { sort }: Pick<CandidateQuery, 'sort'>,
): number {
  const column = typeof sort === 'number' ? sort : (cheapest[row] as number);
  return column < 0 ? Number.NaN : (prices[row * width + column] as number);
}

function sorted(view: CandidateView, rows: number[], query: CandidateQuery): number[] {
  const { sort, descending } = query;
  const sign = descending ? -1 : 1;
  if (sort === 'as made') return descending ? rows.reverse() : rows;
  if (sort === 'label') {
    const collator = new Intl.Collator('en');
    return rows.sort((a, b) => sign * collator.compare(view.unicodes[a] as string, view.unicodes[b] as string));
  }
  const keyOf = (row: number) =>
    sort === 'length' ? (view.unicodes[row] as string).length : priceOf(view, row, query);
  const keys = new Map(rows.map((row) => [row, keyOf(row)]));
  return rows.sort((a, b) => {
    const [one, other] = [keys.get(a) as number, keys.get(b) as number];
    if (Number.isNaN(one) || Number.isNaN(other))
      return Number(Number.isNaN(one)) - Number(Number.isNaN(other)) || a - b;
    return sign * (one - other) || a - b;
  });
}

/** What a table comes to, for its foot. */
export interface CandidateTotals {
  readonly candidates: number;
  readonly names: number;
  readonly toBeHad: number;
  readonly taken: number;
  readonly notKnown: number;
}

export function candidateTotals({ cells, width }: CandidateView, rows: Uint32Array): CandidateTotals {
  let [toBeHad, taken, notKnown] = [0, 0, 0];
  for (const row of rows)
    for (let cell = row * width; cell < (row + 1) * width; cell += 1) {
      const letter = cells[cell] as string;
      if ('aph'.includes(letter)) toBeHad += 1;
      else if (letter === 't') taken += 1;
      else if ('u-'.includes(letter)) notKnown += 1;
    }
  return { candidates: rows.length, names: rows.length * width, toBeHad, taken, notKnown };
}
