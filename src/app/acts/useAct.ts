'use client';
import { useCallback, useState } from 'react';
import { isRefusal, type Refusal } from '@/core/refusal';
import type { Done } from '@/usecases/changing';
import { useLedger } from '../frame/LedgerProvider';
import { reportDone } from './reportDone';
import { undoAction } from './undo/actions';
import { useBusy } from './useBusy';

/** What a screen needs to do something with names. */
export interface Act {
  /** Carries out, reports what came of it with a way back, and reads the ledger anew. Answers whether it was done. */
  act(work: () => Promise<Done | Refusal>): Promise<boolean>;
  /** Takes a batch back. */
  undo(batchId: number): Promise<boolean>;
  readonly isBusy: boolean;
  /** Why the last one was not done: a form shows it at the field it names. */
  readonly refused: Refusal | null;
}

/**
 * Doing something with names, the same way on every screen. What was done is reported once the ledger shows it and its dialog can
 * close: a report that came before would let keys meant for what is beneath fall into the dialog.
 */
export function useAct(): Act {
  const { reload } = useLedger();
  const [isBusy, during] = useBusy();
  const [refused, setRefused] = useState<Refusal | null>(null);

  const undo = useCallback(
    async (batchId: number) => {
      const answer = await undoAction(batchId);
      if (!isRefusal(answer)) await reload();
      return reportDone(answer, null);
    },
    [reload],
  );

  const act = useCallback(
    async (work: () => Promise<Done | Refusal>) => {
      const done = async () => {
        const answer = await work();
        setRefused(isRefusal(answer) ? answer : null);
        if (!isRefusal(answer)) await reload();
        return reportDone(answer, (batchId) => void undo(batchId));
      };
      return during(done());
    },
    [reload, undo, during],
  );

  return { act, undo, isBusy, refused };
}
