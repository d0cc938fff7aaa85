import { useEffect, useState } from 'react';
import { USUAL_YEARS } from '@/core/ledger';
import { useLedger } from '../../frame/LedgerProvider';
import type { PlannedNames, PlanView } from '../../frame/views';

/** What a plan is made for, as it is chosen on screen. */
export interface PlanWish {
  readonly which: PlannedNames;
  readonly targetId: number | null;
  readonly years: number;
  readonly budgetMinor: number | null;
  readonly evenIfDearer: boolean;
}

export const FIRST_WISH: PlanWish = {
  which: { kind: 'all' },
  targetId: null,
  years: USUAL_YEARS,
  budgetMinor: null,
  evenIfDearer: false,
};

/** The plan, made beside the page as the ledger and the wishes change; `isOld` while another is being made. */
export function usePlan(wish: PlanWish, underWay: readonly number[]): { plan: PlanView | null; isOld: boolean } {
  const { worker, meta } = useLedger();
  const [made, setMade] = useState<{ wish: PlanWish; revision: number; plan: PlanView } | null>(null);
  useEffect(() => {
    if (!worker || !meta) return;
    let stale = false;
    const { which, ...asked } = wish;
    void worker
      .plan(which, { ...asked, underWay: new Set(underWay) })
      .then((plan) => !stale && setMade({ wish, revision: meta.revision, plan }));
    return () => {
      stale = true;
    };
  }, [worker, meta, wish, underWay]);
  return { plan: made?.plan ?? null, isOld: made?.wish !== wish || made.revision !== meta?.revision };
}
