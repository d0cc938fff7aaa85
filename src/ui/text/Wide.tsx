'use client';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import styled from 'styled-components';

const Box = styled.div`overflow-x: auto;`;

/** Lets a wide table scroll on its own; while it does, it can be reached and scrolled by keyboard. */
export function Wide({ children }: { children: ReactNode }) {
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
    <Box ref={box} tabIndex={scrolls ? 0 : undefined}>
      {children}
    </Box>
  );
}
