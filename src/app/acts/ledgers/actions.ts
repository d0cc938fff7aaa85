'use server';
import type { Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { discardDemo, type LedgerName, openLedger } from '@/usecases/ledgers/choice';
import { emptyLedger } from '@/usecases/ledgers/empty';

export async function openLedgerAction(ledger: LedgerName): Promise<true | Refusal> {
  return openLedger(deps(), ledger);
}

export async function discardDemoAction(): Promise<true | Refusal> {
  return discardDemo(deps());
}

/** Empties the ledger that is open; answers how many names it held. */
export async function emptyLedgerAction(input: unknown): Promise<number | Refusal> {
  return emptyLedger(deps(), input);
}
