import { isReceived } from '@/core/journal';
import { isCurrency } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf, FIRST_DAY, parseDay } from '@/core/time';
import { insertBatch } from '@/database/changes';
import { insertEntries, selectEntry } from '@/database/entries';
import { bumpRevision } from '@/database/ledger';
import { transaction } from '@/database/pool';
import { inferPrices } from '@/database/prices';
import type { Deps } from '../deps';
import { readRequest } from '../validate';
import type { Done } from './edit';
import { AddEntry } from './requests';

/** Writes down money spent on a name, or received for it (`sale`, `refund`). */
export async function addEntry(deps: Deps, input: unknown): Promise<Done | Refusal> {
  const request = await readRequest(AddEntry, input);
  if (isRefusal(request)) return request;
  if (!isCurrency(request.currency))
    return refuse('currency-unknown', `${request.currency} is not a currency code of ISO 4217.`, 'currency');
  const day = parseDay(request.onDay);
  if (!day || day < FIRST_DAY || day > dayOf(deps.clock()))
    return refuse('date-out-of-range', 'Write a day that has been: money in the books has moved already.', 'onDay');
  const summary = `Entered ${request.kind}`;
  return transaction(deps.database, async (tx) => {
    await bumpRevision(tx);
    const batchId = await insertBatch(tx, deps.clock(), 'entry', summary);
    await insertEntries(tx, batchId, [
      { ...request, minor: isReceived(request.kind) ? -request.minor : request.minor },
    ]);
    if (request.kind === 'renewal') {
      const { nameId, minor, currency } = request;
      await inferPrices(tx, [{ nameId, years: 1, minor, currency, on: day }]);
    }
    return { batchId, changed: 1, summary };
  });
}

/** Takes an entry back by a counter-entry: the books keep both. Refused when that has been done. */
export async function correctEntry(deps: Deps, entryId: number): Promise<Done | Refusal> {
  return transaction(deps.database, async (tx) => {
    await bumpRevision(tx);
    const entry = await selectEntry(tx, entryId);
    if (!entry) return refuse('entry-unknown', 'This entry is no longer there. Load the page again.');
    if (entry.correctedBy !== null || entry.corrects !== null)
      return refuse('entry-corrected', 'This entry has been taken back already.');
    const summary = `Took back an entry of ${entry.kind}`;
    const batchId = await insertBatch(tx, deps.clock(), 'entry', summary);
    await insertEntries(tx, batchId, [{ ...entry, minor: -entry.minor, note: 'taken back', corrects: entry.id }]);
    return { batchId, changed: 1, summary };
  });
}
