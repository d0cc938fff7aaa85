'use client';
import { useState } from 'react';
import { isRefusal } from '@/core/refusal';
import { report } from '@/ui/overlay/Toasts';
import type { LedgerChoice, LedgerName } from '@/usecases/ledgers/choice';
import { discardDemoAction, openLedgerAction } from './actions';

/** The demo is made in seconds; after so long something is wrong. */
const LONGEST_MS = 120_000;
const LOOK_EVERY_MS = 500;

/** Waits until the program has come back with what was asked for, and shows it. */
async function untilIt(is: (choice: LedgerChoice) => boolean): Promise<boolean> {
  const last = Date.now() + LONGEST_MS;
  while (Date.now() < last) {
    await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_MS));
    const answer = await fetch('/ledgers/open', { cache: 'no-store' }).catch(() => null);
    const choice = answer?.ok ? ((await answer.json().catch(() => null)) as LedgerChoice | null) : null;
    if (choice && is(choice)) return true;
  }
  return false;
}

/** Opens the demo or the office's own ledger, or throws the demo away: the page is loaded anew with what is open then. */
export function useOpenLedger() {
  const [doing, setDoing] = useState<string | null>(null);
  const follow = async (
    words: string,
    asked: ReturnType<typeof openLedgerAction>,
    is: (choice: LedgerChoice) => boolean,
  ) => {
    setDoing(words);
    const answer = await asked;
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else if (await untilIt(is)) window.location.assign('/today');
    else report({ text: 'It could not be opened. Setup → Log has the cause.', problem: true });
    setDoing(null);
  };
  return {
    /** What is being done, in words; `null` for nothing. */
    doing,
    open: (ledger: LedgerName) =>
      follow(
        ledger === 'demo' ? 'Opening the demo' : 'Opening your own ledger',
        openLedgerAction(ledger),
        (choice) => choice.open === ledger,
      ),
    discard: () =>
      follow('Throwing the demo away', discardDemoAction(), (choice) => choice.open === 'own' && !choice.hasDemo),
  };
}
