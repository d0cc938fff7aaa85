import { expose } from 'comlink';
import {
  arrange,
  bestPaths,
  contradictionsOn,
  countUrgent,
  type FoundName,
  findNames,
  fundingOf,
  indexRules,
  type Lacking,
  type LedgerDay,
  type LedgerRow,
  type LedgerView,
  lifecycleStrip,
  matchingPlaces,
  mergeColumns,
  moveSaving,
  NameTable,
  namesLacking,
  type PricesAsked,
  type Projection,
  policyOf,
  pricesOfEnding,
  projectIf,
  projectLedger,
  queryFromView,
  replayLedger,
  requestedPlaces,
  rowsOn,
  type Totals,
  todayOf,
  totalsInSteps,
  totalsOf,
  unknownsOf,
  type WeighedOffer,
  type WhatIf,
  weighOffer,
} from '@/core/ledger';
import type { PlanAsked } from '@/core/moving';
import { type Arrangement, type Places, unpacked } from '@/core/table';
import { addDays, type Instant, instant } from '@/core/time';
import type { LedgerBody } from '@/usecases/names/ledger';
import { DaysAhead } from './daysAhead';
import { fundingView } from './fundingView';
import { judgingWork } from './judgingWork';
import { listingsWork } from './listingsWork';
import { planView } from './planView';
import { priceLines } from './priceLines';
import { todayView } from './todayView';
import type {
  Arranged,
  ContradictingRow,
  EndingView,
  FundingView,
  LedgerMeta,
  NameView,
  PlannedNames,
  PlanView,
  PriceLineView,
  RowView,
  TodayView,
} from './views';

let meta: LedgerMeta | null = null;
let version: string | null = null;
let projection: Projection | null = null;

/** The ledger on a day as a view shows it: which names, in which order. By the places of the ledger as it was then. */
interface Shown {
  readonly ledger: LedgerDay;
  readonly view: LedgerView;
  readonly matching: Places;
  readonly order: Arrangement;
}

/** What was arranged last. */
let shown: Shown | null = null;
/** What comes next, should the date go on as it moves. */
let foreseen: Shown | null = null;

function shownBy(ledger: LedgerDay, view: LedgerView): Shown {
  const matching = matchingPlaces(ledger, view);
  return { ledger, view, matching, order: arrange(ledger, matching, view) };
}

const isSameView = (a: LedgerView, b: LedgerView) => `${queryFromView(a)}` === `${queryFromView(b)}`;

/** Arranges a day before it is asked for, as far as it will be looked at. */
function foresee(ledger: LedgerDay | null, view: LedgerView, from: number, to: number): void {
  if (!ledger || foreseen?.ledger === ledger) return;
  foreseen = shownBy(ledger, view);
  foreseen.order.slice(from, to);
}

const arrangedRows = (from: number, to: number): RowView[] => {
  if (!shown) return [];
  const { ledger, order } = shown;
  return ledger.rows(order.slice(from, to)).map((row) => view(row, ledger.projection));
};

function view(row: LedgerRow, ledger: Projection): RowView {
  return { ...row, strip: lifecycleStrip(ledger, row.place), policy: policyOf(ledger, row.place) };
}

/** A row of the ledger as it is now. */
const seen = (row: LedgerRow): RowView => view(row, current());

function current(): Projection {
  if (!projection) throw new Error('the ledger has not been loaded');
  return projection;
}

const ahead = new DaysAhead();

const ledgerOn = (day: Instant): LedgerDay =>
  day === current().asOf ? todayOf(current()) : ahead.on(current(), day, shown?.ledger ?? null);

/** Asks for the ledger: the first time for all of it, which the browser may have kept, then for what has changed. */
function asked(): Promise<Response> {
  if (version === null || projection === null) return fetch('/ledger/data', { cache: 'no-cache' });
  const since = encodeURIComponent(version.replaceAll('"', ''));
  return fetch(`/ledger/data?since=${since}`, { cache: 'no-store', headers: { 'if-none-match': version } });
}

let loading: Promise<unknown> = Promise.resolve();

/** Fetches the ledger unless the copy here is still true. */
async function read(): Promise<LedgerMeta> {
  const response = await asked();
  const isBehind = response.headers.get('ledger-behind') === 'true';
  if (response.status === 304 && meta) return known(meta, isBehind);
  if (!response.ok) throw new Error(`the ledger answered ${response.status}`);
  const etag = response.headers.get('etag');
  if (meta && etag === version) {
    await response.body?.cancel();
    return known(meta, isBehind);
  }
  const data = unpacked<LedgerBody>(await response.arrayBuffer());
  const told = new NameTable(data.names);
  const { changed } = data;
  const names =
    changed === null || projection === null
      ? told
      : changed.length === 0
        ? projection.names
        : new NameTable(mergeColumns(projection.names, told, new Set(changed)), projection.names);
  version = etag;
  const asOf = instant(data.asOf);
  const index = indexRules(data.rules);
  projection =
    changed === null || projection === null
      ? projectLedger(index, names, asOf)
      : replayLedger(projection, index, names, changed, asOf);
  const now = ledgerToday();
  // Of an earlier ledger: it would be kept with it.
  foreseen = null;
  prepareAhead(projection);
  meta = {
    revision: data.revision,
    isBehind,
    asOf,
    rules: data.rules,
    names: names.length,
    unknowns: unknownsOf(now),
    urgent: countUrgent(now),
    unconfirmed: data.openRenewals + requestedPlaces(names).length,
    selling: data.selling,
    transfers: data.transfers,
    acquiring: data.acquiring,
  };
  return meta;
}

/** What is known already still holds. */
function known(before: LedgerMeta, isBehind: boolean): LedgerMeta {
  if (before.isBehind !== isBehind) meta = { ...before, isBehind };
  return meta ?? before;
}

const ledgerToday = () => ledgerOn(current().asOf);

/** Reads the day a week on once the ledger is on screen, as it is shown then: so the first move of the date is as quick as the next. */
function prepareAhead(ledger: Projection): void {
  setTimeout(() => {
    if (!shown || shown.ledger !== todayOf(ledger) || projection !== ledger) return;
    foresee(ahead.prepare(ledger, addDays(ledger.asOf, 7)), shown.view, 0, FIRST_ROWS);
  }, PREPARE_AFTER_MS);
}

const FIRST_ROWS = 60;
const PREPARE_AFTER_MS = 500;

/** The places of some ids; those that the ledger does not know are left out. */
const placesOf = (ids: readonly number[]): Places =>
  Int32Array.from(
    ids.flatMap((id) => {
      const place = current().names.placeOf(id);
      return place === undefined ? [] : [place];
    }),
  );

const api = {
  ...judgingWork({ today: ledgerToday, version: () => version, seen }),
  ...listingsWork(),

  /** Brings the ledger up to what it is now, and plays it forward. One reading comes after the other: none overtakes a later one. */
  load(): Promise<LedgerMeta> {
    const next = loading.then(read, read);
    loading = next;
    return next;
  },

  /** Filters and sorts the ledger as it stands on `day`, and answers the rows from `from` to `to`. */
  arrange(ledgerView: LedgerView, day: Instant, from: number, to: number): Arranged {
    const ledger = ledgerOn(day);
    const now =
      foreseen?.ledger === ledger && isSameView(foreseen.view, ledgerView) ? foreseen : shownBy(ledger, ledgerView);
    shown = now;
    setTimeout(() => shown === now && foresee(ahead.foresee(ledger), ledgerView, from, to));
    return { total: now.order.total, rows: arrangedRows(from, to) };
  },

  /** The sums under the last arrangement, on the day it was made for; `null` when another was asked for meanwhile, which goes first. */
  async arrangedTotals(day: Instant): Promise<Totals | null> {
    const now = shown;
    if (now?.ledger.day !== day) return null;
    let sums: Totals | null = null;
    for (sums of totalsInSteps(now.ledger, now.matching)) {
      await new Promise((goOn) => setTimeout(goOn));
      if (shown !== now) return null;
    }
    return sums;
  },

  /** Rows of the last arrangement. */
  rows(from: number, to: number): RowView[] {
    return arrangedRows(from, to);
  },

  /** Ids of the rows of the last arrangement, in its order. */
  ids(from: number, to: number): number[] {
    if (!shown) return [];
    const { id } = shown.ledger.projection.names.columns;
    return Array.from(shown.order.slice(from, to), (place) => id[place] as number);
  },

  /** Chosen names on `day`, whatever the arrangement. */
  rowsOf(ids: readonly number[], day: Instant): RowView[] {
    return Array.from(placesOf(ids), rowsOn(current(), day)).map(seen);
  },

  /** Names whose registrar has been asked to switch something and has not confirmed. */
  requested(day: Instant): RowView[] {
    return requestedPlaces(current().names).map(rowsOn(current(), day)).map(seen);
  },

  /** What needs a decision today, by what doing nothing leads to, and the line of time of the next days. */
  today(limit: number): TodayView {
    return todayView(ledgerToday(), limit, seen);
  },

  /** What every ending of the price lists costs at each account over so many years. */
  prices(asked: PricesAsked, years: number): PriceLineView[] {
    return priceLines(current().index, asked, years);
  },

  /** One ending in full: every account's totals and payments, and the cheapest way of all. */
  pricesOf(ending: string, asked: PricesAsked): EndingView {
    const { index } = current();
    return { ...pricesOfEnding(index, ending, asked), best: bestPaths(index, ending, asked) };
  },

  /** Which of some names to move where and when, today. */
  plan(which: PlannedNames, asked: PlanAsked): PlanView {
    return planView(ledgerToday(), which, asked);
  },

  /** An offer of its old registrar to keep a name, against moving it. */
  weighOffer(nameId: number, wish: Parameters<typeof weighOffer>[3]): WeighedOffer | null {
    const { index, asOf } = current();
    const place = current().names.placeOf(nameId);
    const row = place === undefined ? null : ledgerToday().row(place);
    return row ? weighOffer(index, row, asOf, wish) : null;
  },

  /** Every account's coming charges up to `until`. */
  funding(until: Instant): FundingView[] {
    const ledger = current();
    return fundingOf(ledger, until).map((funding) => fundingView(ledger, funding));
  },

  /** One account's charges up to `until`, if it were changed: nothing is. */
  whatIf(thought: WhatIf, until: Instant): FundingView | null {
    const changed = projectIf(current(), thought);
    const [funding] = fundingOf(changed, until);
    return funding ? fundingView(changed, funding) : null;
  },

  /** Every name's A-label. */
  everyName(): string[] {
    return current().names.columns.ascii.split('\n').slice(0, -1);
  },

  /** Names of which nobody has said when the term ends, or whether they are renewed by themselves; not those that are let go. */
  unknownNames(what: Lacking, limit: number): RowView[] {
    return namesLacking(ledgerToday(), what, limit).map(seen);
  },

  /** Names whose setting contradicts what is wanted of them, today. */
  contradictions(limit: number): ContradictingRow[] {
    return contradictionsOn(ledgerToday(), limit).map(({ row, contradiction }) => ({ row: seen(row), contradiction }));
  },

  totals(ids: readonly number[], day: Instant): Totals {
    return totalsOf(ledgerOn(day), placesOf(ids));
  },

  /** One name by its A-label, on `day`, with its neighbours in the last arrangement. */
  name(ascii: string, day: Instant): NameView | null {
    const ledger = current();
    const { names } = ledger;
    const place = names.placeOfAscii(ascii);
    if (place < 0) return null;
    const ordered = shown?.ledger.projection === ledger ? shown.order.slice(0, shown.order.total) : new Int32Array(0);
    const at = ordered.indexOf(place);
    const row = rowsOn(ledger, day)(place);
    const neighbour = (i: number) => (ordered[i] === undefined ? null : names.ascii(ordered[i]));
    return {
      row: seen(row),
      saving: moveSaving(ledger.index, row, day),
      place: at,
      total: ordered.length,
      before: neighbour(at - 1),
      after: at < 0 ? null : neighbour(at + 1),
    };
  },

  /** Up to `limit` names that hold `text`, those that begin with it first. */
  find(text: string, limit: number): FoundName[] {
    return projection ? findNames(projection.names, text, limit) : [];
  },
};

export type LedgerWorker = typeof api;
expose(api);
