import { randomUUID } from 'node:crypto';
import { amount } from '@/core/money';
import { isOpenRun, isStartable } from '@/core/orders';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf } from '@/core/time';
import { selectAccount } from '@/database/accounts';
import { selectRevision } from '@/database/ledger';
import { type Transaction, transaction } from '@/database/pool';
import {
  forgetLivePrices,
  insertRenewal,
  keepQuote,
  lockRenewal,
  type RenewalItemRow,
  type RenewalRow,
  selectOpenRenewals,
  selectRenewal,
  selectRenewalByKey,
  updateRenewal,
  writeItems,
} from '@/database/renewals';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readRequest } from '../validate';
import { type QuotedItem, quoteRenewal, type RenewalQuote } from './quote';
import { MoveRenewal, PayBy } from './requests';
import { USUAL_REASON } from './restoreReport';

/** A renewal with what it would do today. */
export interface OpenRenewal {
  readonly renewal: RenewalRow;
  readonly quote: RenewalQuote;
}

/**
 * Plans the renewal or restore of some names. `key` is the caller's idempotency key: the same key answers with the renewal it
 * made the first time.
 */
export const planRenewal = command(
  'planRenewal',
  async (deps: Deps, input: unknown, key: string | null = null): Promise<OpenRenewal | Refusal> => {
    const revision = await selectRevision(deps.database);
    const quote = await quoteRenewal(deps, input);
    if (isRefusal(quote)) return quote;
    const id = randomUUID();
    const items = quote.items.flatMap((item) => itemOf(item) ?? []);
    if (items.length === 0)
      return quote.items[0]?.refusal ?? refuse('nothing-to-renew', 'None of these names can be renewed now.');
    const { promotion, taxPercent, action } = quote;
    const draft = {
      id,
      idempotencyKey: key,
      action,
      report: action === 'restore' ? { reason: USUAL_REASON, other: null } : null,
      status: 'planned' as const,
      madeAt: deps.clock(),
      promotion,
      taxPercent,
      items,
    };
    const written = await changing(deps, async (tx, { at }) => {
      const isNew = await insertRenewal(tx, draft);
      if (isNew) await keepQuote(tx, id, quote, await revisionAfter(tx, revision), at);
      return isNew;
    });
    const renewal =
      written || key === null ? await selectRenewal(deps.database, id) : await selectRenewalByKey(deps.database, key);
    return { renewal: renewal as RenewalRow, quote };
  },
);

function itemOf(item: QuotedItem): RenewalItemRow | null {
  if (item.oldEnd === null) return null;
  const quoted = item.refusal ? null : item.total;
  return {
    nameId: item.nameId,
    ascii: item.ascii,
    unicode: item.unicode,
    years: item.years,
    oldEnd: item.oldEnd.at,
    newEnd: item.newEnd?.at ?? null,
    quotedMinor: quoted?.minor ?? null,
    quotedTaxMinor: quoted ? (item.cost?.tax ?? null) : null,
    currency: quoted?.currency ?? null,
    chargedMinor: null,
    chargedOn: null,
    paymentMethod: null,
    reference: null,
    done: null,
    state: 'planned',
  };
}

/** A planned renewal with what it would do today: quoted once for each state of the ledger and each day, and kept with the run. */
export async function openRenewal(deps: Deps, id: string): Promise<OpenRenewal | Refusal> {
  const renewal = await selectRenewal(deps.database, id);
  if (!renewal) return refuse('renewal-unknown', 'This renewal is no longer there. Choose the names again.');
  const revision = await selectRevision(deps.database);
  const { quoted } = renewal;
  if (quoted && quoted.revision === revision && quoted.day === dayOf(deps.clock()))
    return { renewal, quote: asOrdered(quoted.quote as RenewalQuote, renewal) };
  const quote = await quoteRenewal(deps, {
    action: renewal.action,
    items: renewal.items.map(({ nameId, years }) => ({ nameId, years })),
    promotion: renewal.promotion ?? undefined,
    taxPercent: renewal.taxPercent ?? undefined,
  });
  if (isRefusal(quote)) return quote;
  await transaction(deps.database, async (tx) => {
    if (!isOpenRun(await lockRenewal(tx, id))) return;
    const open = new Set(renewal.items.flatMap((item) => (isStartable(item) ? item.nameId : [])));
    await writeItems(
      tx,
      id,
      quote.items.flatMap((item) => (open.has(item.nameId) ? (itemOf(item) ?? []) : [])),
    );
    await keepQuote(tx, id, quote, revision, deps.clock());
  });
  return { renewal, quote: asOrdered(quote, renewal) };
}

/** A renewal with the quote that was shown last: what is priced, started and confirmed is that, and is checked by its caps. */
export async function agreedRenewal(deps: Deps, id: string): Promise<OpenRenewal | Refusal> {
  const renewal = await selectRenewal(deps.database, id);
  return renewal?.quoted
    ? { renewal, quote: asOrdered(renewal.quoted.quote as RenewalQuote, renewal) }
    : openRenewal(deps, id);
}

/** The ledger's number after one's own change, if nothing else came between: else the one before, so that it is quoted anew. */
async function revisionAfter(tx: Transaction, before: number): Promise<number> {
  const now = await selectRevision(tx);
  return now === before + 1 ? now : before;
}

/**
 * What was ordered already is shown as it was ordered: its old end may have become the new one since, and a new quote would add
 * the years once more.
 */
function asOrdered(quote: RenewalQuote, renewal: RenewalRow): RenewalQuote {
  const ordered = new Map(
    renewal.items
      .filter(({ state, done }) => (state !== 'planned' && state !== 'refused') || done === true)
      .map((item) => [item.nameId, item]),
  );
  const end = (at: RenewalItemRow['newEnd']) => (at === null ? null : { at, precision: 'instant' as const });
  const items = quote.items.map((item): QuotedItem => {
    const row = ordered.get(item.nameId);
    if (!row) return item;
    const total = row.quotedMinor === null || row.currency === null ? null : amount(row.quotedMinor, row.currency);
    return { ...item, years: row.years, oldEnd: end(row.oldEnd), newEnd: end(row.newEnd), total, refusal: null };
  });
  return { ...quote, items };
}

/** Renewals that are planned or requested and not confirmed yet. */
export function openRenewals(deps: Deps): Promise<RenewalRow[]> {
  return selectOpenRenewals(deps.database);
}

/** Changes terms, promotion and tax of a planned renewal. */
export const changeRenewal = command(
  'changeRenewal',
  async (deps: Deps, id: string, input: unknown): Promise<OpenRenewal | Refusal> => {
    const revision = await selectRevision(deps.database);
    const quote = await quoteRenewal(deps, input);
    if (isRefusal(quote)) return quote;
    const refused = await changing(deps, async (tx, { at }) => {
      const status = await lockRenewal(tx, id);
      if (!isOpenRun(status)) return refuse('renewal-settled', 'This renewal is settled and cannot be changed.');
      const before = await selectRenewal(tx, id);
      await updateRenewal(tx, id, { status, promotion: quote.promotion, taxPercent: quote.taxPercent });
      const open = new Set(before?.items.flatMap((item) => (isStartable(item) ? item.nameId : [])));
      await writeItems(
        tx,
        id,
        quote.items.flatMap((item) => (open.has(item.nameId) ? (itemOf(item) ?? []) : [])),
      );
      // What a registrar has answered holds as long as the same is asked: the same years, the same promotion.
      const isSameOffer = JSON.stringify(before?.promotion ?? null) === JSON.stringify(quote.promotion);
      const years = new Map(before?.items.map((item) => [item.nameId, item.years]));
      const asked = quote.items.filter((item) => !isSameOffer || years.get(item.nameId) !== item.years);
      await forgetLivePrices(
        tx,
        id,
        asked.map(({ nameId }) => nameId),
      );
      await keepQuote(tx, id, quote, await revisionAfter(tx, revision), at);
      return null;
    });
    return refused ?? openRenewal(deps, id);
  },
);

/** Notes by which payment method an account of a run pays. Refused for one that the account does not have. */
export const payRunBy = command('payRunBy', async (deps: Deps, input: unknown): Promise<RenewalRow | Refusal> => {
  const request = await readRequest(PayBy, input);
  if (isRefusal(request)) return request;
  const account = await selectAccount(deps.database, request.accountId);
  const { paymentMethod } = request;
  if (!account || (paymentMethod !== undefined && !account.paymentMethods.some(({ label }) => label === paymentMethod)))
    return refuse(
      'payment-method-unknown',
      'This account has no such payment methods. Load the page again.',
      'paymentMethod',
    );
  return changing(deps, async (tx) => {
    const status = await lockRenewal(tx, request.id);
    if (!isOpenRun(status)) return refuse('renewal-settled', 'This renewal is settled and cannot be changed.');
    const { payBy } = (await selectRenewal(tx, request.id)) as RenewalRow;
    const { [account.id]: _before, ...others } = payBy;
    await updateRenewal(tx, request.id, {
      status,
      payBy: paymentMethod === undefined ? others : { ...others, [account.id]: paymentMethod },
    });
    return (await selectRenewal(tx, request.id)) as RenewalRow;
  });
});

/** Notes that the person has been told what to do at the registrar, or drops the renewal. */
export const moveRenewal = command('moveRenewal', async (deps: Deps, input: unknown): Promise<RenewalRow | Refusal> => {
  const request = await readRequest(MoveRenewal, input);
  if (isRefusal(request)) return request;
  return changing(deps, async (tx) => {
    const status = await lockRenewal(tx, request.id);
    if (!isOpenRun(status)) return refuse('renewal-settled', 'This renewal is settled and cannot be changed.');
    await updateRenewal(tx, request.id, { status: request.to });
    return (await selectRenewal(tx, request.id)) as RenewalRow;
  });
});
