'use server';
import type { Refusal } from '@/core/refusal';
import type { Done } from '@/usecases/changing';
import { deps } from '@/usecases/deps';
import { refundName } from '@/usecases/rescue/refund';

export async function refundAction(input: unknown): Promise<Done | Refusal> {
  return refundName(deps(), input);
}
