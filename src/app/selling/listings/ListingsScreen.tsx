'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState } from 'react';
import styled from 'styled-components';
import { sumByCurrency } from '@/core/money';
import { isRefusal, type Refusal } from '@/core/refusal';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Grid } from '@/ui/grid/Grid';
import type { GridColumn } from '@/ui/grid/gridProps';
import { report } from '@/ui/overlay/Toasts';
import { formatAmount, formatFigure } from '@/ui/text/figures';
import { Empty, Failed, Loading } from '@/ui/text/States';
import { STATUS_WORDS, sentWords } from '@/ui/text/sellingWords';
import { amountsWords, dayWords } from '@/ui/text/words';
import type { ListingLine } from '@/usecases/selling/report';
import { useTitle } from '../../frame/Frame';
import { useLedger, useLedgerChange } from '../../frame/LedgerProvider';
import { seenLiveAction, sendListingsAction, withdrawAction } from '../actions';

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

const Foot = styled.footer`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 20px;
  min-height: 44px;
  padding: 4px 18px;
  background: var(--totals);
  color: var(--on-totals);
  & > div { margin-left: auto; display: flex; gap: 8px; }
`;

type SortId = 'name' | 'marketplace' | 'kind' | 'asked' | 'proceeds' | 'profit' | 'offer' | 'status' | 'term';

const SORT: Readonly<Record<SortId, (line: ListingLine) => string | number>> = {
  name: ({ ascii }) => ascii,
  marketplace: ({ marketplace }) => marketplace,
  kind: ({ kind }) => kind,
  asked: ({ askedMinor }) => askedMinor ?? -1,
  proceeds: ({ proceedsMinor }) => proceedsMinor ?? -1,
  profit: ({ profitMinor }) => profitMinor ?? Number.NEGATIVE_INFINITY,
  offer: ({ bestMinor }) => bestMinor ?? -1,
  status: ({ status }) => status,
  term: ({ termEnd }) => termEnd ?? Number.POSITIVE_INFINITY,
};

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
  const acted = async <T,>(answer: T | Refusal, words: (done: T) => string) => {
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else {
      report({ text: words(answer) });
      setChosen(new Set());
      await load();
    }
  };
  const picked = shown.filter(({ id }) => chosen.has(id));
  const listingIds = picked.map(({ id }) => id);
  const names = [...new Set(picked.map(({ nameId }) => nameId))];
  const marketplace = marketplaces.find(({ label }) => label === where);
  if (problem) return <Failed text="The listings could not be read." onRetry={() => void load()} />;
  if (lines === null) return <Loading text="Reading the listings" />;
  return (
    <>
      <Bar>
        <Field label="Find" value={text} onChange={setText} placeholder="any part of a name" />
        <Choice
          label="Marketplace"
          value={where}
          onChange={setWhere}
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
      <Grid<ListingLine>
        label="Listings"
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
      <Foot aria-label="Totals">
        <b>
          {(chosen.size || shown.length).toLocaleString('en')} {chosen.size > 0 ? 'chosen' : 'listings'}
        </b>
        <span>
          proceeds <b>{amountsWords(sumByCurrency(netProceedsOf(chosen.size > 0 ? picked : shown)), true)}</b>
          {notKnown(chosen.size > 0 ? picked : shown)}
        </span>
        {chosen.size > 0 && (
          <div>
            <ButtonLink href={`/selling/price?names=${names.slice(0, 500).join(',')}`}>Price…</ButtonLink>
            <Button onPress={async () => acted(await sendListingsAction({ listingIds }), sentWords)}>
              Send drafts
            </Button>
            <Button
              onPress={async () => acted(await seenLiveAction({ listingIds }), (n) => `${n} noted as seen live today.`)}
            >
              Seen live
            </Button>
            <Button onPress={async () => acted(await withdrawAction({ listingIds }), (n) => `${n} withdrawn.`)}>
              Withdraw
            </Button>
          </div>
        )}
      </Foot>
    </>
  );
}

const NOTHING = () => undefined;

/** How many of them leave nobody knows how much: a rate is missing for their fees. */
function notKnown(lines: readonly ListingLine[]): string {
  const count = lines.filter(({ askedMinor, proceedsMinor }) => askedMinor !== null && proceedsMinor === null).length;
  return count === 0 ? '' : `, ${count} not known`;
}

function netProceedsOf(lines: readonly ListingLine[]) {
  return lines.flatMap(({ proceedsMinor, currency }) =>
    proceedsMinor === null ? [] : [{ minor: proceedsMinor, currency }],
  );
}

function columnsFor(style: Parameters<typeof dayWords>[1], home: string): GridColumn<ListingLine>[] {
  const money = (minor: number | null, currency: string) =>
    minor === null
      ? ''
      : currency === home
        ? formatFigure({ minor, currency }, true)
        : formatAmount({ minor, currency }, true);
  const column = (
    id: SortId,
    label: string,
    width: number,
    render: GridColumn<ListingLine>['render'],
    figures = false,
  ): GridColumn<ListingLine> => ({ id, heading: label, label, width, figures, sortable: true, render });
  return [
    column('name', 'Name', 210, ({ unicode }) => <span className="name">{unicode}</span>),
    column('marketplace', 'Marketplace', 140, ({ marketplace }) => marketplace),
    column('kind', 'Offered as', 120, ({ kind }) => kind),
    column('asked', 'Asked', 90, ({ askedMinor, currency }) => money(askedMinor, currency), true),
    column('proceeds', 'Proceeds', 90, ({ proceedsMinor, currency }) => money(proceedsMinor, currency), true),
    column(
      'profit',
      'Over cost',
      100,
      ({ profitMinor, currency }) => (
        <span className={profitMinor !== null && profitMinor < 0 ? 'caution' : undefined}>
          {profitMinor !== null && profitMinor < 0 ? '−' : ''}
          {money(profitMinor === null ? null : Math.abs(profitMinor), currency)}
        </span>
      ),
      true,
    ),
    column('offer', 'Best offer', 100, ({ bestMinor, currency }) => money(bestMinor, currency), true),
    column('status', 'Stands', 130, ({ status }) => (
      <span className={status === 'unproved' || status === 'refused' ? 'caution' : undefined}>
        {STATUS_WORDS[status]}
      </span>
    )),
    column('term', 'Term ends', 110, ({ termEnd }) => (termEnd === null ? '' : dayWords(termEnd, style))),
  ];
}

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

interface Sorting {
  readonly id: SortId;
  readonly descending: boolean;
}

/** The listings that fit what is looked for, in order. */
function useShown(lines: readonly ListingLine[] | null, sort: Sorting, text: string, where: string): ListingLine[] {
  return useMemo(() => {
    const keyOf = SORT[sort.id];
    const found = (lines ?? []).filter(
      ({ ascii, unicode, marketplace }) =>
        (where === 'all' || marketplace === where) && (ascii.includes(text.toLowerCase()) || unicode.includes(text)),
    );
    const keyed = found.map((line) => ({ line, key: keyOf(line) }));
    const sign = sort.descending ? -1 : 1;
    keyed.sort((a, b) => (a.key < b.key ? -sign : a.key > b.key ? sign : a.line.id - b.line.id));
    return keyed.map(({ line }) => line);
  }, [lines, sort, text, where]);
}
