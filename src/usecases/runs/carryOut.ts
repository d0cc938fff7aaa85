import type { HeldName, Outcome, RegistrarLink, Renewed } from '@/connectors/registrar/port';
import { amount } from '@/core/money';
import { dayOf, formatInstant, type Instant } from '@/core/time';
import { insertBatch, patchNames } from '@/database/changes';
import { insertEntries } from '@/database/entries';
import { bumpRevision } from '@/database/ledger';
import { updateBalance } from '@/database/links';
import { type Transaction, transaction } from '@/database/pool';
import {
  confirmSettledRun,
  type ItemState,
  markSending,
  moveItems,
  type RunItem,
  selectOpenItems,
  selectOpenRuns,
  settleItems,
  whileAlone,
} from '@/database/runs';
import type { Deps } from '../deps';
import { linkOf } from '../links/links';

/** What a pass over a run came to. `left`: items that could not be settled now and are tried again later. */
export interface RunResult {
  readonly settled: number;
  readonly left: number;
}

/**
 * Renews every name of a run that was started, at the accounts that have a link. Safe to call again after a crash at any
 * moment: what is settled is skipped, and what may have been sent is first looked up at the registrar (guarded resend).
 * Answers `null` while another process is at it.
 */
export function carryOutRun(deps: Deps, renewalId: string): Promise<RunResult | null> {
  return whileAlone(deps.database, `run ${renewalId}`, async () => {
    const items = await selectOpenItems(deps.database, renewalId);
    const accountIds = [...new Set(items.map((item) => item.accountId))];
    const results = await Promise.all(
      accountIds.map((id) =>
        carryOutAtAccount(
          deps,
          id,
          items.filter((item) => item.accountId === id),
        ),
      ),
    );
    await transaction(deps.database, async (tx) => {
      await confirmSettledRun(tx, renewalId, deps.clock());
      await bumpRevision(tx);
    });
    const settled = results.reduce((sum, count) => sum + count, 0);
    return { settled, left: items.length - settled };
  });
}

/** Carries on every run that has items on their way: after a start, and from time to time. */
export async function carryOnRuns(deps: Deps): Promise<void> {
  for (const id of await selectOpenRuns(deps.database)) await carryOutRun(deps, id);
}

/** So many names of an account are looked up, sent and booked together: a crash leaves no more than these to look up again. */
const GROUP = 25;

/** One account's items, a group after the other. Ends early when the registrar cannot be reached: the rest would fare the same. */
async function carryOutAtAccount(deps: Deps, accountId: number, items: readonly RunItem[]): Promise<number> {
  const link = await linkOf(deps, accountId);
  if (!link) {
    const problem = 'This account has no link that works.';
    await moveItems(
      deps.database,
      items.map((item) => ({ ...item, problem })),
    );
    return 0;
  }
  let settled = 0;
  for (let start = 0; start < items.length; start += GROUP) {
    const went = await carryOutGroup(deps, link, items.slice(start, start + GROUP));
    settled += went.settled;
    if (went.unreachable) break;
  }
  return settled;
}

/** What a look or an answer says of an item: to be sent (again), done, or moved on with a reason. */
type Verdict =
  | { readonly kind: 'send' }
  | { readonly kind: 'done'; readonly renewed: Renewed; readonly receipt: string | null }
  | {
      readonly kind: 'moved';
      readonly state: ItemState;
      readonly problem: string;
      readonly settles: boolean;
      readonly unreachable?: boolean;
    };

/** How often one pass sends the same order, when its answer stays away. */
const MOST_SENDS = 3;

async function carryOutGroup(
  deps: Deps,
  link: RegistrarLink,
  items: readonly RunItem[],
): Promise<{ settled: number; unreachable: boolean }> {
  let open = items;
  let settled = 0;
  let unreachable = false;
  const judge = async (verdicts: readonly Verdict[]) => {
    await write(deps, open, verdicts);
    settled += verdicts.filter((one) => one.kind === 'done' || (one.kind === 'moved' && one.settles)).length;
    unreachable ||= verdicts.some((one) => one.kind === 'moved' && one.unreachable);
    open = open.filter((_, i) => verdicts[i]?.kind === 'send');
  };
  for (let sends = 0; sends < MOST_SENDS && open.length > 0; sends += 1) {
    await judge(await Promise.all(open.map(async (item) => bySight(item, await link.info(item.ascii)))));
    if (open.length === 0) break;
    // From here on the orders may have been sent: this stands in the books before they go out.
    await markSending(deps.database, open, deps.clock());
    open = open.map((item) => ({ ...item, state: 'sending' as const }));
    await judge(await Promise.all(open.map(async (item) => byAnswer(await link.renew(orderOf(item), item.orderId)))));
  }
  const problem = 'The registrar did not answer. It is looked up there and tried again.';
  await moveItems(
    deps.database,
    open.map((item) => ({ ...item, problem })),
  );
  return { settled, unreachable };
}

function orderOf(item: RunItem) {
  return {
    name: item.ascii,
    curExpDate: dayOf(item.oldEnd),
    years: item.years,
    fee: item.feeCapMinor === null ? null : amount(item.feeCapMinor, item.currency),
    promotion: item.promotion,
  };
}

/**
 * Compares what the registrar has with what was expected. The end as it was: (again) to be sent. The end as it should be:
 * done, and ours when its receipt carries our order's id; else its origin is unproved and a person decides.
 */
function bySight(item: RunItem, seen: Outcome<HeldName>): Verdict {
  if (seen.kind === 'refused') {
    const state = item.state === 'waiting' ? 'refused' : 'doubt';
    return { kind: 'moved', state, problem: `The registrar says: ${seen.reason}.`, settles: true };
  }
  if (seen.kind !== 'done') {
    const cause = seen.kind === 'unknown' ? seen.cause : 'not finished yet';
    const problem = `The registrar cannot be reached (${cause}). It is tried again.`;
    return { kind: 'moved', state: item.state, problem, settles: false, unreachable: true };
  }
  const held = seen.value;
  const there = dayOf(held.paidThrough);
  if (there === dayOf(item.oldEnd)) return { kind: 'send' };
  if (held.receipt?.clTRID === item.orderId) {
    const renewed = { paidThrough: held.paidThrough, taken: held.receipt.amount, balance: null };
    return { kind: 'done', renewed, receipt: held.receipt.svTRID };
  }
  const problem =
    there === dayOf(item.newEnd)
      ? `The registrar shows the term to ${there} already, without a receipt for this order. Look who renewed it, then confirm or drop it.`
      : `The registrar shows the term to ${there}, which is neither the old end nor the new one. Read the account, then decide.`;
  return { kind: 'moved', state: 'doubt', problem, settles: true };
}

function byAnswer(outcome: Outcome<Renewed>): Verdict {
  switch (outcome.kind) {
    case 'done':
      return { kind: 'done', renewed: outcome.value, receipt: outcome.svTRID };
    case 'pending': {
      const problem = 'The registrar has taken it and will finish it later.';
      return { kind: 'moved', state: 'sending', problem, settles: false };
    }
    case 'refused':
      return { kind: 'moved', state: 'refused', problem: refusalWords(outcome.code, outcome.reason), settles: true };
    case 'unknown':
      return { kind: 'send' };
  }
}

/** Why a registrar refused, with what to do about it. */
function refusalWords(code: number, reason: string): string {
  if (code === 2104) return `Not paid: ${reason}. Top up the balance or replace the card, then try again.`;
  if (code === 2004) return `It costs more now: ${reason}. Ask for the prices again.`;
  return `Refused: ${reason}.`;
}

/** Writes what a group came to, in one transaction: new ends, entries, history and receipts, each once. */
async function write(deps: Deps, items: readonly RunItem[], verdicts: readonly Verdict[]): Promise<void> {
  const moves: Parameters<typeof moveItems>[1][number][] = [];
  const done: (RunItem & { readonly renewed: Renewed; readonly receipt: string | null })[] = [];
  for (const [i, item] of items.entries()) {
    const verdict = verdicts[i];
    if (verdict?.kind === 'moved') moves.push({ ...item, state: verdict.state, problem: verdict.problem });
    if (verdict?.kind === 'done') done.push({ ...item, renewed: verdict.renewed, receipt: verdict.receipt });
  }
  if (moves.length > 0) await moveItems(deps.database, moves);
  if (done.length > 0) await transaction(deps.database, (tx) => book(tx, deps.clock(), done));
}

async function book(
  tx: Transaction,
  at: Instant,
  done: readonly (RunItem & { readonly renewed: Renewed; readonly receipt: string | null })[],
): Promise<void> {
  const what = done.length === 1 ? done[0]?.ascii : `${done.length} names`;
  const batchId = await insertBatch(tx, at, 'renewal', `Renewed by link: ${what}`);
  const isNew = await settleItems(
    tx,
    batchId,
    dayOf(at),
    done.map(({ renewalId, nameId, renewed, receipt }) => ({
      renewalId,
      nameId,
      newEnd: renewed.paidThrough,
      chargedMinor: renewed.taken?.minor ?? null,
      receipt,
    })),
  );
  const booked = done.filter((item) => isNew.has(item.nameId));
  if (booked.length === 0) return;
  await bumpRevision(tx);
  await patchNames(
    tx,
    batchId,
    booked.map(({ nameId, renewed, receipt }) => ({
      nameId,
      patch: { term_end: formatInstant(renewed.paidThrough), term_end_day: false },
      evidence: receipt ? `receipt ${receipt}` : 'the registrar’s answer',
    })),
  );
  await insertEntries(
    tx,
    batchId,
    booked.flatMap(({ nameId, years, quotedMinor, renewed: { taken }, receipt }) =>
      taken === null
        ? []
        : [
            {
              nameId,
              onDay: dayOf(at),
              kind: 'renewal' as const,
              minor: taken.minor,
              currency: taken.currency,
              means: 'by link',
              reference: receipt ?? '',
              note: `${years} ${years === 1 ? 'year' : 'years'}`,
              quotedMinor,
            },
          ],
    ),
  );
  // Answers come in any order; money only goes out here, so the least balance told is the last.
  const balances = booked.flatMap(({ renewed }) => renewed.balance?.minor ?? []);
  const [first] = booked;
  if (first && balances.length > 0) await updateBalance(tx, first.accountId, Math.min(...balances), at);
}
