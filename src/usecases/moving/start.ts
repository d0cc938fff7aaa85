import { randomUUID } from 'node:crypto';
import { indexRules, transferPrice } from '@/core/ledger';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf, instant } from '@/core/time';
import { selectLedgerRules } from '@/database/ledger';
import { selectEndings, selectNamesAt } from '@/database/names';
import {
  insertTransferRun,
  insertTransfers,
  selectTransferRunByKey,
  selectTransfers,
  type TransferDraft,
} from '@/database/transfers';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { namesOrOne, type Weighty } from '../people/secondPerson';
import { homeMinor } from '../rates/homeMinor';
import { readRequest } from '../validate';
import { StartTransfers } from './requests';

/** A run of transfers as it was begun: how many names are on their way, and how many of those that were asked for are not. */
export interface StartedTransfers {
  readonly id: string;
  readonly names: number;
  readonly left: number;
}

/** Names that leave their registrar want a second person; each may cost what the list of its new account says. */
async function weightOfMoving(deps: Deps, input: unknown, _key?: string | null): Promise<Weighty | null> {
  const request = await readRequest(StartTransfers, input);
  if (isRefusal(request)) return null;
  const ids = request.items.map(({ nameId }) => nameId);
  const [rules, endings, at] = [
    await selectLedgerRules(deps.database),
    await selectEndings(deps.database, ids),
    await selectNamesAt(deps.database, ids),
  ];
  const index = indexRules(rules);
  const prices = request.items.map(({ nameId, toId }) => {
    const [account, ending] = [index.accounts.get(toId), endings.get(nameId)];
    return account && ending !== undefined ? transferPrice(index, account, ending, dayOf(deps.clock())) : null;
  });
  const what = `Transfer ${namesOrOne(at.length > 0 ? at.map(({ ascii }) => ascii) : ['a name'])}`;
  return { what, isGrave: true, spendsMinor: await homeMinor(deps, prices) };
}

/**
 * Puts names on their way to other accounts, each for at most what its price list says now. One that is on its way already is left out.
 * `key` is the caller's idempotency key: the same key answers with the run it began the first time.
 */
export const startTransfers = command(
  'startTransfers',
  async (deps: Deps, input: unknown, key: string | null = null): Promise<StartedTransfers | Refusal> => {
    const request = await readRequest(StartTransfers, input);
    if (isRefusal(request)) return request;
    if (!deps.key) return refuse('no-key', 'Set NAME_LEDGER_KEY to a long text of your own: it seals transfer codes.');
    const { items } = request;
    const rules = await selectLedgerRules(deps.database);
    const index = indexRules(rules);
    const endings = await selectEndings(
      deps.database,
      items.map(({ nameId }) => nameId),
    );
    const at = deps.clock();
    const drafts: TransferDraft[] = [];
    for (const { nameId, toId, notBefore } of items) {
      const account = index.accounts.get(toId);
      const ending = endings.get(nameId);
      if (!account) return refuse('account-unknown', 'That account is no longer there. Choose another.', 'toId');
      if (ending === undefined) continue;
      const price = transferPrice(index, account, ending, dayOf(at));
      const isSaid = price?.currency === account.currency;
      drafts.push({
        nameId,
        toId,
        notBefore: notBefore === undefined ? at : Math.max(at, instant(notBefore)),
        quotedMinor: isSaid ? price.minor : null,
        currency: account.currency,
      });
    }
    const id = randomUUID();
    const names = await changing(deps, async (tx) => {
      const isNew = await insertTransferRun(tx, id, key, at);
      if (!isNew) return null;
      const begun = await insertTransfers(tx, id, drafts, at);
      if (begun === 0) await tx.query('delete from transfer_runs where id = $1', [id]);
      return begun;
    });
    if (names === 0)
      return refuse(
        'nothing-to-move',
        'None of these names can be moved: they are on their way already, or there already.',
      );
    const runId = names === null && key !== null ? ((await selectTransferRunByKey(deps.database, key)) ?? id) : id;
    const there = names ?? (await selectTransfers(deps.database, runId)).length;
    return { id: runId, names: there, left: items.length - there };
  },
  weightOfMoving,
);
