import { randomUUID } from 'node:crypto';
import { Equals, IsOptional, IsString, MaxLength, MinLength } from 'class-validator';
import { amount } from '@/core/money';
import { isOpenRun, STARTABLE } from '@/core/orders';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { selectAccount } from '@/database/accounts';
import { selectLinks } from '@/database/links';
import { lockRenewal, type RenewalRow, type ReportWords, updateRenewal, writeReport } from '@/database/renewals';
import {
  closeRun,
  type ItemProgress,
  leaveDoubt,
  reportAgain,
  selectProgress,
  selectRunOf,
  selectUnsettledElsewhere,
  startItems,
  stopItems,
  writeLivePrices,
} from '@/database/runs';
import type { Deps } from '../deps';
import { linkOf, linkProblem } from '../links/links';
import { readRequest } from '../validate';
import { agreedRenewal, type OpenRenewal } from './plan';
import type { QuotedItem } from './quote';

export type { ReportWords } from '@/database/renewals';
export type { ItemProgress } from '@/database/runs';

import { changing } from '../changing';
import { command } from '../people/command';
import { namesOrOne, type Weighty } from '../people/secondPerson';
import { homeMinor } from '../rates/homeMinor';

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
export const priceRun = command('priceRun', async (deps: Deps, renewalId: string): Promise<RunProgress | Refusal> => {
  const open = await agreedRenewal(deps, renewalId);
  if (isRefusal(open)) return open;
  const linked = new Set((await selectLinks(deps.database)).map((link) => link.accountId));
  const askable = open.quote.items.filter((item) => item.refusal === null && linked.has(item.accountId));
  const group = (item: QuotedItem) => `${item.accountId} ${item.years}`;
  const groups = [...new Set(askable.map(group))].map((key) => askable.filter((item) => group(item) === key));
  const promotion = open.quote.promotion?.code ?? null;
  for (const items of groups)
    for (let start = 0; start < items.length; start += NAMES_A_QUESTION)
      await priceItems(deps, open.renewal, items.slice(start, start + NAMES_A_QUESTION), promotion);
  return runProgress(deps, renewalId);
});

async function priceItems(
  deps: Deps,
  { id: renewalId, action }: RenewalRow,
  items: readonly QuotedItem[],
  promotion: string | null,
) {
  const [first] = items;
  const link = first && (await linkOf(deps, first.accountId));
  if (!first || !link) return;
  const account = await selectAccount(deps.database, first.accountId);
  const currency = first.total?.currency ?? account?.currency ?? '';
  const asked = await link.fees(
    action,
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
        currency: total?.currency ?? null,
        problem: problem ?? (total ? null : 'The registrar names no price for this. It may refuse.'),
      };
    }),
  );
}

/** What of a run would be put on its way: at accounts with a link, not begun or free to be begun again, each with the most it may cost. */
function startableOf({ quote }: OpenRenewal, { linkedAccounts, items }: RunProgress) {
  const live = new Map(items.map((item) => [item.nameId, item]));
  return quote.items
    .filter((item) => item.refusal === null && linkedAccounts.includes(item.accountId))
    .filter((item) => STARTABLE.includes(live.get(item.nameId)?.state ?? 'done'))
    .map((item) => ({ ...item, cap: capOf(item, live.get(item.nameId)) }));
}

/** A run may cost what each of its names may; what brings a name back from redemption wants a second person. */
async function weightOfRun(deps: Deps, renewalId: string, _words?: unknown): Promise<Weighty | null> {
  const open = await agreedRenewal(deps, renewalId);
  if (isRefusal(open)) return null;
  const { action } = open.renewal;
  const items = startableOf(open, await runProgress(deps, renewalId));
  if (items.length === 0) return null;
  const spendsMinor = await homeMinor(
    deps,
    items.map(({ cap: { feeCapMinor, currency } }) =>
      feeCapMinor === null || currency === null ? null : amount(feeCapMinor, currency),
    ),
  );
  const what = `${action === 'restore' ? 'Restore' : 'Renew'} ${namesOrOne(items.map(({ unicode }) => unicode))}`;
  return { what, isGrave: action === 'restore', spendsMinor };
}

/**
 * Starts a run: every name whose account has a link is put on its way, each for at most the price the registrar named live
 * (else the quoted one). A restore takes what the owner certifies in its reports. Names by hand stay in the list until somebody says what was charged. Starting twice does it once.
 */
export const startRun = command(
  'startRun',
  async (deps: Deps, renewalId: string, words: unknown = null): Promise<number | Refusal> => {
    const open = await agreedRenewal(deps, renewalId);
    if (isRefusal(open)) return open;
    const report = open.renewal.action === 'restore' ? await readRequest(CertifiedReport, words ?? {}) : null;
    if (isRefusal(report)) return report;
    const startable = startableOf(open, await runProgress(deps, renewalId));
    return changing(deps, async (tx) => {
      const status = await lockRenewal(tx, renewalId);
      if (!isOpenRun(status)) return refuse('renewal-settled', 'This renewal is settled and cannot be started again.');
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
        startable.map(({ nameId, cap }) => ({ nameId, orderId: `NL-${randomUUID()}`, ...cap })),
      );
      if (started > 0) await updateRenewal(tx, renewalId, { status: 'requested' });
      if (report) await writeReport(tx, renewalId, wordsOf(report), deps.clock());
      return started;
    });
  },
  weightOfRun,
);

/** The most an order may cost: what the registrar asks now, else the quote, each in its own currency. */
function capOf(
  item: QuotedItem,
  live: ItemProgress | undefined,
): { feeCapMinor: number | null; currency: string | null } {
  return live?.liveMinor != null
    ? { feeCapMinor: live.liveMinor, currency: live.liveCurrency ?? item.total?.currency ?? null }
    : { feeCapMinor: item.total?.minor ?? null, currency: item.total?.currency ?? null };
}

/** Stops what of a run has not been sent, and leaves to a person what has been: so any run can be left. Answers how many. */
export const stopRun = command('stopRun', async (deps: Deps, renewalId: string): Promise<number | Refusal> => {
  const stopped = await changing(deps, (tx) => stopItems(tx, renewalId));
  return stopped > 0 ? stopped : refuse('nothing-to-stop', 'Nothing of this run is on its way any more.');
});

/** Closes a run though some of its names were refused: they stay as they are. */
export const finishRun = command('finishRun', async (deps: Deps, renewalId: string): Promise<true | Refusal> => {
  const closed = await changing(deps, (tx) => closeRun(tx, renewalId, deps.clock()));
  return closed
    ? true
    : refuse(
        'run-under-way',
        'Some names of this run are not settled yet. Wait for them, or decide about those in doubt.',
      );
});

/** What a person decides about an item whose state at the registrar is in doubt: to leave it as it is. */
export const leaveItem = command(
  'leaveItem',
  async (deps: Deps, renewalId: string, nameId: number): Promise<true | Refusal> => {
    const left = await leaveDoubt(deps.database, renewalId, nameId, 'Left after a look at the registrar.');
    return (
      left ||
      refuse('item-not-in-doubt', 'This name is not in doubt any more: it was settled meanwhile. Load the page again.')
    );
  },
);

/** What the owner certifies in the reports of a restore (RFC 3915 section 3.4). */
export class CertifiedReport {
  @IsString()
  @MinLength(3, { message: 'Write why the name is restored.' })
  @MaxLength(400, { message: 'The reason has 400 letters at most.' })
  reason!: string;

  @IsOptional()
  @IsString()
  @MaxLength(400, { message: 'What else is to be said has 400 letters at most.' })
  other?: string;

  @Equals(true, { message: 'Certify that the report is true: the registrar passes it on as your statement.' })
  certified!: boolean;
}

const wordsOf = ({ reason, other }: CertifiedReport): ReportWords => ({ reason, other: other?.trim() || null });

/** Sends reports that were refused again, with other words. Answers how many go on their way. */
export const sendReportsAgain = command(
  'sendReportsAgain',
  async (deps: Deps, renewalId: string, words: unknown): Promise<number | Refusal> => {
    const report = await readRequest(CertifiedReport, words);
    if (isRefusal(report)) return report;
    return changing(deps, async (tx) => {
      await writeReport(tx, renewalId, wordsOf(report), deps.clock());
      const again = await reportAgain(tx, renewalId);
      return again > 0 ? again : refuse('no-report-refused', 'No report of this run was refused.');
    });
  },
);

/** The run that is changing a name now, or `null`. */
export function runOfName(deps: Deps, nameId: number): Promise<string | null> {
  return selectRunOf(deps.database, nameId);
}
