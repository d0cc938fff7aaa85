'use server';
import type { Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { type Done, editNames } from '@/usecases/names/edit';

export async function editNamesAction(input: unknown): Promise<Done | Refusal> {
  return editNames(deps(), input);
}
