import { randomUUID } from 'node:crypto';
import type { HeldName, Outcome, RegistrarLink, Taken, TransferState } from '@/connectors/registrar/port';
import { EPP_RESULT, NOT_OURS } from '@/connectors/registrar/results';
import { amount } from '@/core/money';
import { autoAsBefore, endOf, judgeRequest, type TransferMark, turnBackBy } from '@/core/moving';
import type { TransferRow } from '@/database/transfers';
import type { Deps } from '../deps';
import { arrive } from './arriving';
import { isoOf, openCodes } from './preparing';
import { entryOf, type MoveStep, type Sides, stays, unanswered, type Went } from './step';

type Codes = ReadonlyMap<number, string>;

const CODE_REFUSED = 'The code is refused: it is wrong, or has lapsed.';

/** Tries the code before anything is paid, asks for the price, and remembers the last transfer: then the request may be sent. */
export const READYING: MoveStep<Codes> = {
  at: 'code held',
  prepare: openCodes,
  async take(_deps, transfer, sides, codes) {
    const { gaining } = sides;
    if (transfer.saleId !== null) return awaitBuyer(transfer, sides);
    if (!gaining) return null;
    const code = codes.get(transfer.id);
    if (code === undefined) return wrongCode(sides, 'The code is not held any more.');
    const tried = await gaining.info(transfer.ascii, code);
    if (tried.kind === 'refused' && tried.code === EPP_RESULT.wrongCode) return wrongCode(sides, CODE_REFUSED);
    if (tried.kind === 'unknown') return { ...unanswered(tried.cause), away: transfer.toId };
    if (tried.kind === 'done' && tried.value.sponsor === sides.login) return arrive(transfer, tried.value);
    const price = await askPrice(gaining, transfer);
    if (price !== null) return price;
    const before = await lastTransfer(gaining, transfer, code);
    if (before.kind === 'unknown') return { ...unanswered(before.cause), away: transfer.toId };
    return {
      kind: 'on',
      to: 'requested',
      patch: { order_id: transfer.orderId ?? `NL-${randomUUID()}`, last_transfer: before.mark, asked_minor: null },
    };
  },
};

/** The buyer’s registrar asks with the code it was given: seen at the losing side, which approves it then. */
async function awaitBuyer(transfer: TransferRow, { losing }: Sides): Promise<Went | null> {
  if (!losing) return null;
  const info = await losing.info(transfer.ascii);
  if (info.kind === 'unknown') return { ...unanswered(info.cause), away: transfer.fromId };
  if (info.kind === 'refused' && NOT_OURS.has(info.code)) return { kind: 'on', to: 'closed' };
  return info.kind === 'done' && info.value.statuses.includes('pendingTransfer')
    ? { kind: 'on', to: 'pending' }
    : stays(transfer.problem);
}

/** A wrong code is set anew where it can be; else a person brings another. */
function wrongCode({ losing }: Sides, problem: string): Went {
  return losing
    ? { kind: 'exit', exit: 'wrong code', problem: `${problem} Begin the transfer again: another is set then.` }
    : stays(`${problem} Have another sent by the old registrar, and write it here.`);
}

/** What the new registrar asks, against what was agreed to; `null` where it may be paid. */
async function askPrice(gaining: RegistrarLink, { ascii, capMinor, currency }: TransferRow): Promise<Went | null> {
  const asked = await gaining.fees('transfer', [ascii], 1, currency, null);
  if (asked.kind === 'unknown') return unanswered(asked.cause);
  const total = asked.kind === 'done' ? (asked.value[0]?.fees[0]?.total ?? null) : null;
  if (total === null || total.currency !== currency)
    return stays('The new registrar names no price for it: it may not take names of this ending.');
  if (capMinor !== null && total.minor <= capMinor) return null;
  return stays('The new registrar asks more than was agreed to.', { asked_minor: total.minor });
}

type Remembered =
  | { readonly kind: 'known'; readonly mark: TransferMark | null }
  | { readonly kind: 'unknown'; readonly cause: string };

async function lastTransfer(gaining: RegistrarLink, { ascii }: TransferRow, authInfo: string): Promise<Remembered> {
  const asked = await gaining.transfer('query', { name: ascii, authInfo }, `NL-${randomUUID()}`);
  if (asked.kind === 'unknown') return { kind: 'unknown', cause: asked.cause };
  const mark = asked.kind === 'done' ? markOf(asked.value) : null;
  return { kind: 'known', mark };
}

const markOf = ({ requestedBy, requestedAt }: TransferState): TransferMark => ({ requestedBy, requestedAt });

/** Sends the request, once whatever happens: looked up first, sent only where nothing has changed since before it (guarded resend). */
export const REQUESTING: MoveStep<Codes> = {
  at: 'requested',
  prepare: openCodes,
  async take(_deps, transfer, sides, codes) {
    const { gaining, login } = sides;
    if (!gaining || login === null)
      return stays('The new account has no link any more: say what became of the request.');
    const code = codes.get(transfer.id) ?? null;
    const seen = await look(gaining, transfer, code, login);
    if ('kind' in seen) return seen;
    const verdict = judgeRequest(seen, transfer.lastTransfer, login);
    switch (verdict) {
      case 'arrived':
        return seen.held ? arrive(transfer, seen.held) : stays(null);
      case 'pending':
        return { kind: 'on', to: 'pending', patch: { acts_by: isoOf(seen.transfer?.actAt ?? null) } };
      case 'approved':
        return { kind: 'on', to: 'approved' };
      case 'foreign':
        return stays('Somebody else has asked for this name. Reject that at the old registrar, then change the code.');
      case 'rejected':
      case 'cancelled':
      case 'timed out':
        return { kind: 'exit', exit: verdict, problem: ENDED_WORDS[verdict] };
      case 'send':
        return code === null
          ? wrongCode(sides, 'The code is not held any more.')
          : send(gaining, transfer, sides, code);
    }
  },
};

interface Look {
  readonly isOurs: boolean;
  readonly transfer: TransferState | null;
  readonly held: HeldName | null;
}

/** Where the name is, and its last transfer. */
async function look(
  gaining: RegistrarLink,
  { ascii, toId }: TransferRow,
  code: string | null,
  login: string,
): Promise<Look | Went> {
  const info = await gaining.info(ascii);
  if (info.kind === 'unknown') return { ...unanswered(info.cause), away: toId };
  if (info.kind === 'done' && info.value.sponsor === login) return { isOurs: true, transfer: null, held: info.value };
  const asked = await gaining.transfer('query', { name: ascii, authInfo: code }, `NL-${randomUUID()}`);
  if (asked.kind === 'unknown') return { ...unanswered(asked.cause), away: toId };
  return { isOurs: false, transfer: asked.kind === 'done' ? asked.value : null, held: null };
}

async function send(gaining: RegistrarLink, transfer: TransferRow, sides: Sides, authInfo: string): Promise<Went> {
  const { ascii, capMinor, currency, orderId, toId } = transfer;
  const fee = capMinor === null ? null : amount(capMinor, currency);
  const outcome = await gaining.transfer('request', { name: ascii, authInfo, fee }, orderId ?? '');
  switch (outcome.kind) {
    case 'done':
      return taken(transfer, outcome);
    case 'unknown':
      return { ...unanswered(outcome.cause), away: toId };
    case 'pending':
      return stays(null);
    case 'refused':
      if (outcome.code === EPP_RESULT.wrongCode) return wrongCode(sides, CODE_REFUSED);
      // What is pending is looked at by the next pass.
      if (outcome.code === EPP_RESULT.alreadyPending) return stays(null);
      if (outcome.code === EPP_RESULT.billingFailure)
        return stays(`Not paid: ${outcome.reason}. Top up the balance or replace the card: it is tried again.`);
      if (outcome.code === EPP_RESULT.valueRange) return stays(`It costs more now: ${outcome.reason}.`);
      return { kind: 'exit', exit: 'refused', problem: `The new registrar refuses it: ${outcome.reason}.` };
  }
}

function taken(
  transfer: TransferRow,
  { value, svTRID }: Extract<Outcome<TransferState & Taken>, { kind: 'done' }>,
): Went {
  const isOver = endOf(value.status) === 'approved';
  return {
    kind: 'on',
    to: isOver ? 'approved' : 'pending',
    patch: {
      acts_by: isoOf(value.actAt),
      receipt: svTRID,
      ...(value.taken && { charged_minor: value.taken.minor }),
    },
    ...(value.taken && {
      ledger: { entry: entryOf(transfer, value.taken, value.paymentMethod, svTRID) },
    }),
  };
}

const ENDED_WORDS = {
  rejected: 'The losing side has rejected it.',
  cancelled: 'It was cancelled.',
  'timed out': 'Nobody answered in time, and the registry has cancelled it.',
} as const;

/** Asks after a transfer that is pending, and approves it where the old account has a link: then it need not wait five days. */
export const AWAITING: MoveStep = {
  at: 'pending',
  async take(deps, transfer, sides) {
    const { gaining, losing } = sides;
    const asking = gaining ?? losing;
    if (!asking) return null;
    const asked = await asking.transfer('query', { name: transfer.ascii }, `NL-${randomUUID()}`);
    if (asked.kind === 'unknown') return unanswered(asked.cause);
    // The losing side is not told any more of a name that has left.
    if (asked.kind === 'refused')
      return NOT_OURS.has(asked.code) && !gaining ? { kind: 'on', to: 'approved' } : stays(asked.reason);
    if (asked.kind !== 'done') return stays(null);
    const end = endOf(asked.value.status);
    if (end === 'approved') return { kind: 'on', to: 'approved' };
    // A buyer may ask again, with the same code.
    if (end !== null && transfer.saleId !== null)
      return { kind: 'on', to: 'code held', problem: `The buyer’s request: ${ENDED_WORDS[end]}` };
    if (end !== null) return { kind: 'exit', exit: end, problem: ENDED_WORDS[end] };
    if (gaining && asked.value.requestedBy !== sides.login)
      return stays('Somebody else has asked for this name. Reject that at the old registrar, then change the code.');
    // An offer to stay is weighed before it is approved.
    if (isUndecided(transfer)) return stays('The old registrar’s offer to stay is to be decided first.');
    if (losing) return approve(losing, transfer);
    return deps.clock() >= turnBackOf(transfer, sides) && gaining ? cancel(gaining, transfer) : stays(null);
  },
};

const isUndecided = ({ counterMinor, isCounterDeclined }: TransferRow) => counterMinor !== null && !isCounterDeclined;

async function approve(losing: RegistrarLink, { ascii, fromId }: TransferRow): Promise<Went> {
  const outcome = await losing.transfer('approve', { name: ascii }, `NL-${randomUUID()}`);
  if (outcome.kind === 'done' && endOf(outcome.value.status) === 'approved') return { kind: 'on', to: 'approved' };
  if (outcome.kind === 'unknown') return { ...unanswered(outcome.cause), away: fromId };
  if (outcome.kind === 'refused' && outcome.code !== EPP_RESULT.nothingPending && !NOT_OURS.has(outcome.code))
    return stays(`The old registrar does not approve it: ${outcome.reason}.`);
  return stays(null);
}

/** Takes a request back that would not arrive before the old account charges. Sent again it harms nothing. */
export async function cancel(gaining: RegistrarLink, { ascii }: TransferRow): Promise<Went> {
  const outcome = await gaining.transfer('cancel', { name: ascii }, `NL-${randomUUID()}`);
  if (outcome.kind === 'unknown') return unanswered(outcome.cause);
  if (outcome.kind === 'done')
    return {
      kind: 'exit',
      exit: 'cancelled',
      problem: 'Taken back: it would not have arrived before the next charge at the old account.',
    };
  return stays(outcome.kind === 'refused' ? outcome.reason : null);
}

/** The last instant to turn a transfer back. */
export function turnBackOf({ before }: TransferRow, { from }: Pick<Sides, 'from'>) {
  return turnBackBy(before.end, autoAsBefore(before.setting) === 'on', from?.leadDays ?? 0, from?.switchHours ?? 0);
}

/** Looks whether an approved transfer has arrived. */
export const ARRIVING: MoveStep = {
  at: 'approved',
  async take(deps: Deps, transfer, sides) {
    const { gaining, losing, login } = sides;
    if (gaining) {
      const info = await gaining.info(transfer.ascii);
      if (info.kind === 'unknown') return { ...unanswered(info.cause), away: transfer.toId };
      if (info.kind === 'done' && (login === null || info.value.sponsor === login || info.value.sponsor === null))
        return arrive(transfer, info.value);
      return stays('It was approved, and has not arrived yet.');
    }
    if (!losing) return null;
    const info = await losing.info(transfer.ascii);
    if (info.kind === 'unknown') return { ...unanswered(info.cause), away: transfer.fromId };
    if (info.kind === 'refused' && NOT_OURS.has(info.code) && transfer.saleId !== null)
      return { kind: 'on', to: 'closed' };
    return info.kind === 'refused' && NOT_OURS.has(info.code)
      ? arrive(transfer, null, deps.clock(), sides.transferYears)
      : stays(null);
  },
};
