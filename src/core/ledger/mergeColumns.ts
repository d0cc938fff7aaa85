import type { LedgerColumns } from './columns';
import type { NameTable } from './nameTable';

/**
 * The columns of a ledger after some names have changed: `fresh` are those of `ids` that are still in it, as they are now. Names that are
 * among `ids` and not among them have gone.
 */
export function mergeColumns(known: NameTable, fresh: NameTable, ids: ReadonlySet<number>): LedgerColumns {
  const sources = mergedPlaces(known, fresh, ids);
  const [old, now] = [known.columns, fresh.columns];
  /** A column of the merged ledger: `code` puts what is new in the numbers of the old dictionary. */
  const numbers = <T extends { [place: number]: number }>(
    made: T,
    of: (columns: LedgerColumns) => ArrayLike<number>,
    code: (value: number) => number = (value) => value,
  ): T => {
    const [from, fromNew] = [of(old), of(now)];
    for (let place = 0; place < sources.length; place += 1) {
      const source = sources[place] as number;
      made[place] = source >= 0 ? (from[source] as number) : code(fromNew[-1 - source] as number);
    }
    return made;
  };
  const size = sources.length;
  const endings = joined(old.endings, now.endings);
  const currencies = joined(old.currencies, now.currencies);
  const tags = joined(old.tagLists, now.tagLists);
  const statuses = joined(old.statusLists, now.statusLists);
  return {
    ascii: Array.from(sources, (source) => `${source >= 0 ? known.ascii(source) : fresh.ascii(-1 - source)}\n`).join(
      '',
    ),
    id: numbers(new Int32Array(size), ({ id }) => id),
    accountId: numbers(new Int32Array(size), ({ accountId }) => accountId),
    endings: endings.values,
    ending: numbers(new Uint16Array(size), ({ ending }) => ending, endings.code),
    flags: numbers(new Int32Array(size), ({ flags }) => flags),
    registered: numbers(new Float64Array(size), ({ registered }) => registered),
    termEnd: numbers(new Float64Array(size), ({ termEnd }) => termEnd),
    settingSince: numbers(new Float64Array(size), ({ settingSince }) => settingSince),
    checkedAt: numbers(new Float64Array(size), ({ checkedAt }) => checkedAt),
    currencies: currencies.values,
    asking: numbers(new Float64Array(size), ({ asking }) => asking),
    // Where nothing is asked the number says nothing.
    askingCurrency: numbers(new Uint8Array(size), ({ askingCurrency }) => askingCurrency, currencies.code),
    spent: mergedSpent(known, fresh, sources, currencies.code),
    tagLists: tags.values,
    tags: numbers(new Int32Array(size), (columns) => columns.tags, tags.code),
    statusLists: statuses.values,
    statuses: numbers(new Int32Array(size), (columns) => columns.statuses, statuses.code),
    sparse: mergedSparse(old, now, sources),
  };
}

/** Where each name of the merged ledger comes from: its place in the old one, or below nothing `-1 - place` in what is new. */
function mergedPlaces(known: NameTable, fresh: NameTable, ids: ReadonlySet<number>): Int32Array {
  const sources = new Int32Array(known.length + fresh.length);
  let [size, next] = [0, 0];
  const takeNew = (before: string | null) => {
    for (; next < fresh.length && (before === null || fresh.ascii(next) < before); next += 1) {
      sources[size] = -1 - next;
      size += 1;
    }
  };
  // New names are few: the old ones are looked at as texts only next to them.
  const places = Array.from({ length: fresh.length }, (_, place) => insertionPlace(known, fresh.ascii(place)));
  for (let place = 0; place < known.length; place += 1) {
    if (next < fresh.length && (places[next] as number) <= place) takeNew(known.ascii(place));
    if (ids.has(known.columns.id[place] as number)) continue;
    sources[size] = place;
    size += 1;
  }
  takeNew(null);
  return sources.slice(0, size);
}

/** The first place whose A-label is not before this one. */
function insertionPlace(names: NameTable, ascii: string): number {
  let [low, high] = [0, names.length];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (names.ascii(middle) < ascii) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** A dictionary with what another one has besides, and the numbers of that one's values in it. */
function joined<T>(
  old: readonly T[],
  now: readonly T[],
): { readonly values: readonly T[]; readonly code: (value: number) => number } {
  const values = [...old];
  const known = new Map(old.map((value, code) => [JSON.stringify(value), code]));
  const codes = now.map((value) => known.get(JSON.stringify(value)) ?? values.push(value) - 1);
  return { values, code: (value) => codes[value] ?? 0 };
}

function mergedSpent(
  known: NameTable,
  fresh: NameTable,
  sources: Int32Array,
  code: (value: number) => number,
): LedgerColumns['spent'] {
  const most = known.columns.spent.place.length + fresh.columns.spent.place.length;
  const [place, minor, currency] = [new Int32Array(most), new Float64Array(most), new Uint8Array(most)];
  let size = 0;
  for (const [at, source] of sources.entries()) {
    const isOld = source >= 0;
    const names = isOld ? known : fresh;
    const { spent } = names.columns;
    const [from, to] = names.spentLines(isOld ? source : -1 - source);
    for (let line = from; line < to; line += 1) {
      place[size] = at;
      minor[size] = spent.minor[line] as number;
      currency[size] = isOld ? (spent.currency[line] as number) : code(spent.currency[line] as number);
      size += 1;
    }
  }
  return { place: place.slice(0, size), minor: minor.slice(0, size), currency: currency.slice(0, size) };
}

/** What only few names have, by the places in the merged ledger. */
function mergedSparse(old: LedgerColumns, now: LedgerColumns, sources: Int32Array): LedgerColumns['sparse'] {
  const places = new Int32Array(old.id.length).fill(-1);
  const newPlaces = new Int32Array(now.id.length).fill(-1);
  for (const [at, source] of sources.entries()) {
    if (source >= 0) places[source] = at;
    else newPlaces[-1 - source] = at;
  }
  const merged = (what: keyof LedgerColumns['sparse']) => {
    const found: Record<number, unknown> = {};
    const take = (values: Readonly<Record<number, unknown>>, to: Int32Array) => {
      for (const [place, value] of Object.entries(values)) {
        const at = to[Number(place)] as number;
        if (at >= 0) found[at] = value;
      }
    };
    take(old.sparse[what], places);
    take(now.sparse[what], newPlaces);
    return found;
  };
  const keys = Object.keys(old.sparse) as (keyof LedgerColumns['sparse'])[];
  return Object.fromEntries(keys.map((what) => [what, merged(what)])) as unknown as LedgerColumns['sparse'];
}
