import { expose } from 'comlink';
import {
  type Arrangement,
  arrangeRows,
  bestPaths,
  contradictionOf,
  EVERY_NAME,
  type FoundName,
  findNames,
  fundingOf,
  indexRules,
  isRequested,
  isUrgent,
  type Lacking,
  type LedgerColumns,
  type LedgerRow,
  type LedgerRules,
  type LedgerView,
  lifecycleStrip,
  matchingRows,
  moveSaving,
  namesFromColumns,
  namesLacking,
  type PricesAsked,
  type Projection,
  pricesOfEnding,
  projectIf,
  projectLedger,
  rowsOn,
  type Totals,
  totalsOf,
  unknownsOf,
  type WeighedOffer,
  type WhatIf,
  weighOffer,
  worthIn,
} from '@/core/ledger';
import type { Policy } from '@/core/lifecycle';
import type { PlanAsked } from '@/core/moving';
import { bestSet, intoBy, judgeAll, namesInDanger } from '@/core/rescue';
import { addDays, type Instant, instant } from '@/core/time';
import { fundingView } from './fundingView';
import { planView } from './planView';
import { priceLines } from './priceLines';
import { todayView } from './todayView';
import type {
  AllJudgedView,
  Arranged,
  ContradictingRow,
  EndingView,
  FundingView,
  LedgerMeta,
  NameView,
  PlannedNames,
  PlanView,
  PriceLineView,
  RescueView,
  RowView,
  TodayView,
} from './views';

let meta: LedgerMeta | null = null;
let version: string | null = null;
let projection: Projection | null = null;
let accountLabels = new Map<number, string>();
let matching: readonly LedgerRow[] = [];
let arranged: Arrangement = arrangeRows([], EVERY_NAME, String, 'UTC');
let placeById = new Map<number, number>();

function view(row: LedgerRow): RowView {
  const ledger = current();
  return { ...row, strip: lifecycleStrip(ledger, row.place), policy: ledger.policies[row.place] as Policy };
}

function current(): Projection {
  if (!projection) throw new Error('the ledger has not been loaded');
  return projection;
}

interface DayRows {
  readonly projection: Projection;
  readonly day: Instant;
  readonly rows: readonly LedgerRow[];
}

/** Every row today, and on the last later day: kept, since filters and sorting change neither. */
let today: DayRows | null = null;
let ahead: DayRows | null = null;

function rowsAsOf(day: Instant): readonly LedgerRow[] {
  const ledger = current();
  const kept = day === ledger.asOf ? today : ahead;
  const earlier = kept?.projection === ledger ? kept : null;
  if (earlier?.day === day) return earlier.rows;
  const read = rowsOn(ledger, day, earlier?.rows ?? []);
  const rows = { projection: ledger, day, rows: ledger.names.map((_, place) => read(place)) };
  if (day === ledger.asOf) today = rows;
  else ahead = rows;
  return rows.rows;
}

/** Reads tomorrow's rows once the ledger is on screen, so that the first move of the date is as quick as the next. */
function prepareAhead(ledger: Projection): void {
  setTimeout(() => {
    if (projection === ledger) rowsAsOf(addDays(ledger.asOf, 1));
  }, PREPARE_AFTER_MS);
}

const PREPARE_AFTER_MS = 500;

const api = {
  /** Fetches the ledger unless the copy here is still true, and plays it forward. */
  async load(): Promise<LedgerMeta> {
    const response = await fetch('/ledger/data', { cache: 'no-cache' });
    if (!response.ok) throw new Error(`the ledger answered ${response.status}`);
    const etag = response.headers.get('etag');
    if (meta && etag === version) {
      await response.body?.cancel();
      return meta;
    }
    version = etag;
    const data = (await response.json()) as {
      revision: number;
      asOf: string;
      rules: LedgerRules;
      names: LedgerColumns;
      openRenewals: number;
      selling: number;
      transfers: number;
      acquiring: number;
    };
    const names = namesFromColumns(data.names);
    const asOf = instant(data.asOf);
    projection = projectLedger(indexRules(data.rules), names, asOf);
    accountLabels = new Map(data.rules.accounts.map((account) => [account.id, account.label]));
    placeById = new Map(names.map((name, place) => [name.id, place]));
    const rows = rowsAsOf(asOf);
    const urgent = rows.reduce((count, row) => count + (isUrgent(row, asOf) ? 1 : 0), 0);
    const unconfirmed = data.openRenewals + names.filter(isRequested).length;
    prepareAhead(projection);
    meta = {
      revision: data.revision,
      asOf,
      rules: data.rules,
      names: names.length,
      unknowns: unknownsOf(rows, projection.index.accounts),
      urgent,
      unconfirmed,
      selling: data.selling,
      transfers: data.transfers,
      acquiring: data.acquiring,
    };
    return meta;
  },

  /** Filters and sorts the ledger as it stands on `day`, and answers the rows from `from` to `to`. */
  arrange(ledgerView: LedgerView, day: Instant, from: number, to: number): Arranged {
    const ledger = current();
    matching = matchingRows(rowsAsOf(day), ledgerView, ledger.index.rules.homeCurrency, day);
    const { zone } = ledger.index.rules;
    arranged = arrangeRows(matching, ledgerView, (id) => accountLabels.get(id) ?? '', zone);
    return { total: arranged.total, rows: arranged.slice(from, to).map(view) };
  },

  /** The sums under the last arrangement, on the day it was made for. */
  arrangedTotals(day: Instant): Totals {
    return totalsOf(current(), matching, day);
  },

  /** Rows of the last arrangement. */
  rows(from: number, to: number): RowView[] {
    return arranged.slice(from, to).map(view);
  },

  /** Ids of the rows of the last arrangement, in its order. */
  ids(from: number, to: number): number[] {
    return arranged.slice(from, to).map((row) => row.name.id);
  },

  /** Chosen names on `day`, whatever the arrangement. */
  rowsOf(ids: readonly number[], day: Instant): RowView[] {
    const read = rowsOn(current(), day);
    return ids.flatMap((id) => {
      const place = placeById.get(id);
      return place === undefined ? [] : [view(read(place))];
    });
  },

  /** Names whose registrar has been asked to switch something and has not confirmed. */
  requested(day: Instant): RowView[] {
    const ledger = current();
    const read = rowsOn(ledger, day);
    return ledger.names.flatMap((name, place) => (isRequested(name) ? [view(read(place))] : []));
  },

  /** What needs a decision today, by what doing nothing leads to, and the line of time of the next days. */
  today(limit: number): TodayView {
    const ledger = current();
    return todayView(ledger, rowsAsOf(ledger.asOf), limit, view);
  },

  /** What is past its term, or going there because nothing keeps it, with a verdict. */
  rescue(): RescueView {
    const ledger = current();
    const { asOf, index } = ledger;
    const worth = worthIn(index.rules, asOf);
    const rows = rowsAsOf(asOf);
    const judged = namesInDanger(rows, asOf, index.rules.odds, worth, intoBy(index.rules.rates, asOf));
    const those = (wanted: (row: LedgerRow) => boolean) => rows.filter(wanted).map(view);
    return {
      rows: judged.map(({ row, judgement }) => ({ row: view(row), judgement })),
      pendingDelete: those((row) => row.phase === 'pending delete'),
      refundable: those(
        (row) => row.phase === 'refundable' && index.accounts.get(row.name.accountId)?.refunds === true,
      ),
      dropping: those(
        (row) => row.name.purpose === 'drop' && row.phase !== 'pending delete' && row.phase !== 'available',
      ),
    };
  },

  /** Ids of the best set of names in danger under a budget of one currency. */
  bestSet(currency: string, minor: number): number[] {
    const { asOf, index } = current();
    return bestSet(rowsAsOf(asOf), asOf, index.rules.odds, { currency, minor }, intoBy(index.rules.rates, asOf));
  },

  /** Every name judged for its next renewal, what should be let go first; the first `limit` of them. */
  judgeAll(limit: number): AllJudgedView {
    const { asOf, index } = current();
    const { names, ...sums } = judgeAll(
      rowsAsOf(asOf),
      index.rules.odds,
      worthIn(index.rules, asOf),
      intoBy(index.rules.rates, asOf),
    );
    return { ...sums, rows: names.slice(0, limit).map(({ row, judgement }) => ({ row: view(row), judgement })) };
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
    const ledger = current();
    return planView(ledger, rowsAsOf(ledger.asOf), which, asked);
  },

  /** An offer of its old registrar to keep a name, against moving it. */
  weighOffer(nameId: number, wish: Parameters<typeof weighOffer>[3]): WeighedOffer | null {
    const { index, asOf } = current();
    const place = placeById.get(nameId);
    const row = place === undefined ? undefined : rowsAsOf(asOf)[place];
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
    return current().names.map(({ ascii }) => ascii);
  },

  /** Names of which nobody has said when the term ends, or whether they are renewed by themselves; not those that are let go. */
  unknownNames(what: Lacking, limit: number): RowView[] {
    return namesLacking(rowsAsOf(current().asOf), what, limit).map(view);
  },

  /** Names whose setting contradicts what is wanted of them, today. */
  contradictions(limit: number): ContradictingRow[] {
    const ledger = current();
    const found: ContradictingRow[] = [];
    for (const row of rowsAsOf(ledger.asOf)) {
      const contradiction = contradictionOf(row, ledger.index.accounts.get(row.name.accountId), ledger.asOf);
      if (contradiction) found.push({ row: view(row), contradiction });
      if (found.length >= limit) break;
    }
    return found;
  },

  totals(ids: readonly number[], day: Instant): Totals {
    const read = rowsOn(current(), day);
    const rows = ids.flatMap((id) => {
      const place = placeById.get(id);
      return place === undefined ? [] : [read(place)];
    });
    return totalsOf(current(), rows, day);
  },

  /** One name by its A-label, on `day`, with its neighbours in the last arrangement. */
  name(ascii: string, day: Instant): NameView | null {
    const ledger = current();
    const place = ledger.names.findIndex((name) => name.ascii === ascii);
    if (place < 0) return null;
    const ordered = arranged.slice(0, arranged.total);
    const at = ordered.findIndex((row) => row.place === place);
    const row = rowsOn(ledger, day)(place);
    return {
      row: view(row),
      saving: moveSaving(ledger.index, row, day),
      place: at,
      total: ordered.length,
      before: ordered[at - 1]?.name.ascii ?? null,
      after: at < 0 ? null : (ordered[at + 1]?.name.ascii ?? null),
    };
  },

  /** Up to `limit` names that hold `text`, those that begin with it first. */
  find(text: string, limit: number): FoundName[] {
    return findNames(projection?.names ?? [], text, limit);
  },
};

export type LedgerWorker = typeof api;
expose(api);
