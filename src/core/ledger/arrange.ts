import type { Amount } from '../money';
import { addDays, dayOf, endOfDay, type Instant, type TermEnd } from '../time';
import type { LedgerRow } from './projection';
import type { LedgerView, SortKey } from './view';

/** The rows that the view's filters keep. `asOf` is the day the rows were read on. */
export function matchingRows(
  rows: readonly LedgerRow[],
  view: LedgerView,
  homeCurrency: string,
  asOf: Instant,
): readonly LedgerRow[] {
  const tests: ((row: LedgerRow) => boolean)[] = [];
  const within = <T>(values: readonly T[], of: (row: LedgerRow) => T) => {
    if (values.length === 0) return;
    const set = new Set(values);
    tests.push((row) => set.has(of(row)));
  };
  if (view.text !== '') {
    const text = view.text.trim().toLowerCase();
    tests.push(
      ({ name }) =>
        name.ascii.includes(text) ||
        (name.unicode !== name.ascii && name.unicode.includes(text)) ||
        (name.notes !== '' && name.notes.toLowerCase().includes(text)),
    );
  }
  within(view.accountIds, (row) => row.name.accountId);
  within(view.endings, (row) => row.name.ending);
  within<string | null>(view.phases, (row) => row.phase);
  within(view.settings, (row) => row.setting);
  within(view.purposes, (row) => row.name.purpose);
  if (view.tags.length > 0) tests.push((row) => view.tags.some((tag) => row.name.tags.includes(tag)));
  if (view.dueWithinDays !== null) {
    const last = addDays(asOf, view.dueWithinDays);
    tests.push((row) => row.deadline !== null && row.deadline.at <= last);
  }
  range(view.costFrom, view.costTo, homeCurrency, (row) => row.deadline?.before ?? null, tests);
  range(view.askingFrom, view.askingTo, homeCurrency, (row) => row.name.asking, tests);
  if (view.forSale !== null) tests.push((row) => (row.name.purpose === 'for sale') === view.forSale);
  if (view.neverLost !== null) tests.push((row) => row.name.neverLost === view.neverLost);
  if (view.dateless) tests.push((row) => row.termEnd === null);
  return tests.length === 0 ? rows : rows.filter((row) => tests.every((test) => test(row)));
}

function range(
  from: number | null,
  to: number | null,
  currency: string,
  of: (row: LedgerRow) => Amount | null,
  tests: ((row: LedgerRow) => boolean)[],
): void {
  if (from === null && to === null) return;
  tests.push((row) => {
    const value = of(row);
    if (value === null || value.currency !== currency) return false;
    return value.minor >= (from ?? 0) && value.minor <= (to ?? Number.POSITIVE_INFINITY);
  });
}

/** Where an end stands among others as it is shown in a zone: a date alone begins that day there. */
function shownIn(zone: string): (end: TermEnd | null | undefined) => number | null {
  const known = new Map<number, number>();
  return (end) => {
    if (!end) return null;
    if (end.precision === 'instant' || zone === 'UTC') return end.at;
    let at = known.get(end.at);
    if (at === undefined) {
      at = endOfDay(dayOf(addDays(end.at, -1)), zone);
      known.set(end.at, at);
    }
    return at;
  };
}

/** The number a row is sorted by; what is unknown comes last. Money sorts within its currency. */
function numberFor(
  key: Exclude<SortKey, 'name' | WordKey>,
  row: LedgerRow,
  shown: ReturnType<typeof shownIn>,
): number | null {
  switch (key) {
    case 'deadline':
      return row.deadline?.at ?? null;
    case 'termEnd':
      return shown(row.termEnd);
    case 'registered':
      return shown(row.name.registered);
    case 'checked':
      return row.name.checkedAt;
    case 'cost':
      return row.deadline?.before?.minor ?? null;
    case 'perYear':
      return row.costs.perYear?.minor ?? null;
    case 'asking':
      return row.name.asking?.minor ?? null;
    case 'spent':
      return row.name.spent[0]?.minor ?? null;
  }
}

function wordFor(key: WordKey, row: LedgerRow, accountLabel: (id: number) => string): string {
  switch (key) {
    case 'account':
      return accountLabel(row.name.accountId);
    case 'ending':
      return row.name.ending;
    case 'auto':
      return row.setting;
    case 'phase':
      return row.phase ?? '';
  }
}

/** Where a row stands in an order: what it is sorted by there (`null` where that is not known, last either way), then its A-label. */
export type SortedAt = readonly [key: number | string | null, ascii: string];

type WordKey = 'account' | 'ending' | 'auto' | 'phase';
/** A key whose values are words. */
const isWord = (sort: SortKey): sort is WordKey =>
  sort === 'account' || sort === 'ending' || sort === 'auto' || sort === 'phase';

/** What tells where rows stand in the order of a view: the same order as `arrangeRows` makes, kept in words that outlive the rows. */
export function sortedAt(
  { sort }: Pick<LedgerView, 'sort'>,
  accountLabel: (id: number) => string,
  zone: string,
): (row: LedgerRow) => SortedAt {
  const shown = shownIn(zone);
  return (row) => {
    if (sort === 'name') return [null, row.name.ascii];
    return [isWord(sort) ? wordFor(sort, row, accountLabel) : numberFor(sort, row, shown), row.name.ascii];
  };
}

/**
 * The place of the first row behind `at` in rows that stand in the order of the view. A page that goes on from there neither skips nor
 * repeats a row that has kept its own place, whatever became of the row it ended with.
 */
export function placeBehind(
  rows: readonly LedgerRow[],
  at: SortedAt,
  { sort, descending }: Pick<LedgerView, 'sort' | 'descending'>,
  of: (row: LedgerRow) => SortedAt,
): number {
  const sign = descending ? -1 : 1;
  const isBehind = ([key, ascii]: SortedAt) => {
    if (sort !== 'name' && key !== at[0]) {
      if (key === null || at[0] === null) return key === null;
      return sign * (key > at[0] ? 1 : -1) > 0;
    }
    return sort === 'name' ? sign * (ascii > at[1] ? 1 : ascii < at[1] ? -1 : 0) > 0 : ascii > at[1];
  };
  let [low, high] = [0, rows.length];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (isBehind(of(rows[middle] as LedgerRow))) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Rows in an order that is worked out only as far as it is looked at. */
export interface Arrangement {
  readonly total: number;
  /** The rows from one place to another, the second not included. */
  slice(from: number, to: number): LedgerRow[];
}

/**
 * Rows in the order of the view's key, then by name, so that the order never depends on what came in. Names stand in a
 * projection in the order of their A-labels, so a row's place is its rank by name.
 */
export function arrangeRows(
  rows: readonly LedgerRow[],
  view: LedgerView,
  accountLabel: (id: number) => string,
  zone: string,
): Arrangement {
  const { sort, descending } = view;
  const sign = descending ? -1 : 1;
  const keys = new Float64Array(rows.length);
  if (sort === 'name') for (let i = 0; i < rows.length; i += 1) keys[i] = sign * (rows[i] as LedgerRow).place;
  else if (isWord(sort)) {
    const rank = ranks(rows.map((row) => wordFor(sort, row, accountLabel)));
    for (const [i, row] of rows.entries()) keys[i] = sign * (rank.get(wordFor(sort, row, accountLabel)) ?? 0);
  } else {
    const shown = shownIn(zone);
    for (let i = 0; i < rows.length; i += 1) {
      const value = numberFor(sort, rows[i] as LedgerRow, shown);
      keys[i] = value === null ? Number.POSITIVE_INFINITY : sign * value;
    }
  }
  return inOrder(rows, keys);
}

/** All rows in order. See `arrangeRows`. */
export function sortRows(
  rows: readonly LedgerRow[],
  view: LedgerView,
  accountLabel: (id: number) => string,
  zone: string,
): LedgerRow[] {
  return arrangeRows(rows, view, accountLabel, zone).slice(0, rows.length);
}

/**
 * Rows by key, equal keys by place. Key and place are packed into one number, since sorting numbers without a comparison
 * function is many times faster, and only the places that are asked for are sorted: this must keep up with the hand on a
 * long list. Exact for up to 94 million rows (the root of 2^53); more are refused.
 */
function inOrder(rows: readonly LedgerRow[], keys: Float64Array): Arrangement {
  let span = 1;
  let least = Number.POSITIVE_INFINITY;
  let most = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < rows.length; i += 1) {
    span = Math.max(span, (rows[i] as LedgerRow).place + 1);
    const key = keys[i] as number;
    if (key === Number.POSITIVE_INFINITY) continue;
    least = Math.min(least, key);
    most = Math.max(most, key);
  }
  if (most < least) [least, most] = [0, 0];
  // Unknown values stand one behind the last; keys too far apart to be packed are replaced by their rank.
  const fits = (most - least + 2) * span < Number.MAX_SAFE_INTEGER;
  const sorted = fits ? null : keys.slice().sort();
  if (sorted && (rows.length + 1) * span >= Number.MAX_SAFE_INTEGER)
    throw new RangeError('too many rows to be put in order');
  const byPlace = new Array<LedgerRow>(span);
  const packed = new Float64Array(rows.length);
  for (let i = 0; i < rows.length; i += 1) {
    const row = rows[i] as LedgerRow;
    const key = keys[i] as number;
    byPlace[row.place] = row;
    packed[i] = (sorted ? firstAt(sorted, key) : Math.min(key, most + 1) - least) * span + row.place;
  }
  let settled = 0;
  const settle = (to: number) => {
    if (to <= settled) return;
    const end = to < rows.length / 4 ? to : rows.length;
    if (end < rows.length) bringForward(packed, settled, end);
    packed.subarray(settled, end).sort();
    settled = end;
  };
  return {
    total: rows.length,
    slice(from, to) {
      settle(Math.min(to, rows.length));
      return Array.from(
        packed.subarray(from, Math.max(from, to)),
        (value) => byPlace[value - Math.floor(value / span) * span] as LedgerRow,
      );
    },
  };
}

/** Moves the least values of `values` from `start` on to the places before `end`, in no order (Hoare's selection). */
function bringForward(values: Float64Array, start: number, end: number): void {
  let low = start;
  let high = values.length - 1;
  while (low < high) {
    const pivot = values[(low + high) >>> 1] as number;
    let [left, right] = [low, high];
    while (left <= right) {
      while ((values[left] as number) < pivot) left += 1;
      while ((values[right] as number) > pivot) right -= 1;
      if (left > right) break;
      const kept = values[left] as number;
      values[left] = values[right] as number;
      values[right] = kept;
      left += 1;
      right -= 1;
    }
    if (end <= right) high = right;
    else if (end > left) low = left;
    else return;
  }
}

/** Where `value` first stands in a sorted list. */
function firstAt(sorted: Float64Array, value: number): number {
  let low = 0;
  let high = sorted.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if ((sorted[middle] as number) < value) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The rank of each word among all of them. */
function ranks(words: readonly string[]): Map<string, number> {
  return new Map([...new Set(words)].sort().map((word, rank) => [word, rank]));
}
