'use server';
import type { Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import type { Done } from '@/usecases/names/edit';
import { giveBack } from '@/usecases/rescue/giveBack';

export async function refundAction(input: unknown): Promise<Done | Refusal> {
  return giveBack(deps(), input);
}
