'use client';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp, Check, Minus } from 'lucide-react';
import {
  type KeyboardEvent,
  type MouseEvent,
  memo,
  type ReactNode,
  type RefObject,
  useEffect,
  useId,
  useRef,
  useState,
} from 'react';
import styled from 'styled-components';
import { CheckBoxMark } from '../controls/Check';
import { ColumnEdge } from './ColumnEdge';

export const ROW_HEIGHT = 32;

export interface GridColumn<R> {
  readonly id: string;
  readonly heading: ReactNode;
  /** The heading in words, for screen readers. */
  readonly label: string;
  readonly width: number;
  readonly figures?: boolean;
  readonly sortable?: boolean;
  readonly render: (row: R) => ReactNode;
}

export interface GridProps<R> {
  readonly label: string;
  readonly columns: readonly GridColumn<R>[];
  readonly total: number;
  /** The row at a place, or `undefined` while it is on its way. */
  readonly rowAt: (place: number) => R | undefined;
  readonly idOf: (row: R) => number;
  /** Rises when the order changes: the list goes back to its top. */
  readonly order: number;
  readonly onWindow: (from: number, to: number) => void;
  readonly sort: { readonly id: string; readonly descending: boolean };
  readonly onSort: (id: string) => void;
  readonly isChosen: (id: number) => boolean;
  readonly chosen: number;
  /** Chooses the row at `place`; with `range`, everything from the last chosen to it. */
  readonly onChoose: (place: number, range: boolean) => void;
  readonly onChooseAll: () => void;
  /** Enter, F2 or a double click on a cell. */
  readonly onOpen: (place: number, column: string) => void;
  readonly onWidth: (id: string, width: number) => void;
  readonly empty: ReactNode;
}

const Scroller = styled.div`
  position: relative;
  flex: 1;
  min-height: 120px;
  overflow: auto;
  outline: none;
  contain: strict;
  &:focus-visible [data-active='true'] { outline: 2px solid var(--bearing); outline-offset: -2px; }
  @media print { contain: none; overflow: visible; }
`;

const HeadRow = styled.div`
  position: sticky;
  top: 0;
  z-index: 2;
  display: flex;
  height: 34px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule);
`;

const Head = styled.div`
  position: relative;
  display: flex;
  align-items: center;
  flex: none;
  padding: 0 8px;
  color: var(--ink-soft);
  font-size: 0.9rem;
  overflow: hidden;
  white-space: nowrap;
  &[data-figures='true'] { justify-content: flex-end; }
  &[data-sortable='true'] { cursor: pointer; }
  &[aria-sort='ascending'], &[aria-sort='descending'] { color: var(--ink); }
`;

const Line = styled.div`
  position: absolute;
  left: 0;
  display: flex;
  height: ${ROW_HEIGHT}px;
  contain: strict;
  border-bottom: 1px solid var(--rule);
  &[aria-selected='true'] { background: var(--bearing-pale); }
  /* Cells are plain elements: there are hundreds of them, drawn anew whenever the date moves. */
  & > [role='gridcell'] {
    flex: none;
    display: flex;
    align-items: center;
    padding: 0 8px;
    overflow: hidden;
    contain: layout paint style;
    white-space: nowrap;
    text-overflow: ellipsis;
  }
  & > [data-figures='true'] { justify-content: flex-end; text-align: right; }
`;

const CHECK_WIDTH = 34;

/**
 * A long list as a grid (WAI-ARIA grid pattern, active descendant): arrows, Home, End, Page keys, Space to choose, Shift for
 * ranges, Ctrl-A for all, Enter to open or edit. Only the rows in view are in the document.
 */
export function Grid<R>(props: GridProps<R>) {
  const { columns, total, rowAt, order, onWindow } = props;
  const id = useId();
  const scroller = useRef<HTMLDivElement>(null);
  const [active, setActive] = useState({ row: -1, column: 1 });
  const virtual = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 2,
    scrollPaddingStart: 34,
  });
  const items = virtual.getVirtualItems();
  const [first, last] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0];

  useEffect(() => onWindow(first, last + 1), [first, last, onWindow]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new order begins at its top
  useEffect(() => {
    scroller.current?.scrollTo({ top: 0 });
    setActive({ row: -1, column: 1 });
  }, [order]);

  const move = (row: number, column: number) => {
    const next = {
      row: Math.max(-1, Math.min(total - 1, row)),
      column: Math.max(0, Math.min(columns.length, column)),
    };
    setActive(next);
    if (next.row >= 0) virtual.scrollToIndex(next.row);
  };

  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    if ((event.target as HTMLElement).closest('input, [role=dialog]')) return;
    const { row, column } = active;
    const page = Math.max(1, Math.floor((scroller.current?.clientHeight ?? 400) / ROW_HEIGHT) - 2);
    const acts: Record<string, () => void> = {
      ArrowDown: () => move(row + 1, column),
      ArrowUp: () => move(row - 1, column),
      ArrowRight: () => move(row, column + 1),
      ArrowLeft: () => move(row, column - 1),
      PageDown: () => move(row + page, column),
      PageUp: () => move(Math.max(0, row - page), column),
      Home: () => (event.ctrlKey ? move(0, column) : move(row, 0)),
      End: () => (event.ctrlKey ? move(total - 1, column) : move(row, columns.length)),
      ' ': () => (row >= 0 ? props.onChoose(row, event.shiftKey) : column === 0 ? props.onChooseAll() : undefined),
      Enter: () => openAt(row, column),
      F2: () => openAt(row, column),
    };
    if (event.shiftKey && (event.key === 'ArrowDown' || event.key === 'ArrowUp') && row >= 0) {
      const next = row + (event.key === 'ArrowDown' ? 1 : -1);
      if (next >= 0 && next < total) props.onChoose(next, true);
    }
    if (event.key === 'a' && (event.ctrlKey || event.metaKey)) acts.a = props.onChooseAll;
    const act = acts[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  };

  const openAt = (row: number, column: number) => {
    const id = columns[column - 1]?.id;
    if (row < 0) return id ? props.onSort(id) : props.onChooseAll();
    if (column === 0) props.onChoose(row, false);
    else if (id) props.onOpen(row, id);
  };

  const onClick = (event: MouseEvent<HTMLDivElement>) => {
    const cell = (event.target as HTMLElement).closest<HTMLElement>('[data-row]');
    if (!cell) return;
    const [row, column] = [Number(cell.dataset.row), Number(cell.dataset.column)];
    setActive({ row, column });
    if (row >= 0 && (column === 0 || event.shiftKey || event.ctrlKey || event.metaKey))
      props.onChoose(row, event.shiftKey);
    if (row === -1 && column === 0) props.onChooseAll();
  };

  const width = columns.reduce((sum, column) => sum + column.width, CHECK_WIDTH);
  const all = props.chosen === 0 ? 'none' : props.chosen >= total ? 'all' : 'some';
  return (
    <Scroller
      ref={scroller as RefObject<HTMLDivElement>}
      role="grid"
      aria-label={props.label}
      aria-rowcount={total + 1}
      aria-colcount={columns.length + 1}
      aria-multiselectable
      aria-activedescendant={`${id}-${active.row}-${active.column}`}
      tabIndex={0}
      onKeyDown={onKeyDown}
      onClick={onClick}
      onDoubleClick={(event) => {
        const cell = (event.target as HTMLElement).closest<HTMLElement>('[data-row]');
        if (cell && Number(cell.dataset.row) >= 0) openAt(Number(cell.dataset.row), Number(cell.dataset.column));
      }}
    >
      <HeadRow role="row" aria-rowindex={1} style={{ width }}>
        <Head
          role="columnheader"
          id={`${id}--1-0`}
          aria-colindex={1}
          data-row={-1}
          data-column={0}
          data-active={active.row === -1 && active.column === 0}
          style={{ width: CHECK_WIDTH, paddingLeft: 12 }}
          aria-label="Choose all"
        >
          <span className="visually-hidden">Choose all</span>
          <CheckBoxMark data-on={all !== 'none'}>
            {all === 'all' ? (
              <Check size={11} strokeWidth={3.5} />
            ) : all === 'some' ? (
              <Minus size={11} strokeWidth={3} />
            ) : null}
          </CheckBoxMark>
        </Head>
        {columns.map((column, i) => (
          <Head
            key={column.id}
            id={`${id}--1-${i + 1}`}
            role="columnheader"
            aria-colindex={i + 2}
            aria-label={column.label}
            aria-sort={props.sort.id === column.id ? (props.sort.descending ? 'descending' : 'ascending') : undefined}
            data-figures={column.figures ?? false}
            data-sortable={column.sortable ?? false}
            data-row={-1}
            data-column={i + 1}
            data-active={active.row === -1 && active.column === i + 1}
            style={{ width: column.width, padding: column.id === 'strip' ? 0 : undefined }}
            onClick={() => column.sortable && props.onSort(column.id)}
          >
            {typeof column.heading === 'string' ? (
              column.heading
            ) : (
              <span className="visually-hidden">{column.label}</span>
            )}
            {typeof column.heading === 'string' ? null : column.heading}
            {props.sort.id === column.id &&
              (props.sort.descending ? <ArrowDown size={12} aria-hidden /> : <ArrowUp size={12} aria-hidden />)}
            <ColumnEdge width={column.width} onWidth={(next) => props.onWidth(column.id, next)} />
          </Head>
        ))}
      </HeadRow>
      <div role="presentation" style={{ height: virtual.getTotalSize(), width, position: 'relative' }}>
        {items.map((item) => {
          const row = rowAt(item.index);
          return (
            <GridRow
              key={item.index}
              id={id}
              place={item.index}
              top={item.start}
              width={width}
              row={row}
              columns={columns as readonly GridColumn<unknown>[]}
              chosen={row !== undefined && props.isChosen(props.idOf(row))}
              activeColumn={active.row === item.index ? active.column : -1}
            />
          );
        })}
      </div>
      {total === 0 && props.empty}
    </Scroller>
  );
}

interface GridRowProps {
  readonly id: string;
  readonly place: number;
  readonly top: number;
  readonly width: number;
  readonly row: unknown;
  readonly columns: readonly GridColumn<unknown>[];
  readonly chosen: boolean;
  readonly activeColumn: number;
}

const GridRow = memo(function GridRow({ id, place, top, width, row, columns, chosen, activeColumn }: GridRowProps) {
  const cell = (column: number) => ({
    role: 'gridcell',
    id: `${id}-${place}-${column}`,
    'aria-colindex': column + 1,
    'data-row': place,
    'data-column': column,
    'data-active': activeColumn === column,
  });
  return (
    <Line role="row" aria-rowindex={place + 2} aria-selected={chosen} style={{ top, width }}>
      <div {...cell(0)} style={{ width: CHECK_WIDTH, paddingLeft: 12 }}>
        <span className="visually-hidden">{chosen ? 'chosen' : 'not chosen'}</span>
        <CheckBoxMark data-on={chosen}>{chosen ? <Check size={11} strokeWidth={3.5} /> : null}</CheckBoxMark>
      </div>
      {columns.map((column, i) => (
        <div
          key={column.id}
          {...cell(i + 1)}
          data-figures={column.figures ?? false}
          style={{ width: column.width, padding: column.id === 'strip' ? 0 : undefined }}
        >
          {row === undefined ? null : column.render(row)}
        </div>
      ))}
    </Line>
  );
});
