import { randomUUID } from 'node:crypto';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { selectLinks } from '@/database/links';
import { transaction } from '@/database/pool';
import { lockRenewal, updateRenewal } from '@/database/renewals';
import {
  closeRun,
  type ItemProgress,
  moveItems,
  selectProgress,
  selectUnsettledElsewhere,
  startItems,
  writeLivePrices,
} from '@/database/runs';
import type { Deps } from '../deps';
import { linkOf, linkProblem } from '../links/links';
import type { QuotedItem } from '../renewals/quote';
import { openRenewal } from '../renewals/renew';

export type { ItemProgress, ItemState } from '@/database/runs';

/** How a run stands: which accounts have a link, and each item's progress. */
export interface RunProgress {
  readonly linkedAccounts: readonly number[];
  readonly items: readonly ItemProgress[];
}

export async function runProgress(deps: Deps, renewalId: string): Promise<RunProgress> {
  const [linked, items] = await Promise.all([selectLinks(deps.database), selectProgress(deps.database, renewalId)]);
  return { linkedAccounts: linked.map((link) => link.accountId), items };
}

const NAMES_A_QUESTION = 100;

/**
 * Asks each linked registrar what the names of a planned run cost now (RFC 8748), so that the difference from the price
 * book is seen before anything is agreed.
 */
export async function priceRun(deps: Deps, renewalId: string): Promise<RunProgress | Refusal> {
  const open = await openRenewal(deps, renewalId);
  if (isRefusal(open)) return open;
  const linked = new Set((await selectLinks(deps.database)).map((link) => link.accountId));
  const askable = open.quote.items.filter((item) => item.refusal === null && linked.has(item.accountId));
  const group = (item: QuotedItem) => `${item.accountId} ${item.years}`;
  const groups = [...new Set(askable.map(group))].map((key) => askable.filter((item) => group(item) === key));
  const promotion = open.quote.promotion?.code ?? null;
  for (const items of groups)
    for (let start = 0; start < items.length; start += NAMES_A_QUESTION)
      await priceItems(deps, renewalId, items.slice(start, start + NAMES_A_QUESTION), promotion);
  return runProgress(deps, renewalId);
}

async function priceItems(deps: Deps, renewalId: string, items: readonly QuotedItem[], promotion: string | null) {
  const [first] = items;
  const link = first && (await linkOf(deps, first.accountId));
  if (!first || !link) return;
  const currency = first.total?.currency ?? '';
  const asked = await link.renewalFees(
    items.map((item) => item.ascii),
    first.years,
    currency,
    promotion,
  );
  const problem = asked.kind === 'done' ? null : linkProblem(asked);
  const totals = new Map(
    asked.kind === 'done' ? asked.value.map((quote) => [quote.name, quote.fees[0]?.total ?? null]) : [],
  );
  await writeLivePrices(
    deps.database,
    renewalId,
    items.map(({ nameId, ascii }) => {
      const total = totals.get(ascii) ?? null;
      return {
        nameId,
        minor: total?.minor ?? null,
        problem: problem ?? (total ? null : 'The registrar names no price for this. It may refuse.'),
      };
    }),
  );
}

/**
 * Starts a run: every name whose account has a link is put on its way, each for at most the price the registrar named live
 * (else the quoted one). Names by hand stay in the list until somebody says what was charged. Starting twice does it once.
 */
export async function startRun(deps: Deps, renewalId: string): Promise<number | Refusal> {
  const open = await openRenewal(deps, renewalId);
  if (isRefusal(open)) return open;
  const { linkedAccounts, items: progress } = await runProgress(deps, renewalId);
  const live = new Map(progress.map((item) => [item.nameId, item]));
  const items = open.quote.items.filter((item) => item.refusal === null && linkedAccounts.includes(item.accountId));
  return transaction(deps.database, async (tx) => {
    const status = await lockRenewal(tx, renewalId);
    if (status !== 'planned' && status !== 'asked')
      return refuse('renewal-settled', 'This renewal is settled and cannot be started again.');
    const startable = items.filter((item) => ['planned', 'refused'].includes(live.get(item.nameId)?.state ?? ''));
    const elsewhere = await selectUnsettledElsewhere(
      tx,
      startable.map((item) => item.nameId),
    );
    if (elsewhere.length > 0)
      return refuse(
        'change-under-way',
        `${elsewhere[0]}${elsewhere.length > 1 ? ` and ${elsewhere.length - 1} more are` : ' is'} being renewed already. Wait for that run to end.`,
      );
    const started = await startItems(
      tx,
      renewalId,
      startable.map((item) => ({
        nameId: item.nameId,
        orderId: `NL-${randomUUID()}`,
        feeCapMinor: live.get(item.nameId)?.liveMinor ?? item.total?.minor ?? null,
      })),
    );
    if (started > 0) await updateRenewal(tx, renewalId, { status: 'asked' });
    return started;
  });
}

/** Closes a run though some of its names were refused: they stay as they are. */
export async function finishRun(deps: Deps, renewalId: string): Promise<true | Refusal> {
  const closed = await closeRun(deps.database, renewalId, deps.clock());
  return closed
    ? true
    : refuse(
        'run-under-way',
        'Some names of this run are not settled yet. Wait for them, or decide about those in doubt.',
      );
}

/** What a person decides about an item whose state at the registrar is in doubt: to leave it as it is. */
export async function leaveItem(deps: Deps, renewalId: string, nameId: number): Promise<void> {
  await moveItems(deps.database, [
    { renewalId, nameId, state: 'refused', problem: 'Left after a look at the registrar.' },
  ]);
}
