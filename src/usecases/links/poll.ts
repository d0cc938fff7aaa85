import type { RegistrarMessage } from '@/connectors/registrar/port';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf, formatInstant, type Instant } from '@/core/time';
import { type NamePatch, patchNames } from '@/database/changes';
import { endDrops } from '@/database/drops';
import { insertEntries } from '@/database/entries';
import { endForeign, noteForeign, noteGone } from '@/database/foreignTransfers';
import { insertMessage, noteLink, noteMessageBatch, noteToldEnds } from '@/database/links';
import { selectNameAt } from '@/database/names';
import type { Transaction } from '@/database/pool';
import {
  confirmHolderAddress,
  refuseRegistration,
  selectHolderMail,
  selectToConfirmWith,
} from '@/database/registrations';
import { refusePending } from '@/database/runs';
import { noteCredit, selectTransferOfName, type TransferRow } from '@/database/transfers';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { eachPartner, type Patience } from '../partners';
import { linkOf, linkProblem, links, noLink } from './links';

/** Takes every message that waits at an account's registrar into the ledger. Answers how many came. */
export async function pollAccount(deps: Deps, accountId: number): Promise<number | Refusal> {
  const link = await linkOf(deps, accountId);
  if (!link) return noLink();
  const polled = await link.poll((message) => takeMessage(deps, accountId, message));
  const problem = polled.kind === 'done' ? null : linkProblem(polled);
  await noteLink(deps.database, accountId, { polledAt: deps.clock(), problem });
  return polled.kind === 'done' ? polled.value : refuse('link-failed', problem ?? '');
}

/** Polls every account that has a link, each by itself. Answers how many messages came in all. */
export async function pollEveryAccount(deps: Deps, patience: Patience = 'at once'): Promise<number> {
  let messages = 0;
  const ids = (await links(deps)).map(({ accountId }) => accountId);
  const poll = async (accountId: number) => {
    const came = await pollAccount(deps, accountId);
    if (isRefusal(came)) return came.message;
    messages += came;
    return null;
  };
  await eachPartner(deps, 'account', 'messages', ids, poll, patience);
  return messages;
}

/**
 * Stores one message and what it says of a name, in one transaction, once. A registrar speaks of the names that the ledger has in its
 * own account: what it says of a name held elsewhere (that it has left, say) changes nothing there.
 */
export async function takeMessage(deps: Deps, accountId: number, message: RegistrarMessage): Promise<void> {
  await changing(deps, async (tx, { at, record }) => {
    const { event, settled } = message;
    const isNew = await insertMessage(tx, {
      accountId,
      messageId: message.id,
      receivedAt: at,
      toldAt: message.at,
      kind: event?.kind ?? null,
      name: event?.name ?? settled?.name ?? null,
      text: message.text,
      raw: message.raw,
    });
    if (!isNew) return;
    // What was carried out is booked by the run itself, which looks it up there.
    if (settled?.clTRID && !settled.isDone) {
      const problem = `The registrar did not carry it out: ${message.text}`;
      await refusePending(tx, accountId, settled.clTRID, problem);
      await refuseRegistration(tx, accountId, settled.clTRID, problem);
    }
    if (!event) return;
    const own = await selectTransferOfName(tx, event.name, accountId);
    if (own && (await takeTransferEvent(tx, own, accountId, message))) return;
    const nameId = await selectNameAt(tx, accountId, event.name);
    if (TELLS_END.has(event.kind) && event.paidThrough !== null)
      await noteToldEnds(tx, accountId, [{ ascii: event.name, end: event.paidThrough }], message.at ?? at);
    const patch = nameId === null ? null : await patchOfMessage(tx, nameId, message, message.at ?? at);
    if (nameId === null || patch === null) return;
    const batchId = await record('message', summaryOf(event.kind, event.name));
    await patchNames(tx, batchId, [{ nameId, patch, evidence: `message ${message.id} of the registrar` }]);
    if (event.kind === 'released') await endDrops(tx, [nameId], message.at ?? at, 'released');
    if (event.kind === 'mail-confirmed') {
      const address = await selectHolderMail(tx, accountId, event.name);
      const evidence = `message ${message.id} of the registrar`;
      if (address !== null) {
        await confirmHolderAddress(tx, accountId, address, evidence, message.at ?? at);
        const others = await selectToConfirmWith(tx, [{ accountId, address }]);
        await patchNames(
          tx,
          batchId,
          others.map((id) => ({ nameId: id, patch: { confirm_mail_by: null }, evidence })),
        );
      }
    }
    if (event.kind === 'charged' && event.amount) await bookCharge(tx, batchId, nameId, message);
    await noteMessageBatch(tx, accountId, message.id, batchId);
  });
}

/**
 * What a registrar tells of a name on its way by our own order: that it leaves is no news, and what was paid for a transfer that came to
 * nothing is written down when it comes back. True where nothing else follows.
 */
async function takeTransferEvent(
  tx: Transaction,
  transfer: TransferRow,
  accountId: number,
  { event, at }: RegistrarMessage,
): Promise<boolean> {
  if (event?.kind === 'transferred' || event?.kind === 'transfer-requested') return transfer.fromId === accountId;
  const isCredit = event?.kind === 'transfer-ended' && (event.amount?.minor ?? 0) < 0 && transfer.toId === accountId;
  if (isCredit) await noteCredit(tx, transfer.id, -(event.amount?.minor ?? 0), at);
  return event?.kind === 'transfer-ended' || event?.kind === 'transfer-pending';
}

/** What a message says of a name, in columns of the ledger. What somebody else does about a transfer is noted as an alarm besides. */
async function patchOfMessage(
  tx: Transaction,
  nameId: number,
  { event, transfer, text }: RegistrarMessage,
  at: Instant,
): Promise<NamePatch | null> {
  if (!event) return null;
  if (event.kind === 'transferred') await noteGone(tx, nameId, at);
  if (event.kind === 'transfer-ended') {
    await endForeign(tx, [nameId], at);
    return { observed: null, observed_at: null };
  }
  if (event.kind !== 'transfer-requested') return patchOf(event, at, text);
  const told = { nameId, requestedBy: transfer?.requestedBy ?? null, actsBy: transfer?.actAt ?? event.until };
  const isForeign = (await noteForeign(tx, [told], 'message', at)) > 0;
  return isForeign ? { observed: 'pending transfer', observed_at: formatInstant(at) } : null;
}

async function bookCharge(tx: Transaction, batchId: number, nameId: number, { id, at, event }: RegistrarMessage) {
  if (!event?.amount || at === null) return;
  await insertEntries(tx, batchId, [
    {
      nameId,
      onDay: dayOf(at),
      kind: 'renewal',
      minor: event.amount.minor,
      currency: event.amount.currency,
      paymentMethod: event.paymentMethod ?? '',
      reference: `message ${id}`,
      note: 'charged automatically',
    },
  ]);
}

/** Messages that answer for how long a name is paid. */
const TELLS_END: ReadonlySet<string> = new Set(['charged', 'lapsed', 'charge-failed']);

type Event = NonNullable<RegistrarMessage['event']>;

/** What a message says of a name, in columns of the ledger; `null` for one that changes nothing. */
function patchOf(event: Event, at: Instant, text: string): NamePatch | null {
  const since = formatInstant(at);
  const end = event.paidThrough === null ? {} : { term_end: formatInstant(event.paidThrough), term_end_day: false };
  const confirmed = (setting: 'on' | 'off' | 'stalled') => ({
    setting,
    standing: 'confirmed',
    setting_since: since,
    setting_evidence: text,
    requested: null,
    requested_at: null,
    switch_pending_since: null,
  });
  const seen = (phase: 'redemption' | 'pending delete') => ({ observed: phase, observed_at: since });
  switch (event.kind) {
    case 'charged':
      return { ...end, ...confirmed('on'), grace_paid: since };
    case 'switched-off':
      return confirmed('off');
    case 'charge-failed':
      return confirmed('stalled');
    case 'lapsed':
      return end;
    case 'deleted':
      return seen('redemption');
    case 'redemption-ended':
      return seen('pending delete');
    case 'released':
    case 'auctioned':
    case 'transferred':
      return { gone_at: since };
    case 'confirm-mail':
      return event.until === null ? null : { confirm_mail_by: formatInstant(event.until) };
    case 'mail-confirmed':
      return { confirm_mail_by: null };
    default:
      return null;
  }
}

const SUMMARIES: Readonly<Record<string, string>> = {
  charged: 'Charged and renewed by its registrar',
  'charge-failed': 'The automatic charge failed',
  lapsed: 'The term has ended',
  deleted: 'Deleted by its registrar',
  'restore-overdue': 'The restore report did not come in time',
  'redemption-ended': 'Redemption has ended',
  released: 'Released',
  auctioned: 'Auctioned away by its registrar',
  transferred: 'Transferred away',
  'switched-off': 'Auto-renew is off now',
  'confirm-mail': 'The holder’s mail address has to be confirmed',
  'mail-confirmed': 'The holder’s mail address is confirmed',
  'transfer-requested': 'Somebody has asked for a transfer',
  'transfer-ended': 'A transfer came to nothing',
};

function summaryOf(kind: string, name: string): string {
  return `${SUMMARIES[kind] ?? kind}: ${name}`;
}
