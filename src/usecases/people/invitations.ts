import type { RegistrationResponseJSON } from '@simplewebauthn/server';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { addDays, type Instant } from '@/core/time';
import {
  insertMember,
  type MemberRow,
  selectInvited,
  selectIsGuarded,
  selectMember,
  takeInvitation,
  upsertInvitation,
} from '@/database/people';
import { type Transaction, transaction } from '@/database/pool';
import { deleteSessions } from '@/database/sessions';
import type { Deps } from '../deps';
import type { AskedFrom } from '../log';
import { readRequest } from '../validate';
import { noteIn, writtenWho } from './audit';
import { command } from './command';
import { machineNow } from './machineNow';
import { beginPasskey, type CeremonyAnswer, keepPasskey } from './passkeys';
import { InviteForm } from './requests';
import type { Weighty } from './secondPerson';
import { beginSession, type SignedIn } from './sessions';
import { hashOf, newToken } from './tokens';
import { type Enrolment, enrol, keepPassPhrase, newCodesFor } from './ways';

/** An invitation waits so long to be taken up. */
export const INVITATION_DAYS = 7;

/** An invitation: the token that stands in its link, told once. */
export interface Invited {
  readonly id: number;
  readonly name: string;
  readonly token: string;
  readonly endsAt: Instant;
}

async function invitation(tx: Transaction, deps: Deps, id: number, name: string): Promise<Invited> {
  const token = newToken();
  const endsAt = addDays(machineNow(deps), INVITATION_DAYS);
  await upsertInvitation(tx, id, hashOf(token), endsAt);
  await noteIn(tx, deps, 'invited', { personId: id, name });
  return { id, name, token, endsAt };
}

const NAME_TAKEN = refuse(
  'person-name-taken',
  'Somebody has this name already, or had it: names stand in the history. Take another.',
  'name',
);

/** Another owner wants a second person, as when somebody is made one. */
async function weightOfInviting(_deps: Deps, input: unknown): Promise<Weighty | null> {
  const form = await readRequest(InviteForm, input);
  if (isRefusal(form) || form.role !== 'owner') return null;
  return { what: `Invite ${form.name.trim()} as an owner`, isGrave: true, spendsMinor: 0 };
}

/** Invites somebody. Where nobody can sign in yet, it is an owner: somebody must be able to let the others in. */
export const invite = command(
  'invite',
  async (deps: Deps, input: unknown): Promise<Invited | Refusal> => {
    const form = await readRequest(InviteForm, input);
    if (isRefusal(form)) return form;
    const name = form.name.trim();
    if (name === '') return refuse('request-invalid', 'Write something here.', 'name');
    return transaction(deps.database, async (tx) => {
      if (form.role !== 'owner' && !(await selectIsGuarded(tx)))
        return refuse('owner-first', 'Invite an owner first: he lets the others in.', 'role');
      const id = await insertMember(tx, {
        kind: 'person',
        name,
        role: form.role,
        monthlyLimitMinor: form.monthlyLimitMinor ?? null,
        scope: null,
        addedAt: machineNow(deps),
        addedBy: writtenWho(deps.who),
      });
      return id === null ? NAME_TAKEN : invitation(tx, deps, id, name);
    });
  },
  weightOfInviting,
);

/** Another link for somebody who has none that holds, or has lost every way to sign in. The one before holds no longer. */
export const inviteAgain = command(
  'inviteAgain',
  async (deps: Deps, id: number): Promise<Invited | Refusal> =>
    transaction(deps.database, async (tx) => {
      const member = await selectMember(tx, id);
      if (member?.kind !== 'person' || member.endedAt !== null)
        return refuse('not-found', 'There is nobody of this number.');
      return invitation(tx, deps, id, member.name);
    }),
);

const NOT_INVITED = refuse(
  'invitation-invalid',
  'This invitation does not hold, or not any more. Ask an owner for another.',
);

/** Who is invited by a link; a refusal where it holds no longer. */
export async function invited(deps: Deps, token: string): Promise<MemberRow | Refusal> {
  return (await selectInvited(deps.database, hashOf(token), machineNow(deps))) ?? NOT_INVITED;
}

/** What is shown to whoever takes an invitation up by pass phrase. */
export async function enrolInvited(deps: Deps, token: string): Promise<Enrolment | Refusal> {
  const member = await invited(deps, token);
  return isRefusal(member) ? member : enrol(deps, member);
}

/** Somebody has come in for the first time: signed in, with the codes for when everything else is lost. */
export interface CameIn extends SignedIn {
  readonly recoveryCodes: readonly string[];
}

const comeIn =
  (deps: Deps, member: MemberRow, token: string, way: 'passkey' | 'pass phrase', from: AskedFrom) =>
  async (tx: Transaction): Promise<CameIn | Refusal> => {
    // Of two who take it up in the same moment one is too late, and nothing of what he brought is kept.
    if (!(await takeInvitation(tx, hashOf(token)))) throw new TakenUp();
    // Whoever comes in anew has lost what he had: nobody goes on with it.
    await deleteSessions(tx, member.id);
    const recoveryCodes = await newCodesFor(tx, member.id);
    return { ...(await beginSession(tx, deps, member, way, from)), recoveryCodes };
  };

class TakenUp extends Error {}

async function once<T>(work: () => Promise<T>): Promise<T | Refusal> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof TakenUp) return NOT_INVITED;
    throw error;
  }
}

/** Takes an invitation up by a pass phrase with codes. */
export async function comeInByPassPhrase(
  deps: Deps,
  from: AskedFrom,
  token: string,
  input: unknown,
): Promise<CameIn | Refusal> {
  const member = await invited(deps, token);
  if (isRefusal(member)) return member;
  const as = { ...deps, who: member };
  return once(() => keepPassPhrase(as, member, input, comeIn(deps, member, token, 'pass phrase', from)));
}

/** Begins to take an invitation up by a passkey. */
export async function beginInvitedPasskey(deps: Deps, from: AskedFrom, token: string) {
  const member = await invited(deps, token);
  return isRefusal(member) ? member : beginPasskey(deps, from, member);
}

/** Takes an invitation up by a passkey. */
export async function comeInByPasskey(
  deps: Deps,
  from: AskedFrom,
  token: string,
  answer: CeremonyAnswer<RegistrationResponseJSON>,
  label: string,
): Promise<CameIn | Refusal> {
  const member = await invited(deps, token);
  if (isRefusal(member)) return member;
  const as = { ...deps, who: member };
  return once(() => keepPasskey(as, from, member.id, answer, label, comeIn(deps, member, token, 'passkey', from)));
}
