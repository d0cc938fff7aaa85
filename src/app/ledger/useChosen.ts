'use client';
import type { Remote } from 'comlink';
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { Totals } from '@/core/ledger';
import type { Instant } from '@/core/time';
import type { LedgerWorker } from '../frame/ledger.worker';
import { useChosenIds } from '../frame/useChosenIds';
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
  const read = useCallback(async (from: number, to: number) => (await worker?.ids(from, to)) ?? [], [worker]);
  const { ids, choose, all, set } = useChosenIds(read);
  const [rows, setRows] = useState<readonly RowView[]>([]);
  const [totals, setTotals] = useState<Totals | null>(null);

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
      if (list.length <= MOST_ROWS && found.length < list.length) set(found.map((row) => row.name.id));
    });
    return () => {
      stale = true;
    };
  }, [worker, ids, day, revision, set]);

  return useMemo(
    () => ({
      count: ids.size,
      ids: [...ids],
      rows,
      totals,
      has: (id) => ids.has(id),
      choose,
      only: (id) => set([id]),
      all,
      clear: () => set([]),
    }),
    [ids, rows, totals, choose, all, set],
  );
}
