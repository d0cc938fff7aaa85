import type { ListingLine, ListingWish } from '@/core/selling';
import type { GridColumn } from '@/ui/grid/gridProps';
import { formatAmount, formatFigure } from '@/ui/text/figures';
import { STATUS_WORDS } from '@/ui/text/sellingWords';
import { dayWords } from '@/ui/text/words';

/** The columns of the listings; an amount of the home currency stands without its sign. */
export function columnsFor(style: Parameters<typeof dayWords>[1], home: string): GridColumn<ListingLine>[] {
  const money = (minor: number | null, currency: string) =>
    minor === null
      ? ''
      : currency === home
        ? formatFigure({ minor, currency }, true)
        : formatAmount({ minor, currency }, true);
  const column = (
    id: ListingWish['sort'],
    label: string,
    width: number,
    render: GridColumn<ListingLine>['render'],
    figures = false,
  ): GridColumn<ListingLine> => ({ id, heading: label, label, width, figures, sortable: true, render });
  return [
    column('name', 'Name', 176, ({ unicode }) => <span className="name opens">{unicode}</span>),
    column('marketplace', 'Marketplace', 128, ({ marketplace }) => marketplace),
    column('kind', 'Offered as', 150, ({ kind }) => kind),
    column('asked', 'Asking price', 92, ({ askedMinor, currency }) => money(askedMinor, currency), true),
    column('proceeds', 'Proceeds', 90, ({ proceedsMinor, currency }) => money(proceedsMinor, currency), true),
    column(
      'profit',
      'Profit',
      94,
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
