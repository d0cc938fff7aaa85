import { type Refusal, refuse } from '@/core/refusal';
import { revertBatch, selectBatch, selectChangedSince, selectLastAct } from '@/database/changes';
import { counterEntries } from '@/database/entries';
import { forgetTaughtPrices } from '@/database/prices';
import { changing, type Done } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';

/**
 * Takes back what one act wrote in the books: every name as it was before, every entry by a counter-entry. It undoes
 * nothing at a registrar. Refused when it was taken back already, or when something else has changed the same since.
 */
export const undo = command('undo', async (deps: Deps, batchId: number): Promise<Done | Refusal> => {
  return changing(deps, async (tx, { at, record }) => {
    const batch = await selectBatch(tx, batchId);
    if (!batch) return refuse('undo-unknown', 'There is nothing to take back here any more.');
    if (batch.undoneBy !== null) return refuse('undo-done', 'This has been taken back already.');
    if (batch.kind === 'sale')
      return refuse('undo-sale', 'A sale stands in the books: take its entries back on the name’s page, one by one.');
    if (batch.kind === 'transfer')
      return refuse(
        'undo-transfer',
        'What was done for a transfer stands at the registrars. Stop the transfer, or correct what is wrong on the name’s page.',
      );
    if (batch.kind === 'purchase')
      return refuse(
        'undo-purchase',
        'A purchase was paid to its holder: correct its entries on the name’s page, one by one.',
      );
    if (batch.kind === 'registration')
      return refuse(
        'undo-registration',
        'A registration stands at its registrar. Give the name back there while it is refundable: on its page.',
      );
    const since = await selectChangedSince(tx, batchId);
    if (since.length > 0) {
      const others = since.length > 1 ? ` and ${since.length - 1} more` : '';
      return refuse(
        'undo-changed-since',
        `${since[0]}${others} changed again since. Take that back first, or set the value by hand.`,
      );
    }
    const summary = `Taken back: ${batch.summary}`;
    const undoId = await record('undo', summary, batchId);
    const changed = await revertBatch(tx, batchId, undoId, at);
    await counterEntries(tx, batchId, undoId);
    await forgetTaughtPrices(tx);
    return { batchId: null, changed, summary };
  });
});

/** Takes back the last act of a person that can be taken back. Refused when there is none. */
export const undoLast = command('undoLast', async (deps: Deps): Promise<Done | Refusal> => {
  const last = await selectLastAct(deps.database);
  return last === null ? refuse('undo-unknown', 'There is nothing to take back.') : undo(deps, last);
});
