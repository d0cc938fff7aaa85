'use client';
import type { Remote } from 'comlink';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Totals } from '@/core/ledger';
import type { Instant } from '@/core/time';
import type { LedgerWorker } from '../frame/ledger.worker';
import type { RowView } from '../frame/views';

export interface Chosen {
  readonly count: number;
  readonly ids: readonly number[];
  /** The first of the chosen rows: enough to speak of them, and no more than a message can carry. */
  readonly rows: readonly RowView[];
  readonly totals: Totals | null;
  readonly has: (id: number) => boolean;
  readonly choose: (place: number, range: boolean) => Promise<void>;
  readonly only: (id: number) => void;
  readonly all: (total: number) => Promise<void>;
  readonly clear: () => void;
}

/** As many names as one renewal takes. */
const MOST_ROWS = 1000;

/** The chosen names. They stay chosen while filters and the date change; their sums are the worker's. */
export function useChosen(worker: Remote<LedgerWorker> | null, day: Instant, revision: number): Chosen {
  const [ids, setIds] = useState<ReadonlySet<number>>(new Set());
  const [rows, setRows] = useState<readonly RowView[]>([]);
  const [totals, setTotals] = useState<Totals | null>(null);
  const anchor = useRef<number | null>(null);

  // biome-ignore lint/correctness/useExhaustiveDependencies: a new revision means new figures for the same names
  useEffect(() => {
    if (!worker || ids.size === 0) {
      setTotals(null);
      setRows([]);
      return;
    }
    let stale = false;
    const list = [...ids];
    void Promise.all([worker.totals(list, day), worker.rowsOf(list.slice(0, MOST_ROWS), day)]).then(([sums, found]) => {
      if (stale) return;
      setTotals(sums);
      setRows(found);
      if (list.length <= MOST_ROWS && found.length < list.length) setIds(new Set(found.map((row) => row.name.id)));
    });
    return () => {
      stale = true;
    };
  }, [worker, ids, day, revision]);

  const choose = useCallback(
    async (place: number, range: boolean) => {
      if (!worker) return;
      if (range && anchor.current !== null) {
        const [from, to] = [Math.min(anchor.current, place), Math.max(anchor.current, place)];
        const more = await worker.ids(from, to + 1);
        setIds((now) => new Set([...now, ...more]));
        return;
      }
      anchor.current = place;
      const [id] = await worker.ids(place, place + 1);
      if (id === undefined) return;
      setIds((now) => {
        const next = new Set(now);
        if (!next.delete(id)) next.add(id);
        return next;
      });
    },
    [worker],
  );

  const all = useCallback(
    async (total: number) => {
      if (!worker) return;
      const every = await worker.ids(0, total);
      setIds((now) => (now.size >= every.length ? new Set() : new Set(every)));
    },
    [worker],
  );

  return useMemo(
    () => ({
      count: ids.size,
      ids: [...ids],
      rows,
      totals,
      has: (id) => ids.has(id),
      choose,
      only: (id) => setIds(new Set([id])),
      all,
      clear: () => setIds(new Set()),
    }),
    [ids, rows, totals, choose, all],
  );
}
