'use client';
import { useRef } from 'react';
import { useMove } from 'react-aria';
import styled from 'styled-components';

const Edge = styled.div`
  position: absolute;
  right: 0;
  top: 6px;
  bottom: 6px;
  width: 7px;
  cursor: col-resize;
  border-right: 1px solid transparent;
  &:hover { border-right-color: var(--ink-soft); }
`;

const NARROWEST = 40;
const WIDEST = 640;

/** The edge of a column's heading, dragged to set its width. */
export function ColumnEdge({ width, onWidth }: { width: number; onWidth: (width: number) => void }) {
  const now = useRef(width);
  const { moveProps } = useMove({
    onMoveStart: () => {
      now.current = width;
    },
    onMove: ({ deltaX }) => {
      now.current += deltaX;
      onWidth(Math.round(Math.max(NARROWEST, Math.min(WIDEST, now.current))));
    },
  });
  return <Edge {...moveProps} onClick={(event) => event.stopPropagation()} aria-hidden />;
}
