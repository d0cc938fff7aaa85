'use client';
import type { Remote } from 'comlink';
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react';
import { addDays, dayIn, dayOf, type Instant } from '@/core/time';
import type { DayStyle } from '@/ui/text/words';
import type { LedgerWorker } from './ledger.worker';
import { takeLedger } from './ledgerThread';
import type { LedgerMeta } from './views';

/** What every screen knows: today, and the ledger in its worker. */
export interface LedgerContext {
  readonly today: Instant;
  readonly style: DayStyle;
  readonly homeCurrency: string;
  readonly meta: LedgerMeta | null;
  readonly problem: string | null;
  readonly worker: Remote<LedgerWorker> | null;
  /** Fetches the ledger anew if it has changed: after an act, or when the window is looked at again. */
  reload(): Promise<void>;
}

/** The day that is shown. Apart from the rest, so that moving it draws anew only what shows it. */
export interface DayContext {
  /** Today, or later when the date has been moved. */
  readonly day: Instant;
  readonly daysAhead: number;
}

/** How the day that is shown is moved. Apart from the day: who only moves it is not drawn anew. */
export interface MoveDate {
  moveDate(daysAhead: number): void;
  moveBy(days: number): void;
  /** Hears of every move before it is drawn, so that the ledger is worked out meanwhile. Answers how to stop hearing. */
  onMove(hear: (day: Instant) => void): () => void;
}

const Context = createContext<LedgerContext | null>(null);
const Day = createContext<DayContext | null>(null);
const Moving = createContext<MoveDate | null>(null);
const IsAhead = createContext(false);

function framed<T>(context: T | null): T {
  if (!context) throw new Error('the ledger is known inside the frame only');
  return context;
}

export const useLedger = (): LedgerContext => framed(useContext(Context));
export const useDay = (): DayContext => framed(useContext(Day));
export const useMoveDate = (): MoveDate => framed(useContext(Moving));
/** True while a later day than today is shown. */
export const useIsAhead = (): boolean => useContext(IsAhead);

/** Acts after each change of the ledger, and not for the state that the page was drawn with. */
export function useLedgerChange(act: () => void): void {
  const { meta } = useLedger();
  const seen = useRef<number | null>(null);
  useEffect(() => {
    if (!meta) return;
    if (seen.current !== null && seen.current !== meta.revision) act();
    seen.current = meta.revision;
  }, [meta, act]);
}

/** On which windows of one browser tell each other that the ledger has changed, by its new number. */
const CHANGED = 'name-ledger changed';

/** Very many names are read within a few seconds. */
const ASK_AGAIN_MS = 1500;

/** The ledger in its thread: read when the window opens, when something was done in it, and when it or another window is looked at again. */
function useLedgerThread(): Pick<LedgerContext, 'meta' | 'problem' | 'worker' | 'reload'> {
  const [meta, setMeta] = useState<LedgerMeta | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [worker, setWorker] = useState<Remote<LedgerWorker> | null>(null);
  const live = useRef<Remote<LedgerWorker> | null>(null);

  const known = useRef<number | null>(null);
  const others = useRef<BroadcastChannel | null>(null);

  const take = useCallback(async (loading: Promise<LedgerMeta>) => {
    try {
      const read = await loading;
      // Who hears of it from another window knows the number already when it has read the ledger, and tells it no further.
      if (known.current !== null && read.revision > known.current) others.current?.postMessage(read.revision);
      known.current = read.revision;
      setMeta(read);
      setProblem(null);
    } catch (cause) {
      console.error('the ledger could not be read', cause);
      setProblem('The ledger could not be read. Is the program still running? Then load the page again.');
    }
  }, []);
  const reload = useCallback(async () => {
    if (live.current) await take(live.current.load());
  }, [take]);
  useEffect(() => {
    if (!meta?.isBehind) return;
    const asking = setInterval(() => void reload(), ASK_AGAIN_MS);
    return () => clearInterval(asking);
  }, [meta, reload]);

  useEffect(() => {
    const { thread, remote, loaded } = takeLedger();
    live.current = remote;
    setWorker(() => remote);
    void take(loaded);
    const channel = new BroadcastChannel(CHANGED);
    others.current = channel;
    channel.onmessage = ({ data: revision }: MessageEvent<number>) => {
      if (known.current === null || revision <= known.current) return;
      known.current = revision;
      void reload();
    };
    const looked = () => document.visibilityState === 'visible' && void reload();
    document.addEventListener('visibilitychange', looked);
    window.addEventListener('focus', looked);
    return () => {
      document.removeEventListener('visibilitychange', looked);
      window.removeEventListener('focus', looked);
      live.current = null;
      others.current = null;
      channel.close();
      thread.terminate();
    };
  }, [reload, take]);

  return { meta, problem, worker, reload };
}

/** The furthest the date can be moved. */
export const MOST_DAYS_AHEAD = 730;

export function LedgerProvider({
  now,
  zone,
  homeCurrency,
  children,
}: {
  now: Instant;
  zone: string;
  homeCurrency: string;
  children: ReactNode;
}) {
  const [daysAhead, setDaysAhead] = useState(0);
  const { meta, problem, worker, reload } = useLedgerThread();

  const today = meta?.asOf ?? now;
  const moving = useMovedDate(today, setDaysAhead);
  const ledger = useMemo<LedgerContext>(
    () => ({
      today,
      style: { zone, today: zone === 'UTC' ? dayOf(today) : dayIn(today, zone) },
      homeCurrency,
      meta,
      problem,
      worker,
      reload,
    }),
    [today, zone, homeCurrency, meta, problem, worker, reload],
  );
  const shown = useMemo<DayContext>(() => ({ day: addDays(today, daysAhead), daysAhead }), [today, daysAhead]);
  return (
    <Context value={ledger}>
      <Moving value={moving}>
        <IsAhead value={daysAhead > 0}>
          <Day value={shown}>{children}</Day>
        </IsAhead>
      </Moving>
    </Context>
  );
}

/** Moves the date within what can be looked ahead, and tells whoever hears of it before it is drawn. */
function useMovedDate(today: Instant, set: (daysAhead: number) => void): MoveDate {
  const hearers = useRef(new Set<(day: Instant) => void>());
  const now = useRef(0);
  return useMemo(() => {
    const moveDate = (days: number) => {
      now.current = Math.max(0, Math.min(MOST_DAYS_AHEAD, Math.round(days)));
      for (const hear of hearers.current) hear(addDays(today, now.current));
      set(now.current);
    };
    return {
      moveDate,
      moveBy: (days) => moveDate(now.current + days),
      onMove: (hear) => {
        hearers.current.add(hear);
        return () => void hearers.current.delete(hear);
      },
    };
  }, [today, set]);
}
