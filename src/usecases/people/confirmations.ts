import { type Command, refuseCommand } from '@/core/people';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { addDays } from '@/core/time';
import { actingAs } from '@/database/acting';
import {
  type ConfirmationRow,
  endConfirmation,
  selectConfirmation,
  selectWaiting,
  takeUp,
} from '@/database/confirmations';
import { selectMember } from '@/database/people';
import { transaction } from '@/database/pool';
import { sealPlace } from '@/database/secrets';
import { upsertSettings } from '@/database/settings';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { unseal } from '../secrets/seal';
import { noteIn } from './audit';
import { command } from './command';
import { personOf } from './identify';
import { madeCommands } from './registry';
import { countSpending, settled } from './secondPerson';

export type { ConfirmationRow } from '@/database/confirmations';

/** What nobody has settled lapses after so long. */
export const WAITS_DAYS = 7;

/** Something that waits, as one person sees it. */
export interface Waiting extends ConfirmationRow {
  /** Whether he may settle it; his own he may take back. */
  readonly may: 'settle' | 'withdraw' | 'see';
}

/** What waits for a second person, or has been begun and not ended. */
export async function waitingFor(deps: Deps): Promise<Waiting[]> {
  const person = personOf(deps.who);
  const rows = await selectWaiting(deps.database, addDays(deps.clock(), -WAITS_DAYS));
  return rows.map((row) => {
    const mayIt = person !== null && row.state === 'waiting' && refuseCommand(person, row.command as Command) === null;
    return { ...row, may: row.askedBy === person?.id ? 'withdraw' : mayIt ? 'settle' : 'see' };
  });
}

export const ANSWERS = ['confirm', 'decline', 'withdraw'] as const;
export type ConfirmationAnswer = (typeof ANSWERS)[number];

const GONE = refuse('confirmation-gone', 'This is settled already, or has lapsed. Load the page again.');

/** Why somebody may not settle what another has asked for; `null` when he may. */
function refuseSettling(row: ConfirmationRow, deps: Deps, answer: ConfirmationAnswer): Refusal | null {
  const person = personOf(deps.who);
  if (!person) return refuse('second-person-signs-in', 'A person confirms: sign in, and do it under Today.');
  const isOwn = row.askedBy === person.id;
  if (answer === 'withdraw')
    return isOwn ? null : refuse('not-yours', 'Only whoever asked for it takes it back. Decline it instead.');
  if (isOwn) return refuse('second-person-other', 'You have asked for this yourself: somebody else confirms it.');
  return refuseCommand(person, row.command as Command);
}

/**
 * Settles what waits for a second person: confirmed, it is carried out for whoever asked, if he may still; declined or taken back, nothing is
 * done. Of two who settle it in the same moment one is told that it is settled.
 */
export const settleConfirmation = command(
  'settleConfirmation',
  async (deps: Deps, id: number, answer: ConfirmationAnswer): Promise<string | Refusal> => {
    const row = await selectConfirmation(deps.database, id);
    if (row?.state !== 'waiting' || row.askedAt <= addDays(deps.clock(), -WAITS_DAYS)) return GONE;
    if (!ANSWERS.includes(answer)) return refuse('request-invalid', 'Say confirm, decline or withdraw.', 'answer');
    const refused = refuseSettling(row, deps, answer);
    if (refused) return refused;
    const person = personOf(deps.who);
    const sealed = await transaction(deps.database, async (tx) => {
      const state = answer === 'confirm' ? 'confirming' : answer === 'decline' ? 'declined' : 'withdrawn';
      const taken = await takeUp(tx, id, state, person?.id ?? 0, deps.clock());
      if (taken) await noteIn(tx, deps, `second person: ${answer}`, { what: row.what, askedBy: row.askedByName });
      return taken;
    });
    if (sealed === null) return GONE;
    if (answer !== 'confirm') return `${row.what}: not done.`;
    const outcome = await carryOut(deps, row, sealed).catch(async (error: unknown) => {
      await endConfirmation(deps.database, id, 'refused', 'It broke off. The log has the cause.');
      throw error;
    });
    await endConfirmation(
      deps.database,
      id,
      isRefusal(outcome) ? 'refused' : 'done',
      isRefusal(outcome) ? outcome.message : null,
    );
    return isRefusal(outcome) ? outcome : `${row.what}: done.`;
  },
);

/** Carries out what was confirmed, as whoever has asked for it. */
async function carryOut(deps: Deps, row: ConfirmationRow, sealed: Buffer): Promise<unknown | Refusal> {
  const name = row.command as Command;
  const asker = await selectMember(deps.database, row.askedBy);
  if (!asker || asker.endedAt !== null)
    return refuse('asker-gone', `${row.askedByName} comes in no more: nothing was done.`);
  const refused = refuseCommand(asker, name);
  if (refused) return refused;
  const said = deps.key ? await unseal(deps.key, sealPlace.confirmation(name), sealed) : null;
  const made = madeCommands.get(name);
  if (said === null || !made)
    return refuse('confirmation-sealed', 'This was sealed with another key. Ask for it again.');
  const args = JSON.parse(said) as never[];
  const own = { ...deps, who: asker } as never;
  // What it costs now counts, not what it cost when it was asked for.
  const weight = await made.weigh(own, ...args);
  const counted = weight
    ? await transaction(deps.database, (tx) => countSpending(tx, asker.id, deps.clock(), weight, name))
    : { spendingId: null };
  return settled(deps, counted, await actingAs(asker.name, () => made.work(own, ...args)));
}

/** Sets whether a second person is asked. To set it off wants one itself. */
export const setSecondPerson = command(
  'setSecondPerson',
  (deps: Deps, secondPerson: boolean): Promise<true> =>
    changing(deps, async (tx) => {
      await upsertSettings(tx, { secondPerson: secondPerson === true });
      await noteIn(tx, deps, 'second person', { asked: secondPerson === true });
      return true as const;
    }),
  async (_deps, secondPerson) =>
    secondPerson === true ? null : { what: 'Ask no second person any more', isGrave: true, spendsMinor: 0 },
);
