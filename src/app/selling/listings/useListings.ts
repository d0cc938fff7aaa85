'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { ListingLine, ListingSums, ListingWish } from '@/core/selling';
import { useLedger, useLedgerChange } from '../../frame/LedgerProvider';
import { type KeptRows, useKeptRows } from '../../frame/useKeptRows';

export interface Listings extends Pick<KeptRows<ListingLine>, 'rowAt' | 'need'> {
  /** What the listings that fit come to; `null` until they have been read. */
  readonly sums: ListingSums | null;
  /** Rises with every arrangement that other filters or another sorting made. */
  readonly order: number;
  /** How often they have been read. */
  readonly readings: number;
  readonly hasFailed: boolean;
  readonly load: () => Promise<void>;
}

/** The listings that fit a wish, arranged by the worker; read anew after each change of the ledger. */
export function useListings(wish: ListingWish): Listings {
  const { worker } = useLedger();
  const [sums, setSums] = useState<ListingSums | null>(null);
  const [order, setOrder] = useState(0);
  const [readings, setReadings] = useState(0);
  const [hasFailed, setFailed] = useState(false);
  const read = useCallback(async (from: number, to: number) => (await worker?.listings(from, to)) ?? [], [worker]);
  const { rowAt, shown, need, restart } = useKeptRows(read);
  const last = useRef<ListingWish | null>(null);

  const load = useCallback(async () => {
    if (!worker) return;
    try {
      await worker.loadListings();
      setFailed(false);
      setReadings((n) => n + 1);
    } catch (cause) {
      console.warn('the listings could not be read', cause);
      setFailed(true);
    }
  }, [worker]);
  useEffect(() => void load(), [load]);
  useLedgerChange(load);

  useEffect(() => {
    if (!worker || readings === 0) return;
    let isStale = false;
    const { from, to } = shown();
    const reordered = last.current !== null && last.current !== wish;
    const start = reordered ? 0 : from;
    void worker.arrangeListings(wish, start, start + to - from).then((arranged) => {
      if (isStale) return;
      last.current = wish;
      restart(start, arranged.rows);
      setSums(arranged.sums);
      if (reordered) setOrder((n) => n + 1);
    });
    return () => {
      isStale = true;
    };
  }, [worker, wish, readings, shown, restart]);
  return { sums, order, readings, hasFailed, rowAt, need, load };
}
