import pLimit from 'p-limit';
import { policyFor } from '@/core/lifecycle';
import { BEFORE_REQUEST, type MoveStage } from '@/core/moving';
import { dayOf } from '@/core/time';
import { selectAccounts } from '@/database/accounts';
import { patchNames } from '@/database/changes';
import { insertEntries } from '@/database/entries';
import { selectLinks } from '@/database/links';
import { whileAlone } from '@/database/locks';
import { selectPolicies } from '@/database/policies';
import type { Transaction } from '@/database/pool';
import {
  moveTransfers,
  selectAccountsOfTransfers,
  selectTransfersAt,
  type TransferMove,
  type TransferPatch,
  type TransferRow,
} from '@/database/transfers';
import { type Change, changing } from '../changing';
import type { Deps } from '../deps';
import { linkOf } from '../links/links';
import { itself } from '../people/command';
import { CLOSING, LOOKING_AFTER } from './arriving';
import { AWAITING_CREDIT, GOING_BACK } from './goingBack';
import { CHECKING, COPYING, FUNDING, SETTING_CODE, SWITCHING_OFF, UNLOCKING } from './preparing';
import { ARRIVING, AWAITING, READYING, REQUESTING, turnBackOf } from './requesting';
import type { LedgerEffect, MoveStep, Sides, SidesOf, Went } from './step';

/** In the order of the stages, so that one pass takes a transfer as far as it goes. */
const STEPS: readonly MoveStep[] = [
  CHECKING,
  COPYING,
  FUNDING,
  SWITCHING_OFF,
  UNLOCKING,
  SETTING_CODE,
  READYING,
  REQUESTING,
  AWAITING,
  ARRIVING,
  LOOKING_AFTER,
  CLOSING,
  GOING_BACK,
  AWAITING_CREDIT,
];

/** So many names are taken through a step and written together: a crash leaves no more than these to be looked up again. */
const GROUP = 25;
/** So many registrars’ answers are waited for at once. */
const AT_ONCE = 8;

/**
 * Takes every transfer as far as it goes by itself. Safe to call again after a crash at any moment: a stage is written before the next is
 * begun, and a request that may have been sent is looked up first. Answers how many went on; `null` while another process is at it.
 */
export const carryOnTransfers = itself((deps: Deps): Promise<number | null> => {
  return whileAlone(deps.database, 'transfers', async () => {
    const moving = await selectAccountsOfTransfers(deps.database);
    if (moving.size === 0) return 0;
    const sidesOf = await sidesOfAll(deps, moving);
    const away = new Set<number>();
    let moved = 0;
    for (const step of STEPS) moved += await takeAll(deps, step, sidesOf, away);
    return moved;
  });
});

async function sidesOfAll(deps: Deps, moving: ReadonlySet<number | null>): Promise<SidesOf> {
  const accounts = new Map((await selectAccounts(deps.database)).map((account) => [account.id, account]));
  const rows = (await selectLinks(deps.database)).filter(({ accountId }) => moving.has(accountId));
  const links = new Map(
    await Promise.all(rows.map(async ({ accountId }) => [accountId, await linkOf(deps, accountId)] as const)),
  );
  const logins = new Map(rows.map(({ accountId, login }) => [accountId, login]));
  const policies = new Map((await selectPolicies(deps.database)).map((policy) => [policy.ending, policy]));
  return ({ fromId, toId, ending }): Sides | null => {
    const [from, to] = [fromId, toId].map((id) => (id === null ? null : accounts.get(id)));
    if (from === undefined || to === undefined) return null;
    return {
      from,
      to,
      losing: (from && links.get(from.id)) ?? null,
      gaining: (to && links.get(to.id)) ?? null,
      login: (to && logins.get(to.id)) ?? null,
      transferYears: policyFor(ending, policies).transferYears,
    };
  };
}

async function takeAll(deps: Deps, step: MoveStep, sidesOf: SidesOf, away: Set<number>): Promise<number> {
  const open = await selectTransfersAt(deps.database, step.at, deps.clock());
  let moved = 0;
  for (let start = 0; start < open.length; start += GROUP) {
    const group = open.slice(start, start + GROUP);
    const context = await step.prepare?.(deps, group, sidesOf);
    const turn = pLimit(AT_ONCE);
    const went = await Promise.all(
      group.map((transfer) => turn(() => takeOne(deps, step, transfer, sidesOf(transfer), { context, away }))),
    );
    moved += await write(deps, group, went);
  }
  return moved;
}

async function takeOne(
  deps: Deps,
  step: MoveStep,
  transfer: TransferRow,
  sides: Sides | null,
  { context, away }: { context: unknown; away: Set<number> },
): Promise<Went | null> {
  const { fromId, toId } = transfer;
  if (!sides || [fromId, toId].some((id) => id !== null && away.has(id))) return null;
  if (isTooLate(deps, transfer, sides))
    return {
      kind: 'exit',
      exit: 'timed out',
      problem: 'It would not arrive before the next charge at the old account: it stays there.',
    };
  const went = await step.take(deps, transfer, sides, context);
  if (went?.kind === 'stays' && went.away != null) away.add(went.away);
  return went;
}

/** A name whose auto-renew is off must never lapse over a transfer that does not come about. */
function isTooLate(deps: Deps, transfer: TransferRow, sides: Sides): boolean {
  // What has been sold and paid for is for a person to decide.
  if (transfer.saleId !== null) return false;
  const isBegun = BEFORE_REQUEST.includes(transfer.stage) && transfer.stage !== 'planned';
  return isBegun && deps.clock() >= turnBackOf(transfer, sides);
}

/** A transfer as it was read, and what became of it. */
interface Written {
  readonly transfer: TransferRow;
  readonly move: TransferMove;
  readonly ledger: LedgerEffect | null;
}

/** Writes what became of a group, in one transaction: stages, the ledger, and the books, each once. */
async function write(deps: Deps, group: readonly TransferRow[], went: readonly (Went | null)[]): Promise<number> {
  const told = group.flatMap((transfer, i): Written[] => {
    const one = went[i];
    if (!one) return [];
    const move = moveOf(transfer, one);
    const isSame = move.to === transfer.stage && move.problem === transfer.problem && !move.patch;
    return isSame ? [] : [{ transfer, move, ledger: one.kind === 'on' ? (one.ledger ?? null) : null }];
  });
  if (told.length === 0) return 0;
  // Whoever has it carried on: the program does it by itself.
  return changing({ ...deps, by: 'program' }, (tx, change) => writeMoves(tx, change, told));
}

/** Moves transfers on, with what that does to the ledger and the books. What has gone on meanwhile is left alone. Answers how many moved. */
export async function writeMoves(tx: Transaction, change: Change, told: readonly Written[]): Promise<number> {
  const moved = await moveTransfers(
    tx,
    told.map(({ move }) => move),
    change.at,
  );
  const done = told.filter(({ move }) => moved.has(move.id));
  for (const to of new Set(done.map(({ move }) => move.to)))
    await book(
      tx,
      change,
      to,
      done.filter(({ move, ledger }) => move.to === to && ledger !== null),
    );
  return done.filter(({ move }) => move.to !== move.from).length;
}

function moveOf({ id, stage, exit }: TransferRow, went: Went): TransferMove {
  switch (went.kind) {
    case 'on':
      return { id, from: stage, to: went.to, problem: went.problem ?? null, ...patched(went.patch) };
    case 'stays':
      return { id, from: stage, to: stage, problem: went.problem, ...patched(went.patch) };
    case 'exit': {
      const patch = { ...went.patch, exit: exit ?? went.exit };
      return { id, from: stage, to: 'going back', problem: went.problem, patch };
    }
  }
}

const patched = (patch: TransferPatch | undefined) => (patch ? { patch } : {});

async function book(tx: Transaction, { at, record }: Change, to: MoveStage, done: readonly Written[]): Promise<void> {
  if (done.length === 0) return;
  const what = done.length === 1 ? done[0]?.transfer.ascii : `${done.length} names`;
  const batchId = await record('transfer', `Transfer, ${to}: ${what}`);
  await patchNames(
    tx,
    batchId,
    done.flatMap(({ transfer: { nameId }, ledger }) =>
      ledger?.names ? [{ nameId, patch: ledger.names, evidence: ledger.evidence ?? null }] : [],
    ),
  );
  await insertEntries(
    tx,
    batchId,
    done.flatMap(({ transfer: { nameId }, ledger }) =>
      ledger?.entry ? [{ ...ledger.entry, nameId, onDay: dayOf(at) }] : [],
    ),
  );
}
