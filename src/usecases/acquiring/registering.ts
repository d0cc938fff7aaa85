import { randomBytes } from 'node:crypto';
import type { Created, HeldName, RegistrarLink } from '@/connectors/registrar/port';
import { EPP_RESULT } from '@/connectors/registrar/results';
import { amount } from '@/core/money';
import type { Instant } from '@/core/time';
import type { Transaction } from '@/database/pool';
import { markRegistrations, moveRegistrations, type RegistrationRow } from '@/database/registrations';
import type { Change } from '../changing';
import { answered, type Fulfilled, isBeingFinished, type Resolution, type Step } from '../orders/step';
import { bookRegistered, type Registered } from './booking';

/** 144 bits; RFC 9154 section 4.1 wants 128 at least. Nobody needs it later: it is never kept. */
const CODE_BYTES = 18;
const freshCode = () => randomBytes(CODE_BYTES).toString('base64url');

/** Clocks differ: what a registrar says it registered a little before our order was sent may still be ours. */
const CLOCK_SKEW_MS = 600_000;

const SOMEBODY_ELSE = 'Somebody else has registered it. Nothing was paid.';

/** Registering over a link. Sent twice it would be refused the second time; what came of the first is told by a look. */
export const REGISTERING: Step<Registered, RegistrationRow> = {
  /**
   * It is held by our login: done, and ours when its receipt carries our order's id, or when it was registered since the order may have
   * been sent. A code that comes back would prove nothing.
   */
  reconcile(item, held) {
    if (held.receipt?.clTRID === item.orderId && !held.statuses.includes('pendingCreate')) {
      const { amount: taken, svTRID: receipt, paymentMethod } = held.receipt;
      return {
        kind: 'done',
        value: { ...datesOf(held, item), taken, balance: null, receipt, paymentMethod, problem: null },
      };
    }
    const pending = isBeingFinished<Registered>(item, held, 'pendingCreate');
    if (pending && held.statuses.includes('pendingCreate')) return pending;
    const isSince =
      item.firstSentAt !== null && held.registeredAt !== null && held.registeredAt >= item.firstSentAt - CLOCK_SKEW_MS;
    if (isSince) {
      const problem =
        'It is ours by its registrar and its date; what it cost was not told. Write down what was charged.';
      return {
        kind: 'done',
        value: { ...datesOf(held, item), taken: null, balance: null, receipt: null, paymentMethod: null, problem },
      };
    }
    return {
      kind: 'moved',
      state: 'refused',
      problem: 'It is held at that account already. Read the account into the ledger.',
      settles: true,
    };
  },
  /** Not there: to be sent. There, and not with us: somebody was faster. */
  notTold(item, { code, reason }) {
    // What was taken for later is settled by its message: it is not sent again because it is not there yet.
    if (code === EPP_RESULT.notThere && item.state === 'pending')
      return {
        kind: 'moved',
        state: 'pending',
        problem: 'The registrar has taken it, and does not show it yet.',
        settles: false,
      };
    if (code === EPP_RESULT.notThere) return { kind: 'send' };
    if (code === EPP_RESULT.notAuthorized)
      return { kind: 'moved', state: 'refused', problem: SOMEBODY_ELSE, settles: true };
    const state = item.state === 'waiting' ? 'refused' : 'doubt';
    return { kind: 'moved', state, problem: `The registrar says: ${reason}.`, settles: true };
  },
  async mark(deps, items) {
    const at = deps.clock();
    await markRegistrations(
      deps.database,
      items.map(({ id }) => id),
      at,
    );
    return items.map((item) => ({ ...item, state: 'sending', firstSentAt: item.firstSentAt ?? at }));
  },
  move: (deps, moved) => moveRegistrations(deps.database, moved, deps.clock()),
  send,
  book: (tx: Transaction, change: Change, done: readonly Fulfilled<Registered, RegistrationRow>[]) =>
    bookRegistered(
      tx,
      change,
      done.map(({ item, value }) => ({ registration: item, registered: value })),
    ),
};

function datesOf({ registeredAt, paidThrough }: HeldName, { firstSentAt, since }: RegistrationRow) {
  return { createdAt: (registeredAt ?? firstSentAt ?? since) as Instant, paidThrough };
}

async function send(link: RegistrarLink, item: RegistrationRow): Promise<Resolution<Registered>> {
  const { ascii, years, capMinor, currency, nameServers, payBy, orderId } = item;
  const fee = capMinor === null ? null : amount(capMinor, currency);
  const outcome = await link.create(
    { name: ascii, years, fee, authInfo: freshCode(), nameServers, promotion: null, payBy },
    orderId,
  );
  // It exists: ours by a first sending, or somebody else's. The next look tells.
  if (outcome.kind === 'refused' && outcome.code === EPP_RESULT.exists) return { kind: 'send' };
  return answered(outcome, (value: Created, receipt) => ({ ...value, receipt, problem: null }));
}
