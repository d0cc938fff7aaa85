'use server';
import type { Refusal } from '@/core/refusal';
import type { Done } from '@/usecases/changing';
import { deps } from '@/usecases/deps';
import { editNames } from '@/usecases/names/edit';

export async function editNamesAction(input: unknown): Promise<Done | Refusal> {
  return editNames(deps(), input);
}
