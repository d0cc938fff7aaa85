'use client';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { useLedger } from '../../frame/LedgerProvider';
import type { ChosenListings } from '../../frame/listingsWork';
import { useChosenIds } from '../../frame/useChosenIds';

/** As many names as are priced at once. */
const MOST_NAMES = 500;

/** The chosen listings; what they come to is worked out anew with every reading. */
export function useChosenListings(readings: number) {
  const { worker } = useLedger();
  const read = useCallback(async (from: number, to: number) => (await worker?.listingIds(from, to)) ?? [], [worker]);
  const { ids, choose, all, set } = useChosenIds(read);
  const [about, setAbout] = useState<ChosenListings | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was read anew comes to something else
  useEffect(() => {
    if (!worker || ids.size === 0) return setAbout(null);
    let isStale = false;
    void worker.chosenListings([...ids], MOST_NAMES).then((found) => !isStale && setAbout(found));
    return () => {
      isStale = true;
    };
  }, [worker, ids, readings]);
  return useMemo(() => ({ ids, about, choose, all, clear: () => set([]) }), [ids, about, choose, all, set]);
}
