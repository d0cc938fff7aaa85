import type { HeldName, Outcome, RegistrarLink, Renewed } from '@/connectors/registrar/port';
import { amount } from '@/core/money';
import { dayOf, formatInstant, type Instant } from '@/core/time';
import { insertBatch, patchNames } from '@/database/changes';
import { insertEntries } from '@/database/entries';
import { bumpRevision } from '@/database/ledger';
import { updateBalance } from '@/database/links';
import { transaction } from '@/database/pool';
import {
  confirmSettledRun,
  markSending,
  moveItem,
  type RunItem,
  selectOpenItems,
  selectOpenRuns,
  settleItem,
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

/** One account's items, one after the other. Ends early when the registrar cannot be reached: the rest would fare the same. */
async function carryOutAtAccount(deps: Deps, accountId: number, items: readonly RunItem[]): Promise<number> {
  const link = await linkOf(deps, accountId);
  let settled = 0;
  for (const item of items) {
    if (!link) {
      await moveItem(deps.database, item, item.state, 'This account has no link that works.');
      continue;
    }
    const went = await carryOutItem(deps, link, item);
    if (went === 'settled') settled += 1;
    if (went === 'unreachable') break;
  }
  return settled;
}

type Went = 'settled' | 'later' | 'unreachable';

/** How often one pass sends the same order, when its answer stays away. */
const MOST_SENDS = 3;

async function carryOutItem(deps: Deps, link: RegistrarLink, first: RunItem): Promise<Went> {
  let item = first;
  for (let sends = 0; sends < MOST_SENDS; sends += 1) {
    const held = await link.info(item.ascii);
    if (held.kind !== 'done') return notSeen(deps, item, held);
    const settled = await settleBySight(deps, item, held.value);
    if (settled) return 'settled';
    // From here on the order may have been sent: this stands in the books before it goes out.
    await markSending(deps.database, item, deps.clock());
    item = { ...item, state: 'sending' };
    const outcome = await link.renew(orderOf(item), item.orderId);
    if (outcome.kind === 'unknown') continue;
    return settleByAnswer(deps, item, outcome);
  }
  await moveItem(
    deps.database,
    item,
    'sending',
    'The registrar did not answer. It is looked up there and tried again.',
  );
  return 'later';
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

async function notSeen(deps: Deps, item: RunItem, held: Exclude<Outcome<HeldName>, { kind: 'done' }>): Promise<Went> {
  if (held.kind === 'refused') {
    const settles = item.state === 'waiting';
    await moveItem(deps.database, item, settles ? 'refused' : 'doubt', `The registrar says: ${held.reason}.`);
    return 'settled';
  }
  const cause = held.kind === 'unknown' ? held.cause : 'not finished yet';
  await moveItem(deps.database, item, item.state, `The registrar cannot be reached (${cause}). It is tried again.`);
  return 'unreachable';
}

/**
 * Compares what the registrar has with what was expected. The end as it was: (again) to be sent. The end as it should be:
 * done, and ours when its receipt carries our order's id; else its origin is unproved and a person decides.
 */
async function settleBySight(deps: Deps, item: RunItem, held: HeldName): Promise<boolean> {
  if (dayOf(held.paidThrough) === dayOf(item.oldEnd)) return false;
  if (held.receipt?.clTRID === item.orderId) {
    await book(
      deps,
      item,
      { paidThrough: held.paidThrough, taken: held.receipt.amount, balance: null },
      held.receipt.svTRID,
    );
    return true;
  }
  const there = dayOf(held.paidThrough);
  const problem =
    dayOf(held.paidThrough) === dayOf(item.newEnd)
      ? `The registrar shows the term to ${there} already, without a receipt for this order. Look who renewed it, then confirm or drop it.`
      : `The registrar shows the term to ${there}, which is neither the old end nor the new one. Read the account, then decide.`;
  await moveItem(deps.database, item, 'doubt', problem);
  return true;
}

async function settleByAnswer(
  deps: Deps,
  item: RunItem,
  outcome: Exclude<Outcome<Renewed>, { kind: 'unknown' }>,
): Promise<Went> {
  switch (outcome.kind) {
    case 'done':
      await book(deps, item, outcome.value, outcome.svTRID);
      return 'settled';
    case 'pending':
      await moveItem(deps.database, item, 'sending', 'The registrar has taken it and will finish it later.');
      return 'later';
    case 'refused':
      await moveItem(deps.database, item, 'refused', refusalWords(outcome.code, outcome.reason));
      return 'settled';
  }
}

/** Why a registrar refused, with what to do about it. */
function refusalWords(code: number, reason: string): string {
  if (code === 2104) return `Not paid: ${reason}. Top up the balance or replace the card, then try again.`;
  if (code === 2004) return `It costs more now: ${reason}. Ask for the prices again.`;
  return `Refused: ${reason}.`;
}

/** Writes a renewal that was carried out: new end, entry, history and receipt, in one transaction, once. */
async function book(deps: Deps, item: RunItem, renewed: Renewed, receipt: string | null): Promise<void> {
  const at: Instant = deps.clock();
  await transaction(deps.database, async (tx) => {
    const batchId = await insertBatch(tx, at, 'renewal', `Renewed by link: ${item.ascii}`);
    const settled = await settleItem(tx, item, {
      newEnd: renewed.paidThrough,
      chargedMinor: renewed.taken?.minor ?? null,
      chargedOn: dayOf(at),
      receipt,
      batchId,
    });
    if (!settled) return;
    await bumpRevision(tx);
    await patchNames(tx, batchId, [
      {
        nameId: item.nameId,
        patch: { term_end: formatInstant(renewed.paidThrough), term_end_day: false },
        evidence: receipt ? `receipt ${receipt}` : 'the registrar’s answer',
      },
    ]);
    if (renewed.taken)
      await insertEntries(tx, batchId, [
        {
          nameId: item.nameId,
          onDay: dayOf(at),
          kind: 'renewal',
          minor: renewed.taken.minor,
          currency: renewed.taken.currency,
          means: 'by link',
          reference: receipt ?? '',
          note: `${item.years} ${item.years === 1 ? 'year' : 'years'}`,
          quotedMinor: item.quotedMinor,
        },
      ]);
    if (renewed.balance) await updateBalance(tx, item.accountId, renewed.balance.minor, at);
  });
}
