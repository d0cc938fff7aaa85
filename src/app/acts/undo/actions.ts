'use server';
import type { Refusal } from '@/core/refusal';
import type { Done } from '@/usecases/changing';
import { deps } from '@/usecases/deps';
import { undo, undoLast } from '@/usecases/names/undo';

export async function undoAction(batchId: number): Promise<Done | Refusal> {
  return undo(deps(), batchId);
}

/** Takes back the last thing that was done in the books here. */
export async function undoLastAction(): Promise<Done | Refusal> {
  return undoLast(deps());
}
