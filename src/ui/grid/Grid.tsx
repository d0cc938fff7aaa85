'use client';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp, Check, Minus } from 'lucide-react';
import { memo, type RefObject, useEffect, useId, useRef } from 'react';
import styled from 'styled-components';
import { CheckBoxMark } from '../controls/Check';
import { ColumnEdge } from './ColumnEdge';
import type { GridColumn, GridProps } from './gridProps';
import { type ActiveCell, useGridKeys } from './useGridKeys';

export const ROW_HEIGHT = 32;

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
  @media (max-height: 520px) { height: 26px; }
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
  contain: strict;
  border-bottom: 1px solid var(--rule);
  &[aria-selected='true'] { background: var(--bearing-pale); }
  & .opens { cursor: pointer; }
  & .opens:hover { text-decoration: underline; }
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
  const { columns, total, rowAt, onWindow, rowHeight = ROW_HEIGHT } = props;
  const id = useId();
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 2,
    scrollPaddingStart: 34,
  });
  const { active, onKeyDown, onClick, onDoubleClick, onMouseDown } = useGridKeys(props, virtual, rowHeight);
  // biome-ignore lint/correctness/useExhaustiveDependencies: rows of another height stand at other places
  useEffect(() => virtual.measure(), [rowHeight]);
  const items = virtual.getVirtualItems();
  const [first, last] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0];

  useEffect(() => onWindow(first, last + 1), [first, last, onWindow]);
  const width = columns.reduce((sum, column) => sum + column.width, CHECK_WIDTH);
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
      onDoubleClick={onDoubleClick}
      onMouseDown={onMouseDown}
    >
      <GridHead id={id} props={props as unknown as GridProps<unknown>} active={active} width={width} />
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
              height={rowHeight}
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

interface GridHeadProps {
  readonly id: string;
  readonly props: GridProps<unknown>;
  readonly active: ActiveCell;
  readonly width: number;
}

/** The headings: choosing all, sorting by a column, and its width. */
function GridHead({ id, props, active, width }: GridHeadProps) {
  const { columns, total } = props;
  const all = props.chosen === 0 ? 'none' : props.chosen >= total ? 'all' : 'some';
  return (
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
  );
}

interface GridRowProps {
  readonly id: string;
  readonly place: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  readonly row: unknown;
  readonly columns: readonly GridColumn<unknown>[];
  readonly chosen: boolean;
  readonly activeColumn: number;
}

const GridRow = memo(function GridRow({
  id,
  place,
  top,
  width,
  height,
  row,
  columns,
  chosen,
  activeColumn,
}: GridRowProps) {
  const cell = (column: number) => ({
    role: 'gridcell',
    id: `${id}-${place}-${column}`,
    'aria-colindex': column + 1,
    'data-row': place,
    'data-column': column,
    'data-active': activeColumn === column,
  });
  return (
    <Line role="row" aria-rowindex={place + 2} aria-selected={chosen} style={{ top, width, height }}>
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
