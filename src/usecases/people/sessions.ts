import { type Member, SESSION, sessionEnd } from '@/core/people';
import { type Refusal, refuse } from '@/core/refusal';
import type { Instant } from '@/core/time';
import { type Transaction, transaction } from '@/database/pool';
import {
  deleteEndedSessions,
  deleteSessions,
  insertSession,
  type SessionRow,
  type SignInWay,
  selectSessionsOf,
} from '@/database/sessions';
import type { Deps } from '../deps';
import type { AskedFrom } from '../log';
import { noteIn } from './audit';
import { command } from './command';
import { personOf } from './identify';
import { machineNow } from './machineNow';
import { hashOf, newToken } from './tokens';

/** Somebody has signed in: the token that his browser keeps, and when it ends at the latest. */
export interface SignedIn {
  readonly token: string;
  readonly endsAt: Instant;
  readonly name: string;
}

/** Begins a session: each sign-in has a token of its own. */
export async function beginSession(
  tx: Transaction,
  deps: Deps,
  member: Member,
  way: SignInWay,
  { address, agent }: Pick<AskedFrom, 'address' | 'agent'>,
): Promise<SignedIn> {
  const token = newToken();
  const beganAt = machineNow(deps);
  await deleteEndedSessions(tx, (beganAt - SESSION.absoluteMs) as Instant, (beganAt - SESSION.idleMs) as Instant);
  await insertSession(tx, hashOf(token), { personId: member.id, way, beganAt, address, agent: agent.slice(0, 300) });
  await noteIn(tx, { ...deps, who: member }, 'signed in', { way, address });
  return { token, endsAt: (beganAt + SESSION.absoluteMs) as Instant, name: member.name };
}

/** A session as its owner sees it. */
export interface SessionView extends SessionRow {
  readonly endsAt: Instant;
}

/** The open sessions of somebody, the one used last first. */
export async function sessionsOf(deps: Deps, personId: number): Promise<SessionView[]> {
  const now = machineNow(deps);
  const rows = await selectSessionsOf(deps.database, personId);
  return rows.map((row) => ({ ...row, endsAt: sessionEnd(row) })).filter(({ endsAt }) => endsAt > now);
}

const ended = async (deps: Deps, personId: number, which: Parameters<typeof deleteSessions>[2]): Promise<number> =>
  transaction(deps.database, async (tx) => {
    const count = await deleteSessions(tx, personId, which);
    if (count > 0) await noteIn(tx, deps, 'sessions ended', { personId, sessions: count });
    return count;
  });

/** Ends one of one's own sessions, or every other; answers how many. */
export async function endOwnSessions(deps: Deps, which: { only?: number; but?: number }): Promise<number | Refusal> {
  const person = personOf(deps.who);
  if (!person) return refuse('sign-in-needed', 'Sign in first.');
  return ended(deps, person.id, which);
}

/** Ends every session of somebody else. */
export const endSessionsOf = command(
  'endSessionsOf',
  (deps: Deps, personId: number): Promise<number> => ended(deps, personId, {}),
);
