import { amount } from '@/core/money';
import { dayOf, formatInstant, type Instant } from '@/core/time';
import { patchNames } from '@/database/changes';
import type { Transaction } from '@/database/pool';
import { type RunItem, settleItems } from '@/database/runs';
import type { Change } from '../changing';
import { bookTaken, evidenceOf, markSent, moveRunItems, paidOf, type Receipted, whatOf } from './booking';
import { answered, type Fulfilled, isBeingFinished, type Step } from './step';

/** A renewal as the registrar carried it out. */
interface RenewedOnce extends Receipted {
  readonly paidThrough: Instant;
}

/** Renewing over a link. `curExpDate` makes sending it again harmless (RFC 5731 section 3.2.3). */
export const RENEWING: Step<RenewedOnce> = {
  /**
   * The end as it was: (again) to be sent. The end as it should be: done, and ours when its receipt carries our order's id;
   * else its origin is unproved and a person decides.
   */
  reconcile(item, held) {
    const there = dayOf(held.paidThrough);
    if (there === dayOf(item.oldEnd)) return isBeingFinished(item, held, 'pendingRenew') ?? { kind: 'send' };
    if (held.receipt?.clTRID === item.orderId) {
      const { amount: taken, svTRID: receipt, paymentMethod } = held.receipt;
      return { kind: 'done', value: { paidThrough: held.paidThrough, taken, balance: null, receipt, paymentMethod } };
    }
    const problem =
      there === dayOf(item.newEnd)
        ? `The registrar shows the term to ${there} already, without a receipt for this order. Look who renewed it, then confirm or drop it.`
        : `The registrar shows the term to ${there}, which is neither the old end nor the new one. Read the account, then decide.`;
    return { kind: 'moved', state: 'doubt', problem, settles: true };
  },
  mark: markSent,
  move: moveRunItems,
  send: async (link, item) =>
    answered(await link.renew(orderOf(item), item.orderId), (value, receipt) => ({ ...value, receipt })),
  book,
};

function orderOf(item: RunItem) {
  return {
    name: item.ascii,
    curExpDate: dayOf(item.oldEnd),
    years: item.years,
    fee: item.feeCapMinor === null ? null : amount(item.feeCapMinor, item.currency),
    promotion: item.promotion,
    payBy: item.payBy,
  };
}

async function book(tx: Transaction, { at, record }: Change, done: readonly Fulfilled<RenewedOnce>[]): Promise<void> {
  const batchId = await record('renewal', `Renewed by link: ${whatOf(done)}`);
  const isNew = await settleItems(
    tx,
    batchId,
    dayOf(at),
    done.map((one) => ({ ...paidOf(one), newEnd: one.value.paidThrough })),
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
        ...(item.oldEnd <= at && { grace_paid: formatInstant(at) }),
      },
      evidence: evidenceOf(value.receipt),
    })),
  );
  await bookTaken(tx, batchId, at, 'renewal', booked, ({ years }) => `${years} ${years === 1 ? 'year' : 'years'}`);
}
