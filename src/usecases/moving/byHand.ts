import { randomUUID } from 'node:crypto';
import { policyFor } from '@/core/lifecycle';
import { amount, formatDecimal, GREATEST_MINOR } from '@/core/money';
import {
  autoAsBefore,
  BEFORE_REQUEST,
  MAY_BE_UNDER_WAY,
  type MoveExit,
  type MoveStage,
  OVER_MOVES,
  stageOnceBack,
} from '@/core/moving';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { FIRST_DAY, formatInstant, LAST_DAY, startOfDay } from '@/core/time';
import { selectPolicies } from '@/database/policies';
import { transferPlace } from '@/database/secrets';
import { keepCodes, moveTransfers, selectTransfer, type TransferPatch, type TransferRow } from '@/database/transfers';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { linkOf, linkProblem } from '../links/links';
import { NOT_REQUESTED, SWITCHED } from '../names/edit';
import { command } from '../people/command';
import { queueChecks } from '../records/check';
import { seal } from '../secrets/seal';
import { readRequest } from '../validate';
import { arrive } from './arriving';
import { writeMoves } from './carryOn';
import { sumsWithCode } from './expected';
import { openCodes } from './preparing';
import { TellTransfer, type Told } from './requests';
import { entryOf, type LedgerEffect } from './step';

/** At which stages each thing can be told, and where the transfer goes on from there. */
const FOLLOWS: Readonly<Record<Told, { readonly from: readonly MoveStage[]; readonly to: MoveStage }>> = {
  'the zone is there': { from: ['checked'], to: 'zone copied' },
  'auto-renew is off': { from: ['funded'], to: 'auto-renew off' },
  'the lock is off': { from: ['funded', 'auto-renew off'], to: 'unlocked' },
  'the code': { from: ['auto-renew off', 'unlocked', 'code held'], to: 'code held' },
  requested: { from: ['code held', 'requested'], to: 'pending' },
  'it is pending': { from: ['requested'], to: 'pending' },
  'it has arrived': { from: ['code held', 'requested', 'pending', 'approved'], to: 'arrived' },
  'looked after': { from: ['arrived'], to: 'looked after' },
  refused: { from: ['code held', 'requested'], to: 'going back' },
  rejected: { from: ['requested', 'pending', 'approved'], to: 'going back' },
  'back as it was': { from: ['going back'], to: 'given up' },
  'the money is back': { from: ['credit awaited'], to: 'given up' },
};

/** Takes down what a person has done or seen of a transfer, where no link says it. Telling it twice does it once. */
export const tellTransfer = command('tellTransfer', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const told = await readRequest(TellTransfer, input);
  if (isRefusal(told)) return told;
  const transfer = await selectTransfer(deps.database, told.id);
  if (!transfer) return gone();
  const { from, to } = FOLLOWS[told.what];
  if (transfer.stage === to && told.what !== 'the code') return true;
  if (!from.includes(transfer.stage))
    return refuse('stage-out-of-order', `This transfer is at “${transfer.stage}” now. Load the page again.`);
  const code = told.what === 'the code' ? await keepCode(deps, transfer, told.code) : null;
  if (isRefusal(code)) return code;
  const next = await nextOf(deps, transfer, told);
  if (isRefusal(next)) return next;
  const { ledger, patch, exit } = next;
  await changing(deps, (tx, change) =>
    writeMoves(tx, change, [
      {
        transfer,
        move: {
          id: transfer.id,
          from: transfer.stage,
          to: told.what === 'back as it was' ? stageOnceBack(transfer.chargedMinor) : to,
          problem: exit ? (told.note ?? `Told by hand: ${told.what}.`) : null,
          ...((patch || exit) && { patch: { ...patch, ...(exit && { exit }) } }),
        },
        ledger,
      },
    ]),
  );
  if (told.what === 'it has arrived') await queueChecks(deps, [transfer.ascii]);
  return true;
});

const gone = () => refuse('transfer-unknown', 'This transfer is no longer there. Load the page again.');

interface Next {
  readonly ledger: LedgerEffect | null;
  readonly patch?: TransferPatch;
  readonly exit?: MoveExit;
}

const BY_HAND = 'seen at the registrar';

/** What follows in the ledger and in the books from what was told. */
async function nextOf(deps: Deps, transfer: TransferRow, told: TellTransfer): Promise<Next | Refusal> {
  const at = deps.clock();
  switch (told.what) {
    case 'auto-renew is off':
      return { ledger: { names: SWITCHED['auto-renew']('off', formatInstant(at), BY_HAND), evidence: BY_HAND } };
    case 'the lock is off':
      return { ledger: { names: { lock: false, requested_lock: null }, evidence: BY_HAND } };
    case 'requested': {
      if (told.minor === undefined)
        return refuse('amount-missing', 'Write what was charged for it, 0 where nothing was.', 'minor');
      const expected = transfer.quotedMinor;
      const withCode = (await sumsWithCode(deps, [transfer])).get(transfer.id)?.minor;
      if (expected !== null && told.minor !== expected && told.minor !== withCode && !told.isAnother)
        return refuse(
          'charge-differs',
          `Its price list says ${formatDecimal(amount(expected, transfer.currency))} ${transfer.currency}. Look at the receipt; if another sum was charged indeed, say so below.`,
          'minor',
        );
      const entry = entryOf(transfer, amount(told.minor, transfer.currency), null, told.note ?? null);
      return { ledger: told.minor === 0 ? null : { entry }, patch: { charged_minor: told.minor } };
    }
    case 'it has arrived':
      return arrivedByHand(deps, transfer, told);
    case 'looked after':
      return { ledger: { names: { lock: true }, evidence: BY_HAND } };
    case 'refused':
    case 'rejected':
      return { ledger: null, exit: told.what };
    case 'back as it was': {
      const { setting, lock } = transfer.before;
      // As it was: what nobody knew then nobody knows now.
      const auto =
        setting === 'unknown'
          ? ({ ...NOT_REQUESTED['auto-renew'], setting, standing: 'believed' } as const)
          : SWITCHED['auto-renew'](autoAsBefore(setting), formatInstant(at), BY_HAND);
      return { ledger: { names: { ...auto, lock: lock ?? true }, evidence: BY_HAND } };
    }
    case 'the money is back': {
      const minor = told.minor ?? transfer.chargedMinor ?? 0;
      const { kind: _, ...entry } = entryOf(transfer, amount(minor, transfer.currency), null, told.note ?? null);
      return { ledger: minor === 0 ? null : { entry: { ...entry, kind: 'refund' } }, patch: { credited_minor: minor } };
    }
    default:
      return { ledger: null };
  }
}

/** A name that has arrived by what a person says, with the end that was seen, or the one that follows from the old end. */
async function arrivedByHand(deps: Deps, transfer: TransferRow, { end }: TellTransfer): Promise<Next | Refusal> {
  if (end !== undefined && (end < FIRST_DAY || end > LAST_DAY))
    return refuse('date-out-of-range', `${end} is not a day between 1985 and 2099. Check it.`, 'end');
  const policies = new Map((await selectPolicies(deps.database)).map((policy) => [policy.ending, policy]));
  const { transferYears } = policyFor(transfer.ending, policies);
  const went = arrive(transfer, null, deps.clock(), transferYears);
  if (went.kind !== 'on' || !went.ledger) return { ledger: null };
  if (end === undefined) return { ledger: went.ledger };
  const names = { ...went.ledger.names, term_end: formatInstant(startOfDay(end)), term_end_day: true };
  return { ledger: { names, evidence: BY_HAND } };
}

/** Seals the code that a person has brought. */
async function keepCode(deps: Deps, transfer: TransferRow, code: string | undefined): Promise<true | Refusal> {
  if (code === undefined) return refuse('code-missing', 'Write the code that the old registrar gave.', 'code');
  if (!deps.key) return refuse('no-key', 'Set NAME_LEDGER_KEY to a long text of your own: it seals transfer codes.');
  const sealed = await seal(deps.key, transferPlace(transfer), code);
  await keepCodes(deps.database, [{ id: transfer.id, sealed }], true);
  return true;
}

/** The code of a transfer, shown when it is asked for: what a person types at the new registrar. */
export const codeOfTransfer = command('codeOfTransfer', async (deps: Deps, id: number): Promise<string | Refusal> => {
  const transfer = await selectTransfer(deps.database, id);
  const code = transfer && (await openCodes(deps, [transfer])).get(id);
  return code ?? refuse('code-gone', 'There is no code: it is destroyed when a transfer is over.');
});

/** Agrees to what the new registrar asks. */
export const agreeToPrice = command(
  'agreeToPrice',
  async (deps: Deps, id: number, minor: number): Promise<true | Refusal> => {
    const transfer = await selectTransfer(deps.database, id);
    if (!transfer || transfer.askedMinor !== minor)
      return refuse('price-changed', 'The new registrar asks another price by now. Load the page again.');
    await changing(deps, (tx, { at }) =>
      moveTransfers(
        tx,
        [
          {
            id,
            from: transfer.stage,
            to: transfer.stage,
            problem: null,
            patch: { cap_minor: minor, asked_minor: null },
          },
        ],
        at,
      ),
    );
    return true;
  },
);

/** Stops a transfer that has not been requested yet: the name is put back as it was. Nothing has been paid for it. */
export const stopTransfer = command('stopTransfer', async (deps: Deps, id: number): Promise<true | Refusal> => {
  const transfer = await selectTransfer(deps.database, id);
  if (!transfer) return gone();
  const { stage } = transfer;
  if (OVER_MOVES.includes(stage) || stage === 'going back' || stage === 'credit awaited') return true;
  if (!BEFORE_REQUEST.includes(stage))
    return refuse('transfer-requested', 'It has been requested: have it rejected or cancelled at a registrar.');
  const isUntouched = stage === 'planned' || stage === 'checked' || stage === 'zone copied' || stage === 'funded';
  await changing(deps, (tx, { at }) =>
    moveTransfers(
      tx,
      [
        {
          id,
          from: stage,
          to: isUntouched ? 'given up' : 'going back',
          problem: 'Stopped by you.',
          patch: { exit: 'stopped' },
        },
      ],
      at,
    ),
  );
  return true;
});

/** What the old registrar offers for staying, and what is decided of it. Both are of a transfer that has not arrived yet. */
export const noteCounterOffer = command(
  'noteCounterOffer',
  async (deps: Deps, id: number, offer: { readonly minor: number } | 'declined'): Promise<true | Refusal> => {
    const transfer = await selectTransfer(deps.database, id);
    if (!transfer || !(BEFORE_REQUEST.includes(transfer.stage) || MAY_BE_UNDER_WAY.includes(transfer.stage)))
      return gone();
    const { stage, problem } = transfer;
    if (offer !== 'declined' && (!Number.isInteger(offer.minor) || offer.minor < 0 || offer.minor > GREATEST_MINOR))
      return refuse('amount-invalid', 'Write what it offers for a year, like 9.90.', 'minor');
    const patch: TransferPatch =
      offer === 'declined' ? { counter_declined: true } : { counter_minor: offer.minor, counter_declined: false };
    await changing(deps, (tx, { at }) => moveTransfers(tx, [{ id, from: stage, to: stage, problem, patch }], at));
    return true;
  },
);

/** Takes the old registrar's offer: a transfer that is pending is taken back, one that is not is stopped. */
export const stayAfterAll = command('stayAfterAll', async (deps: Deps, id: number): Promise<true | Refusal> => {
  const transfer = await selectTransfer(deps.database, id);
  if (!transfer) return gone();
  if (transfer.stage !== 'pending') return stopTransfer(deps, id);
  const gaining = transfer.toId === null ? null : await linkOf(deps, transfer.toId);
  const losing = gaining || transfer.fromId === null ? null : await linkOf(deps, transfer.fromId);
  const link = gaining ?? losing;
  if (!link) return refuse('no-link', 'Have it cancelled at the new registrar, then say that it was rejected.');
  const outcome = await link.transfer(gaining ? 'cancel' : 'reject', { name: transfer.ascii }, `NL-${randomUUID()}`);
  // What became of it is read by the next pass, whatever this answer was.
  return outcome.kind === 'done' || outcome.kind === 'unknown' ? true : refuse('link-failed', linkProblem(outcome));
});
