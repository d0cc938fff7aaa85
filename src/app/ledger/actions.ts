'use server';
import type { Refusal } from '@/core/refusal';
import type { Done } from '@/usecases/changing';
import { deps } from '@/usecases/deps';
import { addEntry, correctEntry } from '@/usecases/names/entries';
import { dropView, type SavedView, saveView } from '@/usecases/names/views';

export async function addEntryAction(input: unknown): Promise<Done | Refusal> {
  return addEntry(deps(), input);
}

export async function correctEntryAction(entryId: number): Promise<Done | Refusal> {
  return correctEntry(deps(), entryId);
}

export async function saveViewAction(
  label: string,
  query: string,
  columns: readonly string[],
): Promise<SavedView[] | Refusal> {
  return saveView(deps(), label, query, columns);
}

export async function dropViewAction(id: number): Promise<SavedView[] | Refusal> {
  return dropView(deps(), id);
}
