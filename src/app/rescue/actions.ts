'use server';
import type { Refusal } from '@/core/refusal';
import type { Done } from '@/usecases/changing';
import { deps } from '@/usecases/deps';
import { runOfName } from '@/usecases/orders/start';
import { decideRescue, saveSaleOdds } from '@/usecases/rescue/decide';

export async function decideRescueAction(input: unknown): Promise<Done | Refusal> {
  return decideRescue(deps(), input);
}

export async function saveSaleOddsAction(input: unknown): Promise<true | Refusal> {
  return saveSaleOdds(deps(), input);
}

/** The run that is changing a name now, or `null`. */
export async function runOfNameAction(nameId: number): Promise<string | null> {
  return runOfName(deps(), nameId);
}
