'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { isRefusal, type Refusal } from '@/core/refusal';
import { report } from '@/ui/overlay/Toasts';
import { useLedger } from '../frame/LedgerProvider';
import { useBusy } from './useBusy';

type Words<T> = string | ((answer: T) => string);

/** What a page needs to save something that it shows. */
export interface Save {
  /** Waits for the answer to a form: refused, it is kept for the field; else it is told and the page is read anew. `null` when refused. */
  save<T>(asked: Promise<T | Refusal>, words: Words<T>): Promise<T | null>;
  /** The same for a button outside a form: a refusal is told. */
  ask<T>(asked: Promise<T | Refusal>, words: Words<T>): Promise<T | null>;
  /** Why the last form was refused. */
  readonly refused: Refusal | null;
  readonly setRefused: (refused: Refusal | null) => void;
  readonly isBusy: boolean;
}

/** Saving what a page shows, the same way everywhere. `ledger` reads the ledger anew as well: prices, rules, names have changed. */
export function useSave({ ledger = false }: { ledger?: boolean } = {}): Save {
  const router = useRouter();
  const { reload } = useLedger();
  const [isBusy, during] = useBusy();
  const [refused, setRefused] = useState<Refusal | null>(null);

  const answered = async <T>(asked: Promise<T | Refusal>, words: Words<T>, tell: (refused: Refusal | null) => void) => {
    const answer = await asked;
    tell(isRefusal(answer) ? answer : null);
    if (isRefusal(answer)) return null;
    report({ text: typeof words === 'string' ? words : words(answer) });
    if (ledger) await reload();
    router.refresh();
    return answer;
  };

  return {
    save: (asked, words) => during(answered(asked, words, setRefused)),
    ask: (asked, words) =>
      during(answered(asked, words, (problem) => problem && report({ text: problem.message, problem: true }))),
    refused,
    setRefused,
    isBusy,
  };
}
