import { isReceived } from '@/core/journal';
import { isCurrency } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf, FIRST_DAY, parseDay } from '@/core/time';
import { insertEntries, selectEntry } from '@/database/entries';
import { forgetTaughtPrices, inferPrices } from '@/database/prices';
import { changing, type Done } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readRequest } from '../validate';
import { AddEntry } from './requests';

/** Writes down money spent on a name, or received for it (`sale`, `refund`). */
export const addEntry = command('addEntry', async (deps: Deps, input: unknown): Promise<Done | Refusal> => {
  const request = await readRequest(AddEntry, input);
  if (isRefusal(request)) return request;
  if (!isCurrency(request.currency))
    return refuse('currency-unknown', `${request.currency} is not a currency code of ISO 4217.`, 'currency');
  const day = parseDay(request.onDay);
  if (!day || day < FIRST_DAY || day > dayOf(deps.clock()))
    return refuse('date-out-of-range', 'Write a day that has been: money in the books has moved already.', 'onDay');
  const summary = `Entered ${request.kind}`;
  return changing(deps, async (tx, { record }) => {
    const batchId = await record('entry', summary);
    await insertEntries(tx, batchId, [
      { ...request, minor: isReceived(request.kind) ? -request.minor : request.minor },
    ]);
    if (request.kind === 'renewal') {
      await inferPrices(tx, batchId, [request.nameId]);
    }
    return { batchId, changed: 1, summary };
  });
});

/** Takes an entry back by a counter-entry: the books keep both. Refused when that has been done. */
export const correctEntry = command('correctEntry', async (deps: Deps, entryId: number): Promise<Done | Refusal> => {
  return changing(deps, async (tx, { record }) => {
    const entry = await selectEntry(tx, entryId);
    if (!entry) return refuse('entry-unknown', 'This entry is no longer there. Load the page again.');
    if (entry.correctedBy !== null || entry.corrects !== null)
      return refuse('entry-corrected', 'This entry has been taken back already.');
    const summary = `Took back an entry of ${entry.kind}`;
    const batchId = await record('entry', summary);
    await insertEntries(tx, batchId, [{ ...entry, minor: -entry.minor, note: 'taken back', corrects: entry.id }]);
    await forgetTaughtPrices(tx);
    return { batchId, changed: 1, summary };
  });
});
