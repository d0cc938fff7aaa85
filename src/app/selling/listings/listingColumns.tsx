'use client';
import { useMemo } from 'react';
import type { GridColumn } from '@/ui/grid/gridProps';
import { formatAmount, formatFigure } from '@/ui/text/figures';
import { STATUS_WORDS } from '@/ui/text/sellingWords';
import { dayWords } from '@/ui/text/words';
import type { ListingLine } from '@/usecases/selling/report';

export type SortId =
  | 'name'
  | 'marketplace'
  | 'kind'
  | 'asked'
  | 'proceeds'
  | 'profit'
  | 'offer'
  | 'visits'
  | 'status'
  | 'term';

const SORT: Readonly<Record<SortId, (line: ListingLine) => string | number>> = {
  name: ({ ascii }) => ascii,
  marketplace: ({ marketplace }) => marketplace,
  kind: ({ kind }) => kind,
  asked: ({ askedMinor }) => askedMinor ?? -1,
  proceeds: ({ proceedsMinor }) => proceedsMinor ?? -1,
  profit: ({ profitMinor }) => profitMinor ?? Number.NEGATIVE_INFINITY,
  offer: ({ bestMinor }) => bestMinor ?? -1,
  visits: ({ visits }) => visits,
  status: ({ status }) => status,
  term: ({ termEnd }) => termEnd ?? Number.POSITIVE_INFINITY,
};

export interface Sorting {
  readonly id: SortId;
  readonly descending: boolean;
}

/** The columns of the listings; an amount of the home currency stands without its sign. */
export function columnsFor(style: Parameters<typeof dayWords>[1], home: string): GridColumn<ListingLine>[] {
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
    column('name', 'Name', 176, ({ unicode }) => <span className="name opens">{unicode}</span>),
    column('marketplace', 'Marketplace', 112, ({ marketplace }) => marketplace),
    column('kind', 'Offered as', 160, ({ kind }) => kind),
    column('asked', 'Asking price', 92, ({ askedMinor, currency }) => money(askedMinor, currency), true),
    column('proceeds', 'Proceeds', 90, ({ proceedsMinor, currency }) => money(proceedsMinor, currency), true),
    column(
      'profit',
      'Profit',
      100,
      ({ profitMinor, currency }) => (
        <span className={profitMinor !== null && profitMinor < 0 ? 'caution' : undefined}>
          {profitMinor !== null && profitMinor < 0 ? '−' : ''}
          {money(profitMinor === null ? null : Math.abs(profitMinor), currency)}
        </span>
      ),
      true,
    ),
    column('offer', 'Best offer', 88, ({ bestMinor, currency }) => money(bestMinor, currency), true),
    column('visits', 'Visits, 30 d', 80, ({ visits }) => (visits === 0 ? '' : visits.toLocaleString('en')), true),
    column('status', 'Status', 82, ({ status }) => (
      <span className={status === 'unproved' || status === 'refused' ? 'caution' : undefined}>
        {STATUS_WORDS[status]}
      </span>
    )),
    column('term', 'Term ends', 104, ({ termEnd }) => (termEnd === null ? '' : dayWords(termEnd, style))),
  ];
}

/** The listings that fit what is looked for, in order. */
export function useShown(
  lines: readonly ListingLine[] | null,
  sort: Sorting,
  text: string,
  where: string,
): ListingLine[] {
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
