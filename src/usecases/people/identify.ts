import { isMember, isSessionOpen, type Who } from '@/core/people';
import { type Refusal, refuse } from '@/core/refusal';
import { selectIsGuarded, selectProgram } from '@/database/people';
import { selectSession, updateSeen } from '@/database/sessions';
import type { Deps } from '../deps';
import type { AskedFrom } from '../log';
import { machineNow } from './machineNow';
import { hashOf } from './tokens';

/** What somebody shows to be known by. */
export interface Shown {
  /** The token of a session, from its cookie. */
  readonly session: string | null;
  /** The token of a program, from `Authorization: Bearer` (RFC 6750 section 2.1). */
  readonly bearer: string | null;
}

export interface Identified {
  readonly who: Who;
  readonly session: AskedFrom['session'];
}

/** A session is noted as seen once in so long. */
const SEEN_EVERY_MS = 60_000;
const STRANGER: Identified = { who: { kind: 'stranger' }, session: null };

/**
 * Who asks, by what is shown. As long as nobody can sign in, it is whoever sits at the machine. A token that holds no longer is told as
 * such: whoever sends one wants to know.
 */
export async function identify(deps: Deps, { session, bearer }: Shown): Promise<Identified | Refusal> {
  const now = machineNow(deps);
  if (bearer !== null) {
    const program = await selectProgram(deps.database, hashOf(bearer), now);
    return program
      ? { who: program, session: null }
      : refuse(
          'token-invalid',
          'This token does not hold, or not any more. An owner makes another under Setup → People.',
        );
  }
  if (session !== null) {
    const known = await selectSession(deps.database, hashOf(session));
    if (known && isSessionOpen(known, now)) {
      if (now - known.seenAt > SEEN_EVERY_MS) await updateSeen(deps.database, known.id, now);
      return { who: known.member, session: { id: known.id, beganAt: known.beganAt, seenAt: known.seenAt } };
    }
  }
  return (await selectIsGuarded(deps.database)) ? STRANGER : { who: { kind: 'office' }, session: null };
}

/** The person who asks; `null` for programs and for whoever sits at a machine where nobody is set up. */
export function personOf(who: Who | undefined) {
  return isMember(who) && who.kind === 'person' ? who : null;
}
