'use server';
import type { Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import type { Done } from '@/usecases/names/edit';
import { refundName } from '@/usecases/rescue/refund';

export async function refundAction(input: unknown): Promise<Done | Refusal> {
  return refundName(deps(), input);
}
