import { useEffect, useMemo, useState } from 'react';
import type { PricesAsked } from '@/core/ledger';
import { dayOf } from '@/core/time';
import { useLedger } from '../frame/LedgerProvider';
import type { EndingView, PriceLineView } from '../frame/views';

/** What is compared, as it is chosen on screen. */
export interface Wanted {
  readonly years: number;
  /** `null`: a name that is still to be registered. */
  readonly heldAt: number | null;
  readonly monthsLeft: number;
  readonly newAt: ReadonlySet<number>;
  readonly code: string;
  readonly privacy: boolean;
}

export const FIRST_WANTED: Wanted = {
  years: 5,
  heldAt: null,
  monthsLeft: 6,
  newAt: new Set(),
  code: '',
  privacy: false,
};

/** The table of all endings, and one of them in full, computed beside the page as the ledger and the wishes change. */
export function usePrices(wanted: Wanted, ending: string | null) {
  const { worker, meta, today } = useLedger();
  const [lines, setLines] = useState<readonly PriceLineView[] | null>(null);
  const [detail, setDetail] = useState<EndingView | null>(null);
  const { heldAt, monthsLeft, newAt, code, privacy, years } = wanted;
  const asked = useMemo(
    (): PricesAsked => ({
      held: heldAt === null ? { kind: 'new' } : { kind: 'held', accountId: heldAt, yearsLeft: monthsLeft / 12 },
      day: dayOf(today),
      newAt,
      codes: code.trim() === '' ? [] : [code.trim()],
      privacy,
    }),
    [heldAt, monthsLeft, newAt, code, privacy, today],
  );
  useEffect(() => {
    if (!worker || !meta) return;
    let stale = false;
    void worker.prices(asked, years).then((found) => !stale && setLines(found));
    return () => {
      stale = true;
    };
  }, [worker, meta, asked, years]);
  const shown = ending ?? lines?.[0]?.ending ?? null;
  useEffect(() => {
    if (!worker || !meta || shown === null) return;
    let stale = false;
    void worker.pricesOf(shown, asked).then((found) => !stale && setDetail(found));
    return () => {
      stale = true;
    };
  }, [worker, meta, asked, shown]);
  return { lines, detail: detail?.ending === shown ? detail : null, shown };
}
