'use client';
import { type RefObject, useCallback, useEffect, useRef, useState } from 'react';
import type { LedgerView, Totals } from '@/core/ledger';
import type { Instant } from '@/core/time';
import { useDay, useLedger } from '../frame/LedgerProvider';
import type { RowView } from '../frame/views';

export interface ArrangedRows {
  readonly total: number | null;
  /** The day the rows stand for: the chosen one, or for a moment still the one before it. */
  readonly day: Instant;
  readonly totals: Totals | null;
  /** The totals are still those of another day or other filters. */
  readonly areTotalsOld: boolean;
  /** Rises with every arrangement whose order may differ because filters or sorting changed. */
  readonly order: number;
  readonly rowAt: (place: number) => RowView | undefined;
  readonly need: (from: number, to: number) => void;
  /** Has the worker begin with a view that is about to be shown, while the page is still drawing what was asked for. */
  readonly foresee: (view: LedgerView) => void;
}

/** An arrangement that is asked of the worker. */
interface Wish {
  readonly view: LedgerView;
  readonly day: Instant;
  readonly revision: number;
}

const FIRST_WINDOW = 60;
/** Rows above and below those in view, for the next turn of the wheel. */
const AROUND = 20;
const REST_MS = 180;
/** What the browser's profiler calls the time from a wish to its rows. */
const ARRANGING = 'arrange the ledger';

/** The rows that are known of the arrangement, by place, and how more of them are fetched. */
function useKeptRows() {
  const { worker } = useLedger();
  const rows = useRef(new Map<number, RowView>());
  const [, redraw] = useState(0);
  const fetchRows = useCallback(
    (from: number, to: number) => {
      const start = Math.max(0, from);
      void worker?.rows(start, to).then((fetched) => {
        // A row that is drawn already is not drawn anew.
        for (const [i, row] of fetched.entries()) if (!rows.current.has(start + i)) rows.current.set(start + i, row);
        redraw((n) => n + 1);
      });
    },
    [worker],
  );
  return { rows, fetchRows };
}

/**
 * Keeps the rows in view arranged by the worker. While one arrangement is on its way only the newest wish waits, so that
 * moving the date follows the hand however fast it moves.
 */
export function useArrangedRows(view: LedgerView): ArrangedRows {
  const { worker } = useLedger();
  const { day } = useDay();
  const [arranged, setArranged] = useState<{ total: number; day: Instant } | null>(null);
  const [totals, setTotals] = useState<Totals | null>(null);
  const [areTotalsOld, setTotalsOld] = useState(false);
  const [order, setOrder] = useState(0);
  const { rows, fetchRows } = useKeptRows();
  const shown = useRef({ from: 0, to: FIRST_WINDOW });
  const busy = useRef(false);
  const resting = useRef<ReturnType<typeof setTimeout>>(undefined);
  const wish = useRef<Wish | null>(null);
  const last = useRef<LedgerView | null>(null);

  const run = useCallback(async () => {
    if (!worker || busy.current) return;
    busy.current = true;
    try {
      while (wish.current) {
        const now = wish.current;
        wish.current = null;
        const start = performance.now();
        const reordered = last.current !== null && last.current !== now.view;
        // Only what is in view: what lies around it is fetched when the hand rests.
        const from = reordered ? 0 : shown.current.from;
        const to = from + shown.current.to - shown.current.from;
        const answer = await worker.arrange(now.view, now.day, from, to);
        rows.current = new Map(answer.rows.map((row, i) => [from + i, row]));
        last.current = now.view;
        setArranged({ total: answer.total, day: now.day });
        if (reordered) setOrder((n) => n + 1);
        performance.clearMeasures(ARRANGING);
        performance.measure(ARRANGING, { start });
        // Sums wait until the hand rests: the rows must follow it.
        clearTimeout(resting.current);
        setTotalsOld(true);
        const rest = async () => {
          fetchRows(shown.current.from - AROUND, shown.current.to + AROUND);
          const sums = await worker.arrangedTotals(now.day);
          if (sums === null) return;
          setTotals(sums);
          setTotalsOld(false);
        };
        resting.current = setTimeout(() => void rest(), REST_MS);
      }
    } finally {
      busy.current = false;
    }
  }, [worker, rows, fetchRows]);

  const foresee = useWishes(view, wish, run);

  const need = useCallback(
    (from: number, to: number) => {
      shown.current = { from, to };
      if (busy.current) return;
      for (let place = from; place < to; place += 1) {
        if (rows.current.has(place)) continue;
        fetchRows(from - AROUND, to + AROUND);
        return;
      }
    },
    [rows, fetchRows],
  );

  const rowAt = useCallback((place: number) => rows.current.get(place), [rows]);
  return {
    total: arranged?.total ?? null,
    day: arranged?.day ?? day,
    totals,
    areTotalsOld,
    order,
    rowAt,
    need,
    foresee,
  };
}

/** Makes a wish of whatever is to be shown, once each, and has it carried out. Answers how to wish for a view before the page is drawn with it. */
function useWishes(view: LedgerView, wish: RefObject<Wish | null>, run: () => Promise<void>): ArrangedRows['foresee'] {
  const { worker, meta } = useLedger();
  const { day, onMove } = useDay();
  const asked = useRef<Wish | null>(null);
  const ask = useCallback(
    (next: Partial<Wish>) => {
      const before = asked.current;
      const now = { ...before, ...next } as Wish;
      const isAsked = before?.view === now.view && before.day === now.day && before.revision === now.revision;
      if (isAsked) return;
      asked.current = now;
      wish.current = now;
      void run();
    },
    [wish, run],
  );
  useEffect(() => {
    if (meta && worker) ask({ view, day, revision: meta.revision });
  }, [view, day, meta, worker, ask]);
  // Before anything was asked for there is nothing to be ahead of.
  useEffect(() => onMove((next) => asked.current && ask({ day: next })), [onMove, ask]);
  return useCallback((next: LedgerView) => void (asked.current && ask({ view: next })), [ask]);
}
