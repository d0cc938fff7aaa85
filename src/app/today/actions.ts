'use server';
import type { Refusal } from '@/core/refusal';
import type { Done } from '@/usecases/changing';
import { deps } from '@/usecases/deps';
import { rejectForeign, settleForeign } from '@/usecases/moving/foreign';
import { editNames } from '@/usecases/names/edit';
import { type ConfirmationAnswer, settleConfirmation } from '@/usecases/people/confirmations';
import { seen, seenNames } from '@/usecases/reminders/remind';

/** Takes note that what was told of these names has been seen. */
export async function seenNamesAction(nameIds: readonly number[]): Promise<true | Refusal> {
  return seenNames(deps(), nameIds);
}

/** Takes note that a reminder has been seen, by the button behind the link in its mail. */
export async function seenAction(token: string): Promise<string | Refusal> {
  return seen(deps(), String(token));
}

/** Takes note that a name's holder has confirmed the mail address. */
export async function mailConfirmedAction(nameId: number): Promise<Done | Refusal> {
  return editNames(deps(), { nameIds: [nameId], edit: { mailConfirmed: true } });
}

/** Rejects a transfer that nobody here asked for, locks the name and changes its code. */
export async function rejectForeignAction(id: number): Promise<true | Refusal> {
  return rejectForeign(deps(), id);
}

export async function settleForeignAction(id: number, as: 'rejected' | 'in order'): Promise<true | Refusal> {
  return settleForeign(deps(), id, as);
}

/** Confirms what waits for a second person, declines it, or takes one's own back; answers what came of it. */
export async function settleConfirmationAction(id: number, answer: ConfirmationAnswer): Promise<string | Refusal> {
  return settleConfirmation(deps(), id, answer);
}
