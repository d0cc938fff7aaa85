'use server';
import type { Refusal } from '@/core/refusal';
import { changeFunds } from '@/usecases/accounts/funds';
import { deps } from '@/usecases/deps';

/** Tops up an account or replaces its card; answers what was done, in a sentence. */
export async function changeFundsAction(input: unknown): Promise<string | Refusal> {
  return changeFunds(deps(), input);
}
