'use server';
import { isRefusal, type Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import type { Done } from '@/usecases/names/edit';
import { confirmRenewal } from '@/usecases/renewals/confirm';
import { changeRenewal, moveRenewal, type OpenRenewal } from '@/usecases/renewals/renew';

export async function changeRenewalAction(id: string, input: unknown): Promise<OpenRenewal | Refusal> {
  return changeRenewal(deps(), id, input);
}

/** Notes that the person has the steps, or drops the renewal. Answers a refusal, or nothing. */
export async function moveRenewalAction(id: string, to: 'asked' | 'dropped'): Promise<Refusal | null> {
  const moved = await moveRenewal(deps(), { id, to });
  return isRefusal(moved) ? moved : null;
}

export async function confirmRenewalAction(input: unknown): Promise<Done | Refusal> {
  return confirmRenewal(deps(), input);
}
