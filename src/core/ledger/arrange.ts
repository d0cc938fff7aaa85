import { AUTO_RENEW_SETTINGS } from '../funding';
import { PHASES } from '../lifecycle';
import { type Arrangement, byPlace, inOrder, type Places, ranksOf } from '../table';
import { addDays, dayOf, endOfDay, type Instant } from '../time';
import { flagReader } from './columns';
import type { LedgerDay } from './ledgerDay';
import type { LedgerView, SortKey } from './view';

/** Where ends stand among others as they are shown in a zone: a date alone begins that day there. */
function shownIn(zone: string): (at: number, isDay: number) => number {
  if (zone === 'UTC') return (at) => at;
  const known = new Map<number, number>();
  return (at, isDay) => {
    if (isDay === 0 || Number.isNaN(at)) return at;
    let shown = known.get(at);
    if (shown === undefined) {
      shown = endOfDay(dayOf(addDays(at as Instant, -1)), zone);
      known.set(at, shown);
    }
    return shown;
  };
}

type WordKey = 'account' | 'ending' | 'auto' | 'phase';
type NumberKey = Exclude<SortKey, 'name' | WordKey>;
/** A key whose values are words. */
const isWord = (sort: SortKey): sort is WordKey =>
  sort === 'account' || sort === 'ending' || sort === 'auto' || sort === 'phase';

/** The number that a name is sorted by, by place; not finite where it is not known. Money sorts within its currency. */
function numbersFor(key: NumberKey, ledger: LedgerDay): (place: number) => number {
  const { names, index } = ledger.projection;
  const { columns } = names;
  const shown = shownIn(index.rules.zone);
  const [endDay, registeredDay] = [flagReader('termEndDay'), flagReader('registeredDay')];
  const flags = (place: number) => columns.flags[place] as number;
  switch (key) {
    case 'deadline':
      return (place) => ledger.deadlineAt[place] as number;
    case 'termEnd':
      return (place) => shown(ledger.termEnd[place] as number, endDay(flags(place)));
    case 'registered':
      return (place) => shown(columns.registered[place] as number, registeredDay(flags(place)));
    case 'checked':
      return (place) => columns.checkedAt[place] as number;
    case 'cost':
      return (place) => ledger.before(place)?.minor ?? Number.NaN;
    case 'perYear':
      return (place) => ledger.costs(place).perYear?.minor ?? Number.NaN;
    case 'asking':
      return (place) => columns.asking[place] as number;
    case 'spent':
      return (place) => {
        const [from, to] = names.spentLines(place);
        return from < to ? (columns.spent.minor[from] as number) : Number.NaN;
      };
  }
}

/** The word that a name is sorted by, by place. */
function wordsFor(key: WordKey, ledger: LedgerDay): (place: number) => string {
  const { names, index } = ledger.projection;
  switch (key) {
    case 'account':
      return (place) => index.accounts.get(names.accountId(place))?.label ?? '';
    case 'ending':
      return (place) => names.ending(place);
    case 'auto':
      return (place) => AUTO_RENEW_SETTINGS[ledger.setting[place] as number] as string;
    case 'phase':
      return (place) => PHASES[(ledger.phase[place] as number) - 1] ?? '';
  }
}

/** What is the same for all names that sort alike by a word: so many of them are few, and are ranked once. */
function codesFor(key: WordKey, ledger: LedgerDay): ArrayLike<number> {
  const { columns } = ledger.projection.names;
  return key === 'account'
    ? columns.accountId
    : key === 'ending'
      ? columns.ending
      : key === 'auto'
        ? ledger.setting
        : ledger.phase;
}

/** Where a name stands in an order: what it is sorted by there (`null` where that is not known, last either way), then its A-label. */
export type SortedAt = readonly [key: number | string | null, ascii: string];

/** What tells where names stand in the order of a view: the same order as `arrange` makes, kept in words that outlive the ledger. */
export function sortedAt(ledger: LedgerDay, { sort }: Pick<LedgerView, 'sort'>): (place: number) => SortedAt {
  const { names } = ledger.projection;
  if (sort === 'name') return (place) => [null, names.ascii(place)];
  if (isWord(sort)) {
    const word = wordsFor(sort, ledger);
    return (place) => [word(place), names.ascii(place)];
  }
  const number = numbersFor(sort, ledger);
  return (place) => {
    const value = number(place);
    return [Number.isFinite(value) ? value : null, names.ascii(place)];
  };
}

/**
 * Where the first name behind `at` stands among places in the order of the view. A page that goes on from there neither skips nor
 * repeats a name that has kept its own place, whatever became of the name it ended with.
 */
export function placeBehind(
  places: Places,
  at: SortedAt,
  { sort, descending }: Pick<LedgerView, 'sort' | 'descending'>,
  of: (place: number) => SortedAt,
): number {
  const sign = descending ? -1 : 1;
  const isBehind = ([key, ascii]: SortedAt) => {
    if (sort !== 'name' && key !== at[0]) {
      if (key === null || at[0] === null) return key === null;
      return sign * (key > at[0] ? 1 : -1) > 0;
    }
    return sort === 'name' ? sign * (ascii > at[1] ? 1 : ascii < at[1] ? -1 : 0) > 0 : ascii > at[1];
  };
  let [low, high] = [0, places.length];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (isBehind(of(places[middle] as number))) high = middle;
    else low = middle + 1;
  }
  return low;
}

/**
 * Names in the order of the view's key, then by name, so that the order never depends on what came in. Names stand in a
 * ledger in the order of their A-labels, so a name's place is its rank by name.
 */
export function arrange(
  ledger: LedgerDay,
  places: Places,
  { sort, descending }: Pick<LedgerView, 'sort' | 'descending'>,
): Arrangement {
  if (sort === 'name') return byPlace(places, descending);
  const sign = descending ? -1 : 1;
  const keys = new Float64Array(places.length);
  if (isWord(sort)) {
    const codes = codesFor(sort, ledger);
    const rank = ranksOf(codes, wordsFor(sort, ledger), places);
    for (let i = 0; i < places.length; i += 1) keys[i] = sign * (rank[codes[places[i] as number] as number] as number);
  } else {
    const number = numbersFor(sort, ledger);
    for (let i = 0; i < places.length; i += 1) {
      const value = number(places[i] as number);
      keys[i] = Number.isFinite(value) ? sign * value : Number.POSITIVE_INFINITY;
    }
  }
  return inOrder(places, keys);
}

/** All of them in order. See `arrange`. */
export function arranged(ledger: LedgerDay, places: Places, view: Pick<LedgerView, 'sort' | 'descending'>): Places {
  return arrange(ledger, places, view).slice(0, places.length);
}
