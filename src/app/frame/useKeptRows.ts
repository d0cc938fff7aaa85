'use client';
import { useCallback, useRef, useState } from 'react';

/** Rows above and below those in view, for the next turn of the wheel. */
const AROUND = 20;
const FIRST_WINDOW = 60;

/** The rows of an arrangement in the worker that are known here, by place. */
export interface KeptRows<R> {
  readonly rowAt: (place: number) => R | undefined;
  /** The places in view. */
  readonly shown: () => { readonly from: number; readonly to: number };
  /** Remembers which places are in view, and fetches those that are not known; `false` for `fetches` only remembers. */
  readonly need: (from: number, to: number, fetches?: boolean) => void;
  /** Fetches what is in view and lies around it. */
  readonly fetchShown: () => void;
  /** Begins anew with the rows of another arrangement. */
  readonly restart: (from: number, rows: readonly R[]) => void;
}

/** Keeps what is in view of a long list whose rows are read from the worker, from one place to another. */
export function useKeptRows<R>(read: (from: number, to: number) => Promise<readonly R[]>): KeptRows<R> {
  const rows = useRef(new Map<number, R>());
  const inView = useRef({ from: 0, to: FIRST_WINDOW });
  const [, redraw] = useState(0);
  const fetchRows = useCallback(
    (from: number, to: number) => {
      const start = Math.max(0, from);
      const arrangement = rows.current;
      void read(start, to).then((fetched) => {
        if (rows.current !== arrangement) return;
        // A row that is drawn already is not drawn anew.
        for (const [i, row] of fetched.entries()) if (!rows.current.has(start + i)) rows.current.set(start + i, row);
        redraw((n) => n + 1);
      });
    },
    [read],
  );
  const need = useCallback(
    (from: number, to: number, fetches = true) => {
      inView.current = { from, to };
      if (!fetches) return;
      for (let place = from; place < to; place += 1) {
        if (rows.current.has(place)) continue;
        fetchRows(from - AROUND, to + AROUND);
        return;
      }
    },
    [fetchRows],
  );
  const fetchShown = useCallback(
    () => fetchRows(inView.current.from - AROUND, inView.current.to + AROUND),
    [fetchRows],
  );
  const restart = useCallback((from: number, fresh: readonly R[]) => {
    rows.current = new Map(fresh.map((row, i) => [from + i, row]));
  }, []);
  const rowAt = useCallback((place: number) => rows.current.get(place), []);
  const shown = useCallback(() => inView.current, []);
  return { rowAt, shown, need, fetchShown, restart };
}
