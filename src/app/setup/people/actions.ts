'use server';
import type { Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { setSecondPerson } from '@/usecases/people/confirmations';
import { type Invited, invite, inviteAgain } from '@/usecases/people/invitations';
import { addProgram, changeMember, endMember, type LetIn } from '@/usecases/people/members';
import { endSessionsOf } from '@/usecases/people/sessions';

/** Invites somebody; answers the token of the link, once. */
export async function inviteAction(input: unknown): Promise<Invited | Refusal> {
  return invite(deps(), input);
}

export async function inviteAgainAction(id: number): Promise<Invited | Refusal> {
  return inviteAgain(deps(), id);
}

export async function changeMemberAction(id: number, input: unknown): Promise<true | Refusal> {
  return changeMember(deps(), id, input);
}

export async function endMemberAction(id: number): Promise<true | Refusal> {
  return endMember(deps(), id);
}

/** Ends every session of somebody; answers how many. */
export async function endSessionsAction(id: number): Promise<number | Refusal> {
  return endSessionsOf(deps(), id);
}

/** Lets a program in; answers its token, once. */
export async function addProgramAction(input: unknown): Promise<LetIn | Refusal> {
  return addProgram(deps(), input);
}

/** Sets whether restores, transfers, registrations and sales wait for a second person. */
export async function setSecondPersonAction(secondPerson: boolean): Promise<true | Refusal> {
  return setSecondPerson(deps(), secondPerson);
}
