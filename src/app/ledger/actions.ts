'use server';
import { after } from 'next/server';
import type { Refusal } from '@/core/refusal';
import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { carryOutSwitches } from '@/usecases/links/switches';
import { askSwitch, confirmSwitch, type Done, editNames } from '@/usecases/names/edit';
import { addEntry, correctEntry } from '@/usecases/names/entries';
import { undo } from '@/usecases/names/undo';
import { dropView, type SavedView, saveView } from '@/usecases/names/views';
import { planRenewal } from '@/usecases/renewals/renew';

export async function editNamesAction(input: unknown): Promise<Done | Refusal> {
  return editNames(deps(), input);
}

/** Asks for auto-renew, lock or privacy to be switched. Where the account has a link, the registrar is told right after the answer. */
export async function askSwitchAction(input: unknown): Promise<Done | Refusal> {
  const own = deps();
  const asked = await askSwitch(own, input);
  if (!isRefusal(asked)) {
    after(async () => {
      await carryOutSwitches(own).catch((error: unknown) =>
        own.log.error({ err: error }, 'switching at a registrar was interrupted'),
      );
    });
  }
  return asked;
}

export async function confirmSwitchAction(input: unknown): Promise<Done | Refusal> {
  return confirmSwitch(deps(), input);
}

export async function undoAction(batchId: number): Promise<Done | Refusal> {
  return undo(deps(), batchId);
}

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

export async function dropViewAction(id: number): Promise<SavedView[]> {
  return dropView(deps(), id);
}

/** Plans a renewal or restore of the chosen names, one term each. Answers its number. */
export async function planRenewalAction(
  items: readonly { nameId: number; years: number }[],
  action: 'renew' | 'restore' = 'renew',
): Promise<string | Refusal> {
  const planned = await planRenewal(deps(), { items, action });
  return isRefusal(planned) ? planned : planned.renewal.id;
}
