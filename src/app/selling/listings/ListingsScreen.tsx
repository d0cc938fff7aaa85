'use client';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import type { ListingLine, ListingWish } from '@/core/selling';
import { ButtonLink } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Grid } from '@/ui/grid/Grid';
import type { GridColumn } from '@/ui/grid/gridProps';
import { Empty, Failed, Loading } from '@/ui/text/States';
import { useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';
import { ListingsFoot } from './ListingsFoot';
import { columnsFor } from './listingColumns';
import { useChosenListings } from './useChosenListings';
import { useListings } from './useListings';

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

const FIRST: ListingWish = { text: '', marketplace: null, sort: 'name', descending: false };

/** Every listing with its net proceeds, sorted and filtered where it stands. */
export function ListingsScreen({ marketplaces }: { marketplaces: readonly Marketplace[] }) {
  const router = useRouter();
  const { style, homeCurrency } = useLedger();
  const [wish, setWish] = useState(FIRST);
  const { sums, order, readings, hasFailed, rowAt, need, load } = useListings(wish);
  const chosen = useChosenListings(readings);
  const [widths, setWidths] = useState<Readonly<Record<string, number>>>({});
  useTitle('Selling', 'listed for sale');

  const columns = useMemo(
    (): GridColumn<ListingLine>[] =>
      columnsFor(style, homeCurrency).map((column) => ({ ...column, width: widths[column.id] ?? column.width })),
    [style, homeCurrency, widths],
  );
  const sortBy = (id: string) => {
    const sort = id as ListingWish['sort'];
    setWish({ ...wish, sort, descending: wish.sort === sort && !wish.descending });
  };
  if (hasFailed) return <Failed text="The listings could not be read." onRetry={() => void load()} />;
  if (sums === null) return <Loading text="Reading the listings" />;
  return (
    <>
      <ListingsBar marketplaces={marketplaces} wish={wish} onWish={(change) => setWish({ ...wish, ...change })} />
      <Grid<ListingLine>
        label="Listings"
        opensBy="name"
        columns={columns}
        total={sums.count}
        rowAt={rowAt}
        idOf={({ id }) => id}
        order={order}
        onWindow={need}
        sort={{ id: wish.sort, descending: wish.descending }}
        onSort={sortBy}
        isChosen={(id) => chosen.ids.has(id)}
        chosen={chosen.ids.size}
        onChoose={(place, range) => void chosen.choose(place, range)}
        onChooseAll={() => void chosen.all(sums.count)}
        onOpen={(place) => {
          const line = rowAt(place);
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
      <ListingsFoot shown={sums} chosen={chosen.about} onDone={chosen.clear} />
    </>
  );
}

interface ListingsBarProps {
  readonly marketplaces: readonly Marketplace[];
  readonly wish: ListingWish;
  readonly onWish: (change: Partial<ListingWish>) => void;
}

const ALL = 'all';

/** What is looked for, and where it is listed; a marketplace without a link takes its listings as CSV. */
function ListingsBar({ marketplaces, wish, onWish }: ListingsBarProps) {
  const marketplace = marketplaces.find(({ label }) => label === wish.marketplace);
  return (
    <Bar>
      <Field label="Find" value={wish.text} onChange={(text) => onWish({ text })} placeholder="any part of a name" />
      <Choice
        label="Marketplace"
        value={wish.marketplace ?? ALL}
        onChange={(where) => onWish({ marketplace: where === ALL ? null : where })}
        options={[
          { value: ALL, text: 'all marketplaces' },
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
