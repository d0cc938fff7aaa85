'use client';
import { useCallback, useMemo, useState } from 'react';
import styled from 'styled-components';
import {
  arrangeCandidates,
  type CandidateQuery,
  type CandidateView,
  candidateTotals,
  viewCandidates,
} from '@/core/acquiring';
import { Grid } from '@/ui/grid/Grid';
import { Empty, Failed, Loading } from '@/ui/text/States';
import { yearsWords } from '@/ui/text/words';
import type { OfferedEnding } from '@/usecases/acquiring/endings';
import type { IdeaSetRow } from '@/usecases/acquiring/ideas';
import type { CandidateTable } from '@/usecases/acquiring/table';
import { useLedger } from '../frame/LedgerProvider';
import { useTitle } from '../frame/PageTitle';
import { AskingLine } from './AskingLine';
import { CandidatePanel } from './CandidatePanel';
import { CandidatesFoot } from './CandidatesFoot';
import { type CandidateRow, candidateColumns } from './candidateColumns';
import { FilterLine } from './FilterLine';
import { IdeasPart } from './IdeasPart';
import { useCandidates } from './useCandidates';

const Whole = styled.div`
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template: minmax(0, 1fr) / minmax(0, 1fr) 340px;
  &[data-panel='false'] { grid-template-columns: minmax(0, 1fr); }
  @media (max-width: 900px) { grid-template: auto auto / minmax(0, 1fr); overflow: auto; }
`;

const Left = styled.div`
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
  @media (max-width: 900px) { min-height: 560px; }
`;

const EVERYTHING: CandidateQuery = {
  text: '',
  filter: 'all',
  mostMinor: null,
  mostLetters: null,
  sort: 'as made',
  descending: false,
};

interface AcquireScreenProps {
  readonly sets: readonly IdeaSetRow[];
  readonly set: IdeaSetRow | null;
  readonly endings: readonly OfferedEnding[];
}

/** One field of ideas, and a table that answers. */
export function AcquireScreen({ sets, set, endings }: AcquireScreenProps) {
  const { meta } = useLedger();
  const { table, problem, progress, isPaused, load } = useCandidates(set?.id ?? null);
  const isReady = table !== null && progress !== null && meta !== null;
  const about = table
    ? `${table.labels.length.toLocaleString('en')} candidates, ${table.endings.length} endings, held ${yearsWords(table.set.heldYears)}`
    : 'find a name, and know what it will cost to hold';
  useTitle('Acquire', about);
  return (
    <>
      <IdeasPart sets={sets} set={set} endings={endings} />
      {set === null && (
        <Empty
          title="Write some words."
          text="They are put together, looked up under the endings you choose, and stand here with what each name costs over the years you would hold it."
        />
      )}
      {set !== null && problem && <Failed text={problem} onRetry={() => void load()} />}
      {set !== null && !problem && !isReady && <Loading text="Reading the candidates" />}
      {isReady && !problem && (
        <Candidates
          table={table}
          asking={<AskingLine table={table} progress={progress} isPaused={isPaused} onDone={load} />}
          onChanged={load}
        />
      )}
    </>
  );
}

interface CandidatesProps {
  readonly table: CandidateTable;
  readonly asking: React.ReactNode;
  readonly onChanged: () => Promise<void>;
}

/** Candidates down, endings across; one of them in full beside it. */
function Candidates({ table, asking, onChanged }: CandidatesProps) {
  const { query, setQuery, view, rows, totals, columns, rowAt, setWidth } = useArranged(table);
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [shown, setShown] = useState<{ readonly row: number; readonly column: number } | null>(null);
  const columnOf = (id: string) => view.endings.findIndex(({ ending }) => ending === id);
  const show = (place: number, column: string) => {
    const row = rows[place];
    if (row === undefined) return;
    const chosen = columnOf(column);
    setShown({ row, column: chosen >= 0 ? chosen : Math.max(0, view.cheapest[row] as number) });
  };
  const sortId =
    query.sort === 'label' ? 'label' : typeof query.sort === 'number' ? (view.endings[query.sort]?.ending ?? '') : '';
  const onSort = (id: string) => {
    const sort = id === 'label' ? 'label' : columnOf(id);
    setQuery({ ...query, sort, descending: query.sort === sort && !query.descending });
  };
  return (
    <>
      <Whole data-panel={shown !== null}>
        <Left>
          <FilterLine
            query={query}
            heldYears={table.set.heldYears}
            onChange={(change) => setQuery({ ...query, ...change })}
          />
          {asking}
          <Grid<CandidateRow>
            label="Candidates"
            columns={columns}
            total={rows.length}
            rowAt={rowAt}
            idOf={({ row }) => row}
            order={rows.length}
            onWindow={NOTHING}
            sort={{ id: sortId, descending: query.descending }}
            onSort={onSort}
            isChosen={(row) => chosen.has(row)}
            chosen={chosen.size}
            onChoose={(place) => setChosen(toggled(chosen, rows[place]))}
            onChooseAll={() => setChosen(chosen.size >= rows.length ? new Set() : new Set(rows))}
            onActive={show}
            onOpen={show}
            onWidth={setWidth}
            empty={<Empty title="No candidate fits." text="Take a filter away, or write other words." />}
          />
        </Left>
        {shown && (
          <CandidatePanel
            key={shown.row}
            table={table}
            view={view}
            row={shown.row}
            column={shown.column}
            onColumn={(column) => setShown({ ...shown, column })}
            onChanged={onChanged}
          />
        )}
      </Whole>
      <CandidatesFoot
        totals={totals}
        names={cheapestOf(view, chosen)}
        purpose={table.set.label}
        onDone={() => setChosen(new Set())}
      />
    </>
  );
}

/** The rows of a table in the order that is asked for, with their columns and what they come to. */
function useArranged(table: CandidateTable) {
  const { style, homeCurrency, today, meta } = useLedger();
  const [query, setQuery] = useState(EVERYTHING);
  const [widths, setWidths] = useState<Readonly<Record<string, number>>>({});
  const { heldYears } = table.set;
  const view = useMemo(() => viewCandidates(table, heldYears), [table, heldYears]);
  const rows = useMemo(() => arrangeCandidates(view, query), [view, query]);
  const totals = useMemo(() => candidateTotals(view, rows), [view, rows]);
  const objects = useMemo((): readonly CandidateRow[] => Array.from(rows, (row) => ({ row })), [rows]);
  const policies = useMemo(() => new Map((meta?.rules.policies ?? []).map((one) => [one.ending, one])), [meta]);
  const columns = useMemo(
    () => (meta ? candidateColumns({ view, homeCurrency, style, today, policies, heldYears, widths }) : []),
    [view, homeCurrency, style, today, policies, heldYears, widths, meta],
  );
  const rowAt = useCallback((place: number) => objects[place], [objects]);
  const setWidth = (id: string, width: number) => setWidths({ ...widths, [id]: width });
  return { query, setQuery, view, rows, totals, columns, rowAt, setWidth };
}

const NOTHING = () => undefined;

function toggled(chosen: ReadonlySet<number>, row: number | undefined): ReadonlySet<number> {
  const next = new Set(chosen);
  if (row !== undefined && !next.delete(row)) next.add(row);
  return next;
}

/** The chosen candidates under their cheapest endings; what is not to be had anywhere is left out. */
function cheapestOf(view: CandidateView, chosen: ReadonlySet<number>): string[] {
  return [...chosen].flatMap((row) => {
    const ending = view.endings[view.cheapest[row] as number]?.ending;
    return ending === undefined ? [] : [`${view.unicodes[row]}.${ending}`];
  });
}
