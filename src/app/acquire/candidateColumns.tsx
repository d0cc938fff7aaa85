'use client';
import styled from 'styled-components';
import { type CandidateView, kindAt, releaseStrip } from '@/core/acquiring';
import { type Policy, policyFor } from '@/core/lifecycle';
import { addDays, type Instant } from '@/core/time';
import type { GridColumn } from '@/ui/grid/gridProps';
import { LifecycleStrip, type StripScale } from '@/ui/strip/LifecycleStrip';
import { formatAmount, formatFigure } from '@/ui/text/figures';
import { type DayStyle, dayWords, yearsWords } from '@/ui/text/words';
import { KIND_WORDS } from './acquireWords';

/** A row of the table: its place in the view. */
export interface CandidateRow {
  readonly row: number;
}

const ENDING_WIDTH = 92;
const LABEL_WIDTH = 162;
const STRIP_WIDTH = 76;
/** Taken names end within a year in most cases; what ends later is drawn to the edge. */
const STRIP_DAYS = 500;
const STRIP_HEIGHT = 24;

const Figure = styled.span`
  font-family: var(--mono);
  &[data-kind='premium'] { border-bottom: 3px double var(--ink); font-weight: 600; }
  &[data-kind='perhaps'] { font-style: italic; color: var(--ink-soft); }
`;
const Sand = styled.span`
  display: flex;
  justify-content: flex-end;
  align-items: center;
  align-self: stretch;
  flex: 1;
  margin: 0 -8px;
  padding: 0 8px;
  &[data-cheapest='true'] { background: var(--land-pale); }
  &[data-changed='true'] { box-shadow: inset 3px 0 0 var(--bearing); }
`;

interface ColumnsFor {
  readonly view: CandidateView;
  readonly homeCurrency: string;
  readonly style: DayStyle;
  readonly today: Instant;
  readonly policies: ReadonlyMap<string, Policy>;
  readonly heldYears: number;
  readonly widths: Readonly<Record<string, number>>;
}

/** The candidate, then a column for each ending: what it costs over the years held, or how it is taken. */
export function candidateColumns(given: ColumnsFor): GridColumn<CandidateRow>[] {
  const { view, widths } = given;
  const width = (id: string, usual: number) => widths[id] ?? usual;
  return [
    {
      id: 'label',
      heading: 'Candidate',
      label: 'Candidate',
      width: width('label', LABEL_WIDTH),
      sortable: true,
      render: ({ row }) => <span className="name">{view.unicodes[row]}</span>,
    },
    ...view.endings.map(
      ({ ending }, column): GridColumn<CandidateRow> => ({
        id: ending,
        heading: `.${ending}`,
        label: `.${ending}`,
        width: width(ending, ENDING_WIDTH),
        figures: true,
        sortable: true,
        render: ({ row }) => <Cell {...given} cell={row * view.width + column} row={row} column={column} />,
      }),
    ),
  ];
}

interface CellProps extends Omit<ColumnsFor, 'widths'> {
  readonly cell: number;
  readonly row: number;
  readonly column: number;
}

function Cell(props: CellProps) {
  const { view, cell, row, column } = props;
  const before = view.changedByCell.get(cell);
  return (
    <Sand
      data-cheapest={view.cheapest[row] === column}
      data-changed={before !== undefined}
      title={
        [before === undefined ? '' : `${KIND_WORDS[before]} before`, pointed(props)]
          .filter((text) => text !== '')
          .join('. ') || undefined
      }
    >
      <Outcome {...props} />
    </Sand>
  );
}

/** What is told on pointing: the first payment and the next one; of a price of its own, that too. */
function pointed({ view, cell, column, homeCurrency, heldYears }: CellProps): string {
  const money = (minor: number) => formatAmount({ minor, currency: homeCurrency });
  const kind = kindAt(view, cell);
  if (kind === 'premium') {
    const own = view.ownByCell.get(cell)?.holding;
    const first = own?.firstMinor == null ? 'not said' : money(own.firstMinor);
    return `Its own price: ${first} now, ${own?.next ? `${money(own.next.minor)} for each renewal` : 'renewals not said'}`;
  }
  const best = view.endings[column]?.best[heldYears - 1];
  if (!best || (kind !== 'available' && kind !== 'perhaps')) return '';
  const next = best.payments.find(({ isNow }) => !isNow);
  return `${money(best.nowMinor)} now${next ? `, ${money(next.minor)} after ${yearsWords(next.after)}` : ''}`;
}

/** What a cell says: a sum, a strip, or a word. */
function Outcome({ view, cell, column, homeCurrency, style, today, policies }: CellProps) {
  const kind = kindAt(view, cell);
  const price = view.prices[cell] as number;
  switch (kind) {
    case 'available':
    case 'premium':
    case 'perhaps':
      return (
        <Figure data-kind={kind}>
          {Number.isNaN(price) ? 'no price' : formatFigure({ minor: price, currency: homeCurrency })}
          {kind !== 'available' && <span className="visually-hidden">, {KIND_WORDS[kind]}</span>}
          {kind === 'perhaps' && <span aria-hidden> ?</span>}
        </Figure>
      );
    case 'taken': {
      const taken = view.takenByCell.get(cell);
      const earliest = taken?.earliest ?? null;
      const ending = view.endings[column]?.ending ?? '';
      if (!taken || (earliest === null && taken.termEnd === null)) return <span className="soft">taken</span>;
      return (
        <LifecycleStrip
          strip={releaseStrip(taken, policyFor(ending, policies), today)}
          scale={stripScale(today)}
          height={STRIP_HEIGHT}
          day={today}
          bar={10}
          label={earliest === null ? 'taken' : `taken, may come free ${dayWords(earliest, style)} at the earliest`}
        />
      );
    }
    case 'not asked':
      return (
        <span className="soft">
          <span aria-hidden>·</span>
          <span className="visually-hidden">{KIND_WORDS[kind]}</span>
        </span>
      );
    case 'unknown':
      return (
        <span className="soft">
          <span aria-hidden>?</span>
          <span className="visually-hidden">{KIND_WORDS[kind]}</span>
        </span>
      );
    default:
      return <span className="soft">{KIND_WORDS[kind]}</span>;
  }
}

const stripScale = (today: Instant): StripScale => ({
  from: addDays(today, -20),
  to: addDays(today, STRIP_DAYS),
  width: STRIP_WIDTH,
});
