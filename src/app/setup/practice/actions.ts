'use server';
import type { Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { askForName, confirmHolderMail, letDayPass, type PracticeState, setFault } from '@/usecases/practice/practice';

/** Lets one day pass in the practice world and takes in what it brings. */
export async function letDayPassAction(): Promise<PracticeState | Refusal> {
  return letDayPass(deps());
}

export async function setFaultAction(
  registrar: string,
  kind: string | null,
  times: number,
): Promise<PracticeState | Refusal> {
  return setFault(deps(), registrar, kind, times);
}

export async function askForNameAction(name: string): Promise<PracticeState | Refusal> {
  return askForName(deps(), name);
}

export async function confirmHolderMailAction(name: string): Promise<PracticeState | Refusal> {
  return confirmHolderMail(deps(), name);
}
