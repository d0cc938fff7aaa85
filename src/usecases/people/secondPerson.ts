import { createHash } from 'node:crypto';
import { type Command, type Member, mayRole, type Role, type Weight, weigh } from '@/core/people';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayIn, type Instant, startOfMonth } from '@/core/time';
import {
  deleteSpending,
  insertConfirmation,
  insertSpending,
  lockSpent,
  selectOtherRoles,
} from '@/database/confirmations';
import { type Transaction, transaction } from '@/database/pool';
import { sealPlace } from '@/database/secrets';
import { selectSettings } from '@/database/settings';
import type { Deps } from '../deps';
import { seal } from '../secrets/seal';
import { noteIn } from './audit';

/** What a command is about to do: its weight, and a sentence that says what. */
export interface Weighty extends Weight {
  /** “Restore tarbarrel.com”: a second person reads it. */
  readonly what: string;
}

/** A name by itself, or how many there are. */
export function namesOrOne(names: readonly string[]): string {
  return names.length === 1 ? (names[0] as string) : `${names.length} names`;
}

const NO_KEY = refuse(
  'no-key',
  'Set NAME_LEDGER_KEY to a long text of your own: it seals what waits for a second person.',
);

/**
 * Holds a command of somebody back where it is above his limit or grave: it waits for a second person, or is refused. Where it goes on, what it
 * may spend is counted first: the same moment's other commands see it, and it is taken back should the command be refused.
 */
export async function holdBack(
  deps: Deps,
  member: Member,
  command: Command,
  args: readonly unknown[],
  weighty: Weighty,
): Promise<Refusal | Counted> {
  const at = deps.clock();
  const settings = await selectSettings(deps.database);
  const since = startOfMonth(dayIn(at, settings.zone), settings.zone);
  const said = JSON.stringify(args);
  const sealed = deps.key ? await seal(deps.key, sealPlace.confirmation(command), said) : null;
  return transaction(deps.database, async (tx) => {
    const spentMinor = await lockSpent(tx, member.id, since);
    const others = (await selectOtherRoles(tx, member.id)).filter((role) => mayRole(role as Role, command)).length;
    const outcome = weigh(weighty, {
      spentMinor,
      limitMinor: member.monthlyLimitMinor,
      asksSecond: settings.secondPerson,
      others,
    });
    if (outcome === 'go on') return countSpending(tx, member.id, at, weighty, command);
    if (outcome === 'refuse')
      return refuse('limit-reached', 'This is above what you may spend in a month. Ask an owner for a higher limit.');
    if (sealed === null) return NO_KEY;
    await insertConfirmation(tx, {
      command,
      sealed,
      hash: createHash('sha256').update(said).digest(),
      what: weighty.what,
      why: weighty.isGrave ? 'always' : 'above the limit',
      amountMinor: weighty.spendsMinor,
      askedBy: member.id,
      askedAt: at,
    });
    await noteIn(tx, deps, 'asked a second person', { command, what: weighty.what });
    return refuse(
      'second-person-needed',
      `${weighty.what}: this waits for a second person now. It is done as soon as somebody else confirms it, under Today.`,
    );
  });
}

/** What was counted as spent before a command began: its number, `null` for nothing. */
export interface Counted {
  readonly spendingId: number | null;
}

/** Counts what somebody may have spent by a command. */
export async function countSpending(
  tx: Transaction,
  personId: number,
  at: Instant,
  { spendsMinor }: Weight,
  command: Command,
): Promise<Counted> {
  if (spendsMinor === null || spendsMinor === 0) return { spendingId: null };
  return { spendingId: await insertSpending(tx, personId, at, spendsMinor, command) };
}

/** The answer of a command for which something was counted; refused, nothing was spent. What broke off stays counted: nobody knows. */
export async function settled<T>({ database }: Pick<Deps, 'database'>, { spendingId }: Counted, answer: T): Promise<T> {
  if (isRefusal(answer) && spendingId !== null) await deleteSpending(database, spendingId);
  return answer;
}
