'use server';
import type { Refusal } from '@/core/refusal';
import { saveRise } from '@/usecases/accounts/prices';
import { deps } from '@/usecases/deps';

export async function saveRiseAction(input: unknown): Promise<true | Refusal> {
  return saveRise(deps(), input);
}
