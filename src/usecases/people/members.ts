import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { addDays } from '@/core/time';
import {
  countOtherOwners,
  endPerson,
  insertMember,
  type MemberRow,
  selectIsGuarded,
  selectMember,
  selectMembers,
  updateMember,
  updateToken,
} from '@/database/people';
import { transaction } from '@/database/pool';
import { deleteSessions } from '@/database/sessions';
import type { Deps } from '../deps';
import { readRequest } from '../validate';
import { noteIn, writtenWho } from './audit';
import { command } from './command';
import { machineNow } from './machineNow';
import { MemberForm, ProgramForm } from './requests';
import type { Weighty } from './secondPerson';
import { hashOf, newToken } from './tokens';

export type { MemberRow } from '@/database/people';

/** Everybody who is set up or was, people and programs. */
export function members(deps: Deps): Promise<MemberRow[]> {
  return selectMembers(deps.database);
}

/** Whether anybody can sign in, so that everybody must. */
export function isGuarded(deps: Pick<Deps, 'database'>): Promise<boolean> {
  return selectIsGuarded(deps.database);
}

const NOBODY = refuse('not-found', 'There is nobody of this number.');
const LAST_OWNER = refuse('last-owner', 'Somebody must stay an owner who can sign in. Make another one first.', 'role');

/** A limit that is raised or taken away wants a second person, and so does another owner. */
async function withdrawsLimit(deps: Deps, id: number, input: unknown): Promise<Weighty | null> {
  const [form, member] = [await readRequest(MemberForm, input), await selectMember(deps.database, id)];
  if (isRefusal(form) || !member) return null;
  const next = form.monthlyLimitMinor ?? Number.POSITIVE_INFINITY;
  const isRaised = member.monthlyLimitMinor !== null && next > member.monthlyLimitMinor;
  const isMadeOwner = form.role === 'owner' && member.role !== 'owner';
  if (!isRaised && !isMadeOwner) return null;
  const what = isMadeOwner ? `Make ${member.name} an owner` : `Raise what ${member.name} may spend in a month alone`;
  return { what, isGrave: true, spendsMinor: 0 };
}

/** Changes what somebody may do. Whoever gets another role signs in again: no session outlives what it was begun with. */
export const changeMember = command(
  'changeMember',
  async (deps: Deps, id: number, input: unknown): Promise<true | Refusal> => {
    const form = await readRequest(MemberForm, input);
    if (isRefusal(form)) return form;
    return transaction(deps.database, async (tx) => {
      const owners = await countOtherOwners(tx, id);
      const member = await selectMember(tx, id);
      if (!member || member.endedAt !== null) return NOBODY;
      if (member.role === 'owner' && form.role !== 'owner' && owners === 0) return LAST_OWNER;
      const next = { role: form.role, monthlyLimitMinor: form.monthlyLimitMinor ?? null };
      await updateMember(tx, id, next);
      if (member.role !== form.role) await deleteSessions(tx, id);
      await noteIn(tx, deps, 'changed what somebody may do', { personId: id, name: member.name, ...next });
      return true as const;
    });
  },
  withdrawsLimit,
);

/** Ends somebody's access at once: sessions, ways to sign in, token. His name stays in the history. */
export const endMember = command(
  'endMember',
  async (deps: Deps, id: number): Promise<true | Refusal> =>
    transaction(deps.database, async (tx) => {
      const owners = await countOtherOwners(tx, id);
      const member = await selectMember(tx, id);
      if (!member || member.endedAt !== null) return NOBODY;
      if (
        member.role === 'owner' &&
        member.kind === 'person' &&
        owners === 0 &&
        (member.hasPassPhrase || member.passkeys > 0)
      )
        return LAST_OWNER;
      await endPerson(tx, id, machineNow(deps));
      await noteIn(tx, deps, 'ended somebody’s access', { personId: id, name: member.name });
      return true as const;
    }),
);

/** A program that is let in: its token, told once. */
export interface LetIn {
  readonly id: number;
  readonly name: string;
  readonly token: string;
}

/** Lets another program in with a token of its own. */
export const addProgram = command('addProgram', async (deps: Deps, input: unknown): Promise<LetIn | Refusal> => {
  const form = await readRequest(ProgramForm, input);
  if (isRefusal(form)) return form;
  const name = form.name.trim();
  if (!(await selectIsGuarded(deps.database)))
    return refuse('owner-first', 'Invite an owner first: as long as nobody signs in, programs need no token.', 'name');
  return transaction(deps.database, async (tx) => {
    const now = machineNow(deps);
    const id = await insertMember(tx, {
      kind: 'program',
      name,
      role: form.role,
      monthlyLimitMinor: form.monthlyLimitMinor ?? null,
      scope: form.scope ?? null,
      addedAt: now,
      addedBy: writtenWho(deps.who),
    });
    if (id === null)
      return refuse(
        'person-name-taken',
        'Somebody or something has this name already, or had it. Take another.',
        'name',
      );
    const token = newToken();
    await updateToken(tx, id, hashOf(token), addDays(now, form.days));
    await noteIn(tx, deps, 'let a program in', {
      personId: id,
      name,
      role: form.role,
      scope: form.scope ?? null,
      days: form.days,
    });
    return { id, name, token };
  });
});
