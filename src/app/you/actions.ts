'use server';
import type { RegistrationResponseJSON } from '@simplewebauthn/server';
import type { Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import type { CeremonyAnswer } from '@/usecases/people/passkeys';
import { endOwnSessions } from '@/usecases/people/sessions';
import {
  addOwnPasskey,
  beginOwnPasskey,
  type Enrolment,
  enrolOwn,
  newOwnRecoveryCodes,
  removeOwnPasskey,
  setOwnPassPhrase,
} from '@/usecases/people/ways';
import { fromHere } from '../http/signedIn';

export async function beginPasskeyAction() {
  return beginOwnPasskey(deps(), fromHere());
}

export async function addPasskeyAction(
  answer: CeremonyAnswer<RegistrationResponseJSON>,
  label: string,
): Promise<true | Refusal> {
  return addOwnPasskey(deps(), fromHere(), answer, String(label));
}

export async function removePasskeyAction(id: number): Promise<true | Refusal> {
  return removeOwnPasskey(deps(), fromHere(), id);
}

export async function enrolAction(): Promise<Enrolment | Refusal> {
  return enrolOwn(deps(), fromHere());
}

export async function setPassPhraseAction(input: unknown): Promise<true | Refusal> {
  return setOwnPassPhrase(deps(), fromHere(), input);
}

/** New recovery codes, told once. */
export async function newRecoveryCodesAction(): Promise<string[] | Refusal> {
  return newOwnRecoveryCodes(deps(), fromHere());
}

/** Ends one of one's own sessions, or every other one; answers how many. */
export async function endOwnSessionsAction(only: number | null): Promise<number | Refusal> {
  return endOwnSessions(deps(), only === null ? { but: fromHere().session?.id ?? 0 } : { only });
}
