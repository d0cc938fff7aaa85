import { randomUUID } from 'node:crypto';
import type { Taken } from '@/connectors/registrar/port';
import { rowsOn } from '@/core/ledger';
import { refuseAction } from '@/core/lifecycle';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf, formatInstant } from '@/core/time';
import { patchNames } from '@/database/changes';
import { insertEntries } from '@/database/entries';
import type { Done } from '../changing';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { linkOf, linkProblem } from '../links/links';
import { projectedLedger } from '../names/ledger';
import { command } from '../people/command';
import { readRequest } from '../validate';
import { RefundName } from './requests';

/**
 * Deletes a fresh registration for a refund while that lasts: deleted at the registrar over its link, or noted as done by hand. What is
 * credited is booked; the name leaves the working views and stays in the books.
 */
export const refundName = command('refundName', async (deps: Deps, input: unknown): Promise<Done | Refusal> => {
  const request = await readRequest(RefundName, input);
  if (isRefusal(request)) return request;
  const projection = await projectedLedger(deps, [request.nameId]);
  if (projection.names.length === 0)
    return refuse('name-not-in-ledger', 'This name is no longer in the ledger. Load the page again.');
  const { name, phase, marks } = rowsOn(projection, projection.asOf)(0);
  if (phase === null || marks === null) return refuse('term-unknown', 'Set the end of the term first.');
  const refused = refuseAction('refund', { phase, marks });
  if (refused) return refused;
  const link = await linkOf(deps, name.accountId);
  if (!link && !request.doneByHand)
    return refuse('by-hand', 'This account has no link: delete the name at the registrar, then say that it is done.');
  let given: Taken = { taken: null, balance: null, paymentMethod: null };
  let receipt: string | null = null;
  if (link) {
    // Sent twice it harms nothing: a name that is gone already is told as unknown there.
    const outcome = await link.remove(name.ascii, `NL-${randomUUID()}`);
    if (outcome.kind !== 'done') return refuse('link-failed', linkProblem(outcome));
    given = outcome.value;
    receipt = outcome.svTRID;
  }
  const summary = `Refunded: ${name.ascii}`;
  return changing(deps, async (tx, { at, record }) => {
    const batchId = await record('refund', summary);
    const evidence = receipt ? `receipt ${receipt}` : 'by hand';
    const changed = await patchNames(tx, batchId, [
      { nameId: name.id, patch: { gone_at: formatInstant(at) }, evidence },
    ]);
    if (given.taken && changed > 0)
      await insertEntries(tx, batchId, [
        {
          nameId: name.id,
          onDay: dayOf(at),
          kind: 'refund',
          minor: Math.abs(given.taken.minor),
          currency: given.taken.currency,
          paymentMethod: 'by link',
          reference: receipt ?? '',
          note: 'refund',
        },
      ]);
    return { batchId: null, changed, summary };
  });
});
