'use client';
import { type RefObject, useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { LedgerView, Totals } from '@/core/ledger';
import type { Instant } from '@/core/time';
import { useDay, useLedger, useMoveDate } from '../frame/LedgerProvider';
import { useKeptRows } from '../frame/useKeptRows';
import type { RowView } from '../frame/views';

export interface ArrangedRows {
  readonly total: number | null;
  /** The view and the day the rows stand for: the chosen ones, or for a moment still those before them. */
  readonly view: LedgerView;
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

/** An arrangement whose rows are drawn. */
interface Drawn {
  readonly total: number;
  readonly view: LedgerView;
  readonly day: Instant;
  readonly wishedMs: number;
}

const REST_MS = 180;
/** What the browser's profiler calls the time from a wish until its rows are in the document. */
const ARRANGING = 'arrange the ledger';

/**
 * Keeps the rows in view arranged by the worker. While one arrangement is on its way only the newest wish waits, so that
 * moving the date follows the hand however fast it moves.
 */
export function useArrangedRows(view: LedgerView): ArrangedRows {
  const { worker } = useLedger();
  const { day } = useDay();
  const [arranged, setArranged] = useState<Drawn | null>(null);
  const [totals, setTotals] = useState<Totals | null>(null);
  const [areTotalsOld, setTotalsOld] = useState(false);
  const [order, setOrder] = useState(0);
  const read = useCallback(async (from: number, to: number) => (await worker?.rows(from, to)) ?? [], [worker]);
  const { rowAt, shown, need: needRows, fetchShown, restart } = useKeptRows(read);
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
        const wishedMs = performance.now();
        const reordered = last.current !== null && last.current !== now.view;
        // Only what is in view: what lies around it is fetched when the hand rests.
        const inView = shown();
        const from = reordered ? 0 : inView.from;
        const answer = await worker.arrange(now.view, now.day, from, from + inView.to - inView.from);
        restart(from, answer.rows);
        last.current = now.view;
        setArranged({ total: answer.total, view: now.view, day: now.day, wishedMs });
        if (reordered) setOrder((n) => n + 1);
        // Sums wait until the hand rests: the rows must follow it.
        clearTimeout(resting.current);
        setTotalsOld(true);
        const rest = async () => {
          fetchShown();
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
  }, [worker, shown, restart, fetchShown]);

  useLayoutEffect(() => {
    if (!arranged) return;
    performance.clearMeasures(ARRANGING);
    performance.measure(ARRANGING, { start: arranged.wishedMs });
  }, [arranged]);

  const foresee = useWishes(view, wish, run);

  // What an arrangement is on its way for is not fetched of the one before.
  const need = useCallback((from: number, to: number) => needRows(from, to, !busy.current), [needRows]);

  return {
    total: arranged?.total ?? null,
    view: arranged?.view ?? view,
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
  const { day } = useDay();
  const { onMove } = useMoveDate();
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
