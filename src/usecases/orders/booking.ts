import type { Taken } from '@/connectors/registrar/port';
import type { EntryKind } from '@/core/journal';
import { amount } from '@/core/money';
import { dayOf, type Instant } from '@/core/time';
import { insertEntries } from '@/database/entries';
import { updateBalance } from '@/database/links';
import type { Transaction } from '@/database/pool';
import { markSending, moveItems, type RunItem } from '@/database/runs';
import type { Deps } from '../deps';
import type { Fulfilled } from './step';

/** What a registrar took for an order, with its receipt. */
export interface Receipted extends Taken {
  readonly receipt: string | null;
}

/** Notes that orders which cost something may have been sent. */
export async function markSent(deps: Deps, items: readonly RunItem[]): Promise<readonly RunItem[]> {
  await markSending(deps.database, items, deps.clock());
  return items.map((item) => ({ ...item, state: 'sending' as const }));
}

/** Writes what keeps items of a run from going on. */
export const moveRunItems = (deps: Deps, moved: readonly (RunItem & { readonly problem: string })[]): Promise<void> =>
  moveItems(deps.database, moved);

/** What is kept at an item of a run once it is paid. */
export function paidOf({ item, value }: Fulfilled<Receipted>) {
  return {
    renewalId: item.renewalId,
    nameId: item.nameId,
    chargedMinor: value.taken?.minor ?? null,
    currency: value.taken?.currency ?? null,
    paymentMethod: value.paymentMethod,
    receipt: value.receipt,
  };
}

/** Books what was taken for each item, with its receipt and the quote beside it. */
export async function bookTaken(
  tx: Transaction,
  batchId: number,
  at: Instant,
  kind: EntryKind,
  done: readonly Fulfilled<Receipted>[],
  noteOf: (item: RunItem) => string,
): Promise<void> {
  const entries = done.flatMap(({ item, value: { taken, receipt, paymentMethod } }) =>
    taken === null
      ? []
      : [
          {
            nameId: item.nameId,
            onDay: dayOf(at),
            kind,
            minor: taken.minor,
            currency: taken.currency,
            paymentMethod: paymentMethod ?? '',
            reference: receipt ?? '',
            note: noteOf(item),
            quotedMinor: item.currency === taken.currency ? item.quotedMinor : null,
          },
        ],
  );
  await insertEntries(tx, batchId, entries);
  await noteBalance(tx, at, done);
}

/** What a batch calls the names it is about. */
export function whatOf(done: readonly Fulfilled<unknown>[]): string {
  return done.length === 1 ? (done[0]?.item.ascii ?? '') : `${done.length} names`;
}

/** What the history names as evidence of an order over a link. */
export function evidenceOf(receipt: string | null): string {
  return receipt ? `receipt ${receipt}` : 'the registrar’s answer';
}

/** Answers come in any order; money only goes out here, so the least balance told is the last. */
async function noteBalance(tx: Transaction, at: Instant, done: readonly Fulfilled<Receipted>[]): Promise<void> {
  const [first] = done;
  const balances = done.flatMap(({ value }) => value.balance ?? []);
  const [one] = balances;
  if (!first || !one || balances.some(({ currency }) => currency !== one.currency)) return;
  await updateBalance(
    tx,
    first.item.accountId,
    amount(Math.min(...balances.map(({ minor }) => minor)), one.currency),
    at,
  );
}
