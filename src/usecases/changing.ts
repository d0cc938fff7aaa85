import { isMember } from '@/core/people';
import type { Instant } from '@/core/time';
import { insertBatch, type PatchedName, patchNames } from '@/database/changes';
import { bumpRevision } from '@/database/ledger';
import { type Transaction, transaction } from '@/database/pool';
import type { Deps } from './deps';
import { tellChange } from './telling';

/** What a command did: the batch that undo takes back, and how many names it changed. */
export interface Done {
  readonly batchId: number | null;
  readonly changed: number;
  readonly summary: string;
}

/** A change that is under way: when it is made, and what it writes into the history. */
export interface Change {
  readonly at: Instant;
  /** Begins a batch of the history under the person or part that makes the change; `undoes` is the batch that it takes back. */
  record(kind: string, summary: string, undoes?: number): Promise<number>;
  /** Changes names in a batch of their own. Where nothing differed there is nothing to undo. */
  names(kind: string, summary: string, patches: readonly PatchedName[]): Promise<Done>;
}

/** What a command was asked upon has been changed by another; nothing was written. */
export class ChangedMeanwhile extends Error {
  constructor() {
    super('what the command was asked upon has been changed meanwhile');
    this.name = 'ChangedMeanwhile';
  }
}

/**
 * A command's change of the ledger, in one transaction: every command that writes what a screen shows goes through here. The
 * ledger's number rises first, so that no window keeps what is no longer true; that is also the order in which changes wait for
 * each other. What `work` writes stands in the history with the person and the instant.
 */
export async function changing<T>(
  deps: Pick<Deps, 'database' | 'clock' | 'by' | 'still' | 'who' | 'command' | 'thread' | 'isThread' | 'log'>,
  work: (tx: Transaction, change: Change) => Promise<T>,
): Promise<T> {
  // Whatever was not made a command has not asked whether it may.
  if ((isMember(deps.who) || deps.who?.kind === 'stranger') && deps.command === undefined)
    throw new Error('a member changes something outside of every command');
  const done = await transaction(deps.database, async (tx) => {
    await bumpRevision(tx);
    // No other change is under way from here on: what is still so now stays so.
    if (deps.still && !(await deps.still())) throw new ChangedMeanwhile();
    const at = deps.clock();
    const record: Change['record'] = (kind, summary, undoes) => recordIn(tx, deps, kind, summary, undoes);
    return work(tx, {
      at,
      record,
      async names(kind, summary, patches) {
        const batchId = await record(kind, summary);
        const changed = await patchNames(tx, batchId, patches);
        return { batchId: changed > 0 ? batchId : null, changed, summary };
      },
    });
  });
  await tellChange(deps);
  return done;
}

/** Begins a batch of the history within a change that is under way. */
export function recordIn(
  tx: Transaction,
  { clock, by = 'office' }: Pick<Deps, 'clock' | 'by'>,
  kind: string,
  summary: string,
  undoes?: number,
): Promise<number> {
  return insertBatch(tx, { at: clock(), by, kind, summary, undoes: undoes ?? null });
}
