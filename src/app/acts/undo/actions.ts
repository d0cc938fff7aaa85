'use server';
import type { Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import type { Done } from '@/usecases/names/edit';
import { undo } from '@/usecases/names/undo';

export async function undoAction(batchId: number): Promise<Done | Refusal> {
  return undo(deps(), batchId);
}
