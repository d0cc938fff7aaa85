'use client';
import { type RefObject, useLayoutEffect, useState } from 'react';

/** The width that an element has, in pixels and never under `least`, as it changes; `usual` until it is known. */
export function useWidth(box: RefObject<HTMLElement | null>, usual: number, least = 1): number {
  const [width, setWidth] = useState(usual);
  useLayoutEffect(() => {
    const element = box.current;
    if (!element) return;
    const observer = new ResizeObserver(() => setWidth(Math.max(least, Math.floor(element.clientWidth))));
    observer.observe(element);
    return () => observer.disconnect();
  }, [box, least]);
  return width;
}
