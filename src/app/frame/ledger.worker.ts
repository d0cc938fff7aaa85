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
let matching: Places = new Int32Array(0);
let order: Arrangement | null = null;
/** The day that the last arrangement was made for: of the ledger as it was then, by whose places it goes. */
let shown: LedgerDay | null = null;

const arrangedRows = (from: number, to: number): RowView[] => {
  const ledger = shown;
  if (!ledger || !order) return [];
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
  day === current().asOf ? todayOf(current()) : ahead.on(current(), day, shown);

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
  if (response.status === 304 && meta) return meta;
  if (!response.ok) throw new Error(`the ledger answered ${response.status}`);
  const etag = response.headers.get('etag');
  if (meta && etag === version) {
    await response.body?.cancel();
    return meta;
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
  prepareAhead(projection);
  meta = {
    revision: data.revision,
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

const ledgerToday = () => ledgerOn(current().asOf);

/** Reads tomorrow once the ledger is on screen, so that the first move of the date is as quick as the next. */
function prepareAhead(ledger: Projection): void {
  setTimeout(() => {
    if (projection === ledger) ledgerOn(addDays(ledger.asOf, 1));
  }, PREPARE_AFTER_MS);
}

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
    matching = matchingPlaces(ledger, ledgerView);
    order = arrange(ledger, matching, ledgerView);
    shown = ledger;
    setTimeout(() => ahead.foresee(shown));
    return { total: order.total, rows: arrangedRows(from, to) };
  },

  /** The sums under the last arrangement, on the day it was made for; `null` when another was asked for meanwhile, which goes first. */
  async arrangedTotals(day: Instant): Promise<Totals | null> {
    const [ledger, places] = [shown, matching];
    if (ledger?.day !== day) return null;
    let sums: Totals | null = null;
    for (sums of totalsInSteps(ledger, places)) {
      await new Promise((goOn) => setTimeout(goOn));
      if (shown !== ledger || matching !== places) return null;
    }
    return sums;
  },

  /** Rows of the last arrangement. */
  rows(from: number, to: number): RowView[] {
    return arrangedRows(from, to);
  },

  /** Ids of the rows of the last arrangement, in its order. */
  ids(from: number, to: number): number[] {
    const id = shown?.projection.names.columns.id;
    return Array.from(order?.slice(from, to) ?? [], (place) => id?.[place] as number);
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
    const ordered = (shown?.projection === ledger && order?.slice(0, order.total)) || new Int32Array(0);
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
