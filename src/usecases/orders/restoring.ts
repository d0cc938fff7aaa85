import type { RegistrarLink, RestoreReport } from '@/connectors/registrar/port';
import { amount } from '@/core/money';
import { dayOf, formatInstant, type Instant } from '@/core/time';
import { patchNames } from '@/database/changes';
import type { Transaction } from '@/database/pool';
import { markPaid, type RunItem, settleRestored } from '@/database/runs';
import type { Change } from '../changing';
import type { Deps } from '../deps';
import { bookTaken, evidenceOf, markSent, moveRunItems, paidOf, type Receipted, whatOf } from './booking';
import { restoreReports } from './restoreReport';
import { answered, type Fulfilled, isBeingFinished, type Resolution, type Step } from './step';

/** Asking for a restore and paying for it (RFC 3915 section 4.2.5, request). Not harmless twice: it is always looked up first. */
export const REQUESTING: Step<Receipted> = {
  reconcile(item, held) {
    if (held.receipt?.clTRID === item.orderId) {
      const { amount: taken, svTRID: receipt, paymentMethod } = held.receipt;
      return { kind: 'done', value: { taken, balance: null, receipt, paymentMethod } };
    }
    const decide = (problem: string): Resolution<Receipted> => ({
      kind: 'moved',
      state: item.state === 'waiting' ? 'refused' : 'doubt',
      problem,
      settles: true,
    });
    if (held.statuses.includes('pendingRestore'))
      return decide('A restore is pending at the registrar already, without a receipt for this order.');
    if (held.statuses.includes('redemptionPeriod'))
      return isBeingFinished(item, held, 'pendingUpdate') ?? { kind: 'send' };
    if (held.statuses.includes('pendingDelete'))
      return decide('Pending delete already: nothing can be done until it is available. Nothing was paid.');
    return decide(`The registrar shows it in term until ${dayOf(held.paidThrough)}: nothing is to be restored.`);
  },
  mark: markSent,
  move: moveRunItems,
  async send(link, item) {
    const fee = item.feeCapMinor === null ? null : amount(item.feeCapMinor, item.currency);
    const outcome = await link.requestRestore(item.ascii, fee, item.payBy, item.orderId);
    return answered(outcome, (value, receipt) => ({ ...value, receipt }));
  },
  async book(tx, { at, record }, done) {
    const batchId = await record('restore', `Restore requested by link: ${whatOf(done)}`);
    const isNew = await markPaid(tx, batchId, dayOf(at), done.map(paidOf));
    const booked = done.filter(({ item }) => isNew.has(item.nameId));
    if (booked.length === 0) return;
    await patchNames(
      tx,
      batchId,
      booked.map(({ item, value }) => ({
        nameId: item.nameId,
        patch: { observed: 'pending restore', observed_at: formatInstant(at) },
        evidence: evidenceOf(value.receipt),
      })),
    );
    await bookTaken(tx, batchId, at, 'restore', booked, () => 'restore and a year');
  },
};

interface Restored {
  readonly paidThrough: Instant;
}

/** Reporting on restores that are paid (RFC 3915 section 4.2.5, report), each with the report made for it. */
export async function reportingFor(deps: Deps, items: readonly RunItem[]): Promise<Step<Restored>> {
  const reports = await restoreReports(
    deps,
    items.map((item) => item.nameId),
    items[0]?.report ?? { reason: '', other: null },
  );
  return {
    reconcile,
    mark: async (_deps, open) => open,
    move: moveRunItems,
    send: (link, item) => sendReport(link, item, reports.get(item.nameId)),
    book: bookRestored,
  };
}

function reconcile(_item: RunItem, held: { statuses: readonly string[]; paidThrough: Instant }): Resolution<Restored> {
  if (held.statuses.includes('pendingRestore')) return { kind: 'send' };
  if (held.statuses.includes('redemptionPeriod') || held.statuses.includes('pendingDelete')) {
    const problem =
      'The report did not come in time: it is in redemption again. Ask the registrar about what was paid.';
    return { kind: 'moved', state: 'doubt', problem, settles: true };
  }
  return { kind: 'done', value: { paidThrough: held.paidThrough } };
}

async function sendReport(
  link: RegistrarLink,
  item: RunItem,
  report: RestoreReport | undefined,
): Promise<Resolution<Restored>> {
  if (!report) {
    const problem = 'The report could not be written: the name is no longer in the ledger.';
    return { kind: 'moved', state: 'report refused', problem, settles: true };
  }
  const outcome = await link.reportRestore(item.ascii, report, `${item.orderId}-r`);
  if (outcome.kind === 'refused') {
    const problem = `The registrar refuses the report: ${outcome.reason}. Correct it and send it again before it is due.`;
    return { kind: 'moved', state: 'report refused', problem, settles: true };
  }
  if (outcome.kind !== 'done') return { kind: 'send' };
  // The answer to a report names no end: it is asked for.
  const held = await link.info(item.ascii);
  return held.kind === 'done' ? reconcile(item, held.value) : { kind: 'send' };
}

async function bookRestored(tx: Transaction, { record }: Change, done: readonly Fulfilled<Restored>[]): Promise<void> {
  const batchId = await record('restore', `Restored: ${whatOf(done)}`);
  const isNew = await settleRestored(
    tx,
    batchId,
    done.map(({ item, value }) => ({ renewalId: item.renewalId, nameId: item.nameId, newEnd: value.paidThrough })),
  );
  const booked = done.filter(({ item }) => isNew.has(item.nameId));
  if (booked.length === 0) return;
  await patchNames(
    tx,
    batchId,
    booked.map(({ item, value }) => ({
      nameId: item.nameId,
      patch: {
        term_end: formatInstant(value.paidThrough),
        term_end_day: false,
        observed: null,
        observed_at: null,
      },
      evidence: 'the registrar took the restore report',
    })),
  );
}
