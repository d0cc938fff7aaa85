'use client';
import { useCallback, useRef, useState } from 'react';

/** What is chosen of a long list, by id. It stays chosen while the list is filtered and sorted. */
export interface ChosenIds {
  readonly ids: ReadonlySet<number>;
  /** Chooses the row at a place or lets it go; with `range`, everything from the last chosen to it. */
  readonly choose: (place: number, range: boolean) => Promise<void>;
  /** Chooses all of so many rows, or lets them go where they are. */
  readonly all: (total: number) => Promise<void>;
  readonly set: (ids: Iterable<number>) => void;
}

/** Keeps what is chosen; `read` answers the ids of the list from one place to another. */
export function useChosenIds(read: (from: number, to: number) => Promise<readonly number[]>): ChosenIds {
  const [ids, setIds] = useState<ReadonlySet<number>>(new Set());
  const anchor = useRef<number | null>(null);
  const choose = useCallback(
    async (place: number, range: boolean) => {
      if (range && anchor.current !== null) {
        const [from, to] = [Math.min(anchor.current, place), Math.max(anchor.current, place)];
        const more = await read(from, to + 1);
        setIds((now) => new Set([...now, ...more]));
        return;
      }
      anchor.current = place;
      const [id] = await read(place, place + 1);
      if (id === undefined) return;
      setIds((now) => {
        const next = new Set(now);
        if (!next.delete(id)) next.add(id);
        return next;
      });
    },
    [read],
  );
  const all = useCallback(
    async (total: number) => {
      const every = await read(0, total);
      setIds((now) => (now.size >= every.length ? new Set() : new Set(every)));
    },
    [read],
  );
  const set = useCallback((next: Iterable<number>) => setIds(new Set(next)), []);
  return { ids, choose, all, set };
}
