'use server';
import type { Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { answerFirst } from '@/usecases/settings';

export async function answerFirstAction(input: unknown): Promise<true | Refusal> {
  return answerFirst(deps(), input);
}
