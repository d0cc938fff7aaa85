'use client';
import { useRouter } from 'next/navigation';
import { memo, useCallback, useEffect, useMemo, useState } from 'react';
import { EVERY_NAME, type LedgerView, queryFromView } from '@/core/ledger';
import type { Instant } from '@/core/time';
import { ButtonLink } from '@/ui/controls/Button';
import { Grid, ROW_HEIGHT } from '@/ui/grid/Grid';
import { Bar } from '@/ui/grid/TotalsBar';
import { Empty, Failed, Loading } from '@/ui/text/States';
import { useNarrow } from '@/ui/text/useNarrow';
import { namesWords } from '@/ui/text/words';
import type { SavedView } from '@/usecases/names/views';
import { useDay, useLedger } from '../frame/LedgerProvider';
import { useTitle } from '../frame/PageTitle';
import { namePage } from '../frame/pages';
import type { RowView } from '../frame/views';
import { CellEditor, isEditable } from './CellEditor';
import { ChosenDialogs, type OpenDialog, useChosenAct } from './ChosenDialogs';
import { FilterBar } from './FilterBar';
import {
  type ColumnId,
  gridColumns,
  isColumn,
  LEDGER_COLUMNS,
  narrowColumns,
  sortKeyOf,
  TWO_LINES_HEIGHT,
} from './ledgerColumns';
import { TotalsOfChosen, TotalsOfView } from './TotalsBar';
import { useArrangedRows } from './useArrangedRows';
import { useChosen } from './useChosen';
import { type Columns, useColumns } from './useColumns';
import { useView } from './useView';

/** Not drawn anew when the date moves. */
const StillFilterBar = memo(FilterBar);

export function LedgerScreen({ tags, views }: { tags: readonly string[]; views: readonly SavedView[] }) {
  const router = useRouter();
  const { view, show: showView, settle, columns: savedColumns } = useView();
  const query = useMemo(() => queryFromView(view).toString(), [view]);
  const { worker, meta, problem, reload } = useLedger();
  const { day, daysAhead } = useDay();
  const rows = useArrangedRows(view);
  const show = useForeseen(rows.foresee, showView);
  const columns = useColumns(savedColumns);
  const chosen = useChosen(worker, day, meta?.revision ?? 0);
  const [dialog, setDialog] = useState<OpenDialog>(null);
  const closeDialog = useCallback(() => setDialog(null), []);

  const total = rows.total ?? 0;
  useLedgerTitle(rows.view, total, sortColumn(rows.view, columns.shown));

  const { grid, isNarrow, setEditing } = useEditableGrid(rows.day, columns, [view, daysAhead]);

  const sort = (id: string) => {
    const key = isColumn(id) ? sortKeyOf(id) : null;
    if (key) show({ ...view, sort: key, descending: view.sort === key && !view.descending });
  };

  const open = (place: number, column: string) => {
    const row = rows.rowAt(place);
    if (!row || !isColumn(column)) return;
    if (daysAhead === 0 && isEditable(column)) setEditing({ id: row.name.id, column });
    else if (daysAhead === 0 && column === 'auto') {
      chosen.only(row.name.id);
      setDialog('auto-renew');
    } else {
      settle();
      router.push(namePage(row.name.ascii));
    }
  };

  const act = useChosenAct(chosen, setDialog);

  // Until the sums of the chosen names are there, none are shown: those of the whole view would be said of them.
  const totals = chosen.count > 0 ? chosen.totals : rows.totals;

  if (problem) return <Failed text={problem} onRetry={() => void reload()} />;
  return (
    <>
      <StillFilterBar view={view} onChange={show} tags={tags} views={views} columns={columns} query={query} />
      {rows.total === null ? (
        <Loading text="Reading the ledger" />
      ) : (
        <Grid<RowView>
          label="Names"
          columns={grid}
          opensBy={isNarrow ? 'outlook' : 'name'}
          rowHeight={isNarrow ? TWO_LINES_HEIGHT : ROW_HEIGHT}
          total={total}
          rowAt={rows.rowAt}
          idOf={(row) => row.name.id}
          order={rows.order}
          onWindow={rows.need}
          sort={{ id: sortColumn(rows.view, columns.shown), descending: rows.view.descending }}
          onSort={sort}
          isChosen={chosen.has}
          chosen={chosen.count}
          onChoose={(place, range) => void chosen.choose(place, range)}
          onChooseAll={() => void chosen.all(total)}
          onOpen={open}
          onWidth={columns.setWidth}
          empty={<NothingShown isEmpty={meta?.names === 0} onShowAll={() => show(EVERY_NAME)} />}
        />
      )}
      {totals === null ? (
        <Bar aria-label="Totals" />
      ) : chosen.count > 0 ? (
        <TotalsOfChosen totals={totals} disabled={daysAhead > 0} onAct={act} />
      ) : (
        <TotalsOfView totals={totals} isOld={rows.areTotalsOld} query={query} columns={columns.shown} />
      )}
      <ChosenDialogs dialog={dialog} chosen={chosen} tags={tags} onClose={closeDialog} />
    </>
  );
}

/** Shows a view that the worker has begun to arrange. */
function useForeseen(foresee: (view: LedgerView) => void, show: (view: LedgerView) => void) {
  return useCallback(
    (view: LedgerView) => {
      foresee(view);
      show(view);
    },
    [foresee, show],
  );
}

/** How many names the view shows of how many, and in which order. */
function useLedgerTitle(view: LedgerView, total: number, sortedBy: ColumnId): void {
  const { meta } = useLedger();
  const names = meta?.names ?? 0;
  const count = total < names ? `${total.toLocaleString('en')} of ${namesWords(names)}` : namesWords(names);
  useTitle(
    meta === null ? 'Ledger' : count,
    view.sort === 'deadline' ? 'by next deadline' : `by ${LEDGER_COLUMNS[sortedBy].label.toLowerCase()}`,
  );
}

/** The column that shows the order: the first shown one that sorts by the view's key. */
function sortColumn(view: LedgerView, shown: readonly ColumnId[]): ColumnId {
  return shown.find((id) => sortKeyOf(id) === view.sort) ?? 'outlook';
}

/** The columns as the grid draws them, with the cell that is being edited. An edit ends when the list changes under it. */
function useEditableGrid(day: Instant, columns: Columns, within: readonly unknown[]) {
  const { meta, style, homeCurrency } = useLedger();
  const [editing, setEditing] = useState<{ id: number; column: ColumnId } | null>(null);

  // biome-ignore lint/correctness/useExhaustiveDependencies: an edit ends when the list changes under it
  useEffect(() => setEditing(null), within);

  const edit = useCallback(
    (row: RowView, id: ColumnId) =>
      editing?.id === row.name.id && editing.column === id ? (
        <CellEditor row={row} column={id} onEnd={() => setEditing(null)} />
      ) : null,
    [editing],
  );
  const accounts = useMemo(() => new Map(meta?.rules.accounts.map((account) => [account.id, account.label])), [meta]);
  const isNarrow = useNarrow();
  const grid = useMemo(() => {
    const context = { day, style, homeCurrency, accountLabel: (id: number) => accounts.get(id) ?? '' };
    return isNarrow
      ? narrowColumns(window.innerWidth, context)
      : gridColumns(columns.shown, columns.widths, context, edit);
  }, [columns.shown, columns.widths, day, style, homeCurrency, accounts, edit, isNarrow]);
  return { grid, isNarrow, setEditing };
}

/** What stands in the place of the list where nothing is to be shown. */
function NothingShown({ isEmpty, onShowAll }: { isEmpty: boolean; onShowAll: () => void }) {
  return isEmpty ? (
    <Empty title="The ledger is empty." text="Paste the names you own, or bring in a list from each registrar.">
      <ButtonLink href="/ledger/add" data-kind="primary">
        Add names
      </ButtonLink>
    </Empty>
  ) : (
    <Empty title="No name fits these filters." text="Take one of them out, or show every name.">
      <ButtonLink href="/ledger" onClick={onShowAll}>
        Show every name
      </ButtonLink>
    </Empty>
  );
}
