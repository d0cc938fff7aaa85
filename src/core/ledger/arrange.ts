import type { Amount } from '../money';
import { addDays, type Instant } from '../time';
import type { LedgerRow } from './projection';
import type { LedgerView, SortKey } from './view';

/** What the view's filters keep, row by row. `asOf` is the day the rows were read on. */
export function matcher(view: LedgerView, homeCurrency: string, asOf: Instant): (row: LedgerRow) => boolean {
  const tests: ((row: LedgerRow) => boolean)[] = [];
  const within = <T>(values: readonly T[], of: (row: LedgerRow) => T) => {
    if (values.length === 0) return;
    const set = new Set(values);
    tests.push((row) => set.has(of(row)));
  };
  if (view.text !== '') {
    const text = view.text.trim().toLowerCase();
    tests.push(
      ({ name }) => name.ascii.includes(text) || name.unicode.includes(text) || name.notes.toLowerCase().includes(text),
    );
  }
  within(view.accountIds, (row) => row.name.accountId);
  within(view.endings, (row) => row.name.ending);
  within<string | null>(view.phases, (row) => row.phase);
  within(view.settings, (row) => row.setting);
  within(view.purposes, (row) => row.name.purpose);
  if (view.tags.length > 0) tests.push((row) => view.tags.some((tag) => row.name.tags.includes(tag)));
  if (view.stepWithinDays !== null) {
    const last = addDays(asOf, view.stepWithinDays);
    tests.push((row) => row.step !== null && row.step.at <= last);
  }
  range(view.costFrom, view.costTo, homeCurrency, (row) => row.step?.before ?? null, tests);
  range(view.askingFrom, view.askingTo, homeCurrency, (row) => row.name.asking, tests);
  if (view.forSale !== null) tests.push((row) => (row.name.purpose === 'for sale') === view.forSale);
  if (view.neverLost !== null) tests.push((row) => row.name.neverLost === view.neverLost);
  return (row) => tests.every((test) => test(row));
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

/** The number a row is sorted by; what is unknown comes last. Money sorts within its currency. */
function numberFor(
  key: Exclude<SortKey, 'name' | 'account' | 'ending' | 'auto' | 'phase'>,
  row: LedgerRow,
): number | null {
  switch (key) {
    case 'step':
      return row.step?.at ?? null;
    case 'termEnd':
      return row.termEnd?.at ?? null;
    case 'registered':
      return row.name.registered?.at ?? null;
    case 'checked':
      return row.name.checkedAt;
    case 'cost':
      return row.step?.before?.minor ?? null;
    case 'perYear':
      return row.costs.perYear?.minor ?? null;
    case 'asking':
      return row.name.asking?.minor ?? null;
    case 'spent':
      return row.name.spent[0]?.minor ?? null;
  }
}

function wordFor(
  key: 'name' | 'account' | 'ending' | 'auto' | 'phase',
  row: LedgerRow,
  accountLabel: (id: number) => string,
): string {
  switch (key) {
    case 'name':
      return row.name.ascii;
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

/** Sorts rows in place by the view's key, then by name, so that the order never depends on what came in. */
export function sortRows(rows: LedgerRow[], view: LedgerView, accountLabel: (id: number) => string): LedgerRow[] {
  const { sort, descending } = view;
  const sign = descending ? -1 : 1;
  const byName = (a: LedgerRow, b: LedgerRow) =>
    a.name.ascii < b.name.ascii ? -1 : a.name.ascii > b.name.ascii ? 1 : 0;
  if (sort === 'name') return rows.sort((a, b) => sign * byName(a, b));
  if (sort === 'account' || sort === 'ending' || sort === 'auto' || sort === 'phase') {
    const keyed = rows.map((row) => ({ row, key: wordFor(sort, row, accountLabel) }));
    keyed.sort((a, b) => (a.key === b.key ? byName(a.row, b.row) : sign * (a.key < b.key ? -1 : 1)));
    return refill(rows, keyed);
  }
  const last = Number.POSITIVE_INFINITY;
  const keyed = rows.map((row) => {
    const value = numberFor(sort, row);
    return { row, key: value === null ? last : sign * value };
  });
  keyed.sort((a, b) => (a.key === b.key ? byName(a.row, b.row) : a.key < b.key ? -1 : 1));
  return refill(rows, keyed);
}

function refill(rows: LedgerRow[], keyed: readonly { readonly row: LedgerRow }[]): LedgerRow[] {
  for (const [i, { row }] of keyed.entries()) rows[i] = row;
  return rows;
}
