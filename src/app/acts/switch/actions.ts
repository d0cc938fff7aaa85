'use server';
import type { Refusal } from '@/core/refusal';
import type { Done } from '@/usecases/changing';
import { deps } from '@/usecases/deps';
import { confirmSwitch, requestSwitch } from '@/usecases/names/edit';
import { switchedLater } from './switchedLater';

/** Asks for auto-renew, lock or privacy to be switched. Where the account has a link, the registrar is told right after the answer. */
export async function requestSwitchAction(input: unknown): Promise<Done | Refusal> {
  return switchedLater(await requestSwitch(deps(), input));
}

export async function confirmSwitchAction(input: unknown): Promise<Done | Refusal> {
  return confirmSwitch(deps(), input);
}
