'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState } from 'react';
import styled from 'styled-components';
import { ButtonLink } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Grid } from '@/ui/grid/Grid';
import type { GridColumn } from '@/ui/grid/gridProps';
import { Empty, Failed, Loading } from '@/ui/text/States';
import type { ListingLine } from '@/usecases/selling/report';
import { useTitle } from '../../frame/Frame';
import { useLedger, useLedgerChange } from '../../frame/LedgerProvider';
import { ListingsFoot } from './ListingsFoot';
import { columnsFor, type SortId, type Sorting, useShown } from './listingColumns';

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: end;
  padding: 10px 26px;
  border-bottom: 1px solid var(--rule);
  & > * { flex: 0 1 190px; }
  & > a { flex: none; margin-left: auto; }
`;

interface Marketplace {
  readonly id: number;
  readonly label: string;
  readonly linked: boolean;
}

/** Every listing with its net proceeds, sorted and filtered where it stands. */
export function ListingsScreen({ marketplaces }: { marketplaces: readonly Marketplace[] }) {
  const router = useRouter();
  const { style, homeCurrency } = useLedger();
  const { lines, problem, load } = useListings();
  const [sort, setSort] = useState<Sorting>({ id: 'name', descending: false });
  const [text, setText] = useState('');
  const [where, setWhere] = useState('all');
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [widths, setWidths] = useState<Readonly<Record<string, number>>>({});
  useTitle('Selling', 'listed for sale');

  const shown = useShown(lines, sort, text, where);
  const columns = useMemo(
    (): GridColumn<ListingLine>[] =>
      columnsFor(style, homeCurrency).map((column) => ({ ...column, width: widths[column.id] ?? column.width })),
    [style, homeCurrency, widths],
  );
  const rowAt = useCallback((place: number) => shown[place], [shown]);
  const onDone = async () => {
    setChosen(new Set());
    await load();
  };
  const picked = shown.filter(({ id }) => chosen.has(id));
  if (problem) return <Failed text="The listings could not be read." onRetry={() => void load()} />;
  if (lines === null) return <Loading text="Reading the listings" />;
  return (
    <>
      <ListingsBar marketplaces={marketplaces} text={text} where={where} onText={setText} onWhere={setWhere} />
      <Grid<ListingLine>
        label="Listings"
        opensBy="name"
        columns={columns}
        total={shown.length}
        rowAt={rowAt}
        idOf={({ id }) => id}
        order={shown.length}
        onWindow={NOTHING}
        sort={sort}
        onSort={(id) => setSort({ id: id as SortId, descending: sort.id === id && !sort.descending })}
        isChosen={(id) => chosen.has(id)}
        chosen={chosen.size}
        onChoose={(place) => {
          const line = shown[place];
          if (!line) return;
          const next = new Set(chosen);
          if (!next.delete(line.id)) next.add(line.id);
          setChosen(next);
        }}
        onChooseAll={() => setChosen(chosen.size >= shown.length ? new Set() : new Set(shown.map(({ id }) => id)))}
        onOpen={(place) => {
          const line = shown[place];
          if (line) router.push(`/selling/names/${encodeURIComponent(line.ascii)}`);
        }}
        onWidth={(id, width) => setWidths({ ...widths, [id]: width })}
        empty={
          <Empty title="Nothing is listed here." text="Choose names in the ledger, and list them.">
            <ButtonLink href="/ledger" data-kind="primary">
              To the ledger
            </ButtonLink>
          </Empty>
        }
      />
      <ListingsFoot shown={shown} chosen={picked} onDone={onDone} />
    </>
  );
}

const NOTHING = () => undefined;

/** Every listing, read anew after each change of the ledger. */
function useListings() {
  const [lines, setLines] = useState<readonly ListingLine[] | null>(null);
  const [problem, setProblem] = useState(false);
  const load = useCallback(async () => {
    try {
      const response = await fetch('/selling/data');
      if (!response.ok) throw new Error(String(response.status));
      setLines((await response.json()) as ListingLine[]);
      setProblem(false);
    } catch (cause) {
      console.warn('the listings could not be read', cause);
      setProblem(true);
    }
  }, []);
  useEffect(() => void load(), [load]);
  useLedgerChange(load);
  return { lines, problem, load };
}

interface ListingsBarProps {
  readonly marketplaces: readonly Marketplace[];
  readonly text: string;
  readonly where: string;
  readonly onText: (text: string) => void;
  readonly onWhere: (where: string) => void;
}

/** What is looked for, and where it is listed; a marketplace without a link takes its listings as CSV. */
function ListingsBar({ marketplaces, text, where, onText, onWhere }: ListingsBarProps) {
  const marketplace = marketplaces.find(({ label }) => label === where);
  return (
    <Bar>
      <Field label="Find" value={text} onChange={onText} placeholder="any part of a name" />
      <Choice
        label="Marketplace"
        value={where}
        onChange={onWhere}
        options={[
          { value: 'all', text: 'all marketplaces' },
          { value: 'the office', text: 'the office' },
          ...marketplaces.map(({ label }) => ({ value: label, text: label })),
        ]}
      />
      {marketplace && !marketplace.linked && (
        <ButtonLink href={`/selling/csv/${marketplace.id}`} prefetch={false}>
          These as CSV
        </ButtonLink>
      )}
    </Bar>
  );
}
