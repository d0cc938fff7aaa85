import type { LedgerColumns } from './columns';
import type { NameTable } from './nameTable';

/**
 * The columns of a ledger after some names have changed: `fresh` are those of `ids` that are still in it, as they are now. Names that are
 * among `ids` and not among them have gone.
 */
export function mergeColumns(known: NameTable, fresh: NameTable, ids: ReadonlySet<number>): LedgerColumns {
  const places = placesKept(known, fresh, ids);
  return places ? patched(known, fresh, places) : mergedAnew(known, fresh, ids);
}

/** The place of each fresh name among the known ones, where no name has come, gone or taken another place; else `null`. */
function placesKept(known: NameTable, fresh: NameTable, ids: ReadonlySet<number>): Int32Array | null {
  if (fresh.length !== ids.size) return null;
  const places = new Int32Array(fresh.length);
  for (let i = 0; i < fresh.length; i += 1) {
    const place = insertionPlace(known, fresh.ascii(i));
    if (place === known.length || known.ascii(place) !== fresh.ascii(i)) return null;
    if (known.columns.id[place] !== fresh.columns.id[i]) return null;
    places[i] = place;
  }
  return places;
}

/** The columns with what is new of the names at some places: mostly one name of hundreds of thousands, so the others are not looked at. */
function patched(known: NameTable, fresh: NameTable, places: Int32Array): LedgerColumns {
  const [old, now] = [known.columns, fresh.columns];
  const numbers = <T extends Int32Array | Float64Array | Uint16Array | Uint8Array>(
    of: (columns: LedgerColumns) => T,
    code: (value: number) => number = (value) => value,
  ): T => {
    const made = of(old).slice() as T;
    for (const [i, place] of places.entries()) made[place] = code(of(now)[i] as number);
    return made;
  };
  const endings = joined(old.endings, now.endings);
  const currencies = joined(old.currencies, now.currencies);
  const tags = joined(old.tagLists, now.tagLists);
  const statuses = joined(old.statusLists, now.statusLists);
  return {
    ascii: old.ascii,
    id: old.id,
    accountId: numbers(({ accountId }) => accountId),
    endings: endings.values,
    ending: numbers(({ ending }) => ending, endings.code),
    flags: numbers(({ flags }) => flags),
    registered: numbers(({ registered }) => registered),
    termEnd: numbers(({ termEnd }) => termEnd),
    settingSince: numbers(({ settingSince }) => settingSince),
    checkedAt: numbers(({ checkedAt }) => checkedAt),
    currencies: currencies.values,
    asking: numbers(({ asking }) => asking),
    askingCurrency: numbers(({ askingCurrency }) => askingCurrency, currencies.code),
    spent: patchedSpent(known, fresh, places, currencies.code),
    tagLists: tags.values,
    tags: numbers((columns) => columns.tags, tags.code),
    statusLists: statuses.values,
    statuses: numbers((columns) => columns.statuses, statuses.code),
    sparse: patchedSparse(old, now, places),
  };
}

/** What was spent: the lines between the changed names are taken as they lie. */
function patchedSpent(
  known: NameTable,
  fresh: NameTable,
  places: Int32Array,
  code: (value: number) => number,
): LedgerColumns['spent'] {
  const [old, now] = [known.columns.spent, fresh.columns.spent];
  const most = old.place.length + now.place.length;
  const [place, minor, currency] = [new Int32Array(most), new Float64Array(most), new Uint8Array(most)];
  let [size, next] = [0, 0];
  const takeOld = (until: number) => {
    place.set(old.place.subarray(next, until), size);
    minor.set(old.minor.subarray(next, until), size);
    currency.set(old.currency.subarray(next, until), size);
    size += until - next;
  };
  for (const [i, at] of places.entries()) {
    const [from, to] = known.spentLines(at);
    takeOld(from);
    next = to;
    const [first, last] = fresh.spentLines(i);
    for (let line = first; line < last; line += 1) {
      place[size] = at;
      minor[size] = now.minor[line] as number;
      currency[size] = code(now.currency[line] as number);
      size += 1;
    }
  }
  takeOld(old.place.length);
  return { place: place.slice(0, size), minor: minor.slice(0, size), currency: currency.slice(0, size) };
}

/** What only few names have: a column of it is copied where one of the changed names has it, or had it. */
function patchedSparse(old: LedgerColumns, now: LedgerColumns, places: Int32Array): LedgerColumns['sparse'] {
  const one = (what: keyof LedgerColumns['sparse']) => {
    const [before, fresh] = [old.sparse[what] as Record<number, unknown>, now.sparse[what] as Record<number, unknown>];
    if (!places.some((place, i) => place in before || i in fresh)) return before;
    const made = { ...before };
    for (const [i, place] of places.entries()) {
      if (i in fresh) made[place] = fresh[i];
      else delete made[place];
    }
    return made;
  };
  const keys = Object.keys(old.sparse) as (keyof LedgerColumns['sparse'])[];
  return Object.fromEntries(keys.map((what) => [what, one(what)])) as unknown as LedgerColumns['sparse'];
}

function mergedAnew(known: NameTable, fresh: NameTable, ids: ReadonlySet<number>): LedgerColumns {
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
