'use client';
import { type CSSProperties, type ReactNode, useEffect, useRef, useState } from 'react';
import styled from 'styled-components';

const Box = styled.div`
  overflow-x: auto;
  /* It scrolls before its columns are squeezed. */
  & > table:not([data-list]) { min-width: var(--least); }
`;

/** Lets a wide table scroll on its own; while it does, it can be reached and scrolled by keyboard. `least` is the width that its columns need, in pixels. */
export function Wide({ children, least = 0 }: { children: ReactNode; least?: number }) {
  const box = useRef<HTMLDivElement>(null);
  const [scrolls, setScrolls] = useState(false);
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const watch = new ResizeObserver(() => setScrolls(element.scrollWidth > element.clientWidth));
    watch.observe(element);
    for (const child of element.children) watch.observe(child);
    return () => watch.disconnect();
  }, []);
  return (
    <Box ref={box} style={{ '--least': `${least}px` } as CSSProperties} tabIndex={scrolls ? 0 : undefined}>
      {children}
    </Box>
  );
}
