'use client';
import type { Virtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, type MouseEvent, useEffect, useState } from 'react';
import type { GridProps } from './gridProps';

/** Which cell is active: row -1 are the headings, column 0 the check boxes. */
export interface ActiveCell {
  readonly row: number;
  readonly column: number;
}

const FIRST: ActiveCell = { row: -1, column: 1 };

/** Moving, choosing and opening by keyboard and pointer (WAI-ARIA grid pattern, active descendant). */
export function useGridKeys<R>(props: GridProps<R>, virtual: Virtualizer<HTMLDivElement, Element>, rowHeight: number) {
  const { columns, total, order } = props;
  const [active, setActive] = useState(FIRST);

  // biome-ignore lint/correctness/useExhaustiveDependencies: a new order begins at its top
  useEffect(() => {
    if (virtual.scrollOffset !== 0) virtual.scrollElement?.scrollTo({ top: 0 });
    // A heading that sorts stays the one that is at hand.
    setActive((now) => (now.row === -1 ? now : FIRST));
  }, [order]);

  const goTo = (next: ActiveCell) => {
    setActive(next);
    props.onActive?.(next.row, columns[next.column - 1]?.id ?? '');
  };

  const move = (row: number, column: number) => {
    const next = {
      row: Math.max(-1, Math.min(total - 1, row)),
      column: Math.max(0, Math.min(columns.length, column)),
    };
    goTo(next);
    if (next.row >= 0) virtual.scrollToIndex(next.row);
  };

  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    if ((event.target as HTMLElement).closest('input, [role=dialog]')) return;
    const { row, column } = active;
    const page = Math.max(1, Math.floor((virtual.scrollElement?.clientHeight ?? 400) / rowHeight) - 2);
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

  return { active, onKeyDown, ...pointerActs(props, goTo, openAt) };
}

/** The same by pointer: one click chooses or opens, two open what is edited. */
function pointerActs<R>(
  props: GridProps<R>,
  goTo: (cell: ActiveCell) => void,
  openAt: (row: number, column: number) => void,
) {
  const onClick = (event: MouseEvent<HTMLDivElement>) => {
    const cell = (event.target as HTMLElement).closest<HTMLElement>('[data-row]');
    if (!cell) return;
    const [row, column] = [Number(cell.dataset.row), Number(cell.dataset.column)];
    goTo({ row, column });
    const isChoosing = column === 0 || event.shiftKey || event.ctrlKey || event.metaKey;
    if (row >= 0 && isChoosing) props.onChoose(row, event.shiftKey);
    else if (row >= 0 && opens(column)) openAt(row, column);
    if (row === -1 && column === 0) props.onChooseAll();
  };

  const opens = (column: number) => props.opensBy !== undefined && props.columns[column - 1]?.id === props.opensBy;

  /** A range is chosen with Shift: the browser would paint the text between the two clicks as well. */
  const onMouseDown = (event: MouseEvent<HTMLDivElement>) => {
    if (!event.shiftKey || (event.target as HTMLElement).closest('input')) return;
    event.preventDefault();
    event.currentTarget.focus();
  };

  const onDoubleClick = (event: MouseEvent<HTMLDivElement>) => {
    const cell = (event.target as HTMLElement).closest<HTMLElement>('[data-row]');
    if (cell && Number(cell.dataset.row) >= 0 && !opens(Number(cell.dataset.column)))
      openAt(Number(cell.dataset.row), Number(cell.dataset.column));
  };
  return { onClick, onDoubleClick, onMouseDown };
}
