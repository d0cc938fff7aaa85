import { randomUUID } from 'node:crypto';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { transaction } from '@/database/pool';
import {
  insertRenewal,
  lockRenewal,
  type RenewalItemRow,
  type RenewalRow,
  selectOpenRenewals,
  selectRenewal,
  selectRenewalByKey,
  updateRenewal,
  writeItems,
} from '@/database/renewals';
import type { Deps } from '../deps';
import { USUAL_REASON } from '../rescue/report';
import { readRequest } from '../validate';
import { type QuotedItem, quoteRenewal, type RenewalQuote } from './quote';
import { MoveRenewal } from './requests';

/** A renewal with what it would do today. */
export interface OpenRenewal {
  readonly renewal: RenewalRow;
  readonly quote: RenewalQuote;
}

/**
 * Plans the renewal or restore of some names. `key` is the caller's idempotency key: the same key answers with the renewal it
 * made the first time.
 */
export async function planRenewal(
  deps: Deps,
  input: unknown,
  key: string | null = null,
): Promise<OpenRenewal | Refusal> {
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
  const written = await transaction(deps.database, (tx) => insertRenewal(tx, draft));
  const renewal =
    written || key === null ? await selectRenewal(deps.database, id) : await selectRenewalByKey(deps.database, key);
  return { renewal: renewal as RenewalRow, quote };
}

function itemOf(item: QuotedItem): RenewalItemRow | null {
  if (item.oldEnd === null) return null;
  const quoted = item.refusal ? null : item.total;
  return {
    nameId: item.nameId,
    ascii: item.ascii,
    years: item.years,
    oldEnd: item.oldEnd.at,
    newEnd: item.newEnd?.at ?? null,
    quotedMinor: quoted?.minor ?? null,
    currency: quoted?.currency ?? null,
    chargedMinor: null,
    chargedOn: null,
    means: null,
    reference: null,
    done: null,
    state: 'planned',
  };
}

/** A planned renewal with its quote worked out anew. */
export async function openRenewal(deps: Deps, id: string): Promise<OpenRenewal | Refusal> {
  const renewal = await selectRenewal(deps.database, id);
  if (!renewal) return refuse('renewal-unknown', 'This renewal is no longer there. Choose the names again.');
  const items = renewal.items.map(({ nameId, years }) => ({ nameId, years }));
  const quote = await quoteRenewal(deps, {
    action: renewal.action,
    items,
    promotion: renewal.promotion ?? undefined,
    taxPercent: renewal.taxPercent,
  });
  return isRefusal(quote) ? quote : { renewal, quote };
}

/** Renewals that are planned or asked and not confirmed yet. */
export function openRenewals(deps: Deps): Promise<RenewalRow[]> {
  return selectOpenRenewals(deps.database);
}

/** Changes terms, promotion and tax of a planned renewal. */
export async function changeRenewal(deps: Deps, id: string, input: unknown): Promise<OpenRenewal | Refusal> {
  const quote = await quoteRenewal(deps, input);
  if (isRefusal(quote)) return quote;
  const refused = await transaction(deps.database, async (tx) => {
    const status = await lockRenewal(tx, id);
    if (status !== 'planned' && status !== 'asked')
      return refuse('renewal-settled', 'This renewal is settled and cannot be changed.');
    await updateRenewal(tx, id, { status, promotion: quote.promotion, taxPercent: quote.taxPercent });
    await writeItems(
      tx,
      id,
      quote.items.flatMap((item) => itemOf(item) ?? []),
    );
    return null;
  });
  return refused ?? openRenewal(deps, id);
}

/** Notes that the person has been told what to do at the registrar, or drops the renewal. */
export async function moveRenewal(deps: Deps, input: unknown): Promise<RenewalRow | Refusal> {
  const request = await readRequest(MoveRenewal, input);
  if (isRefusal(request)) return request;
  return transaction(deps.database, async (tx) => {
    const status = await lockRenewal(tx, request.id);
    if (status !== 'planned' && status !== 'asked')
      return refuse('renewal-settled', 'This renewal is settled and cannot be changed.');
    await updateRenewal(tx, request.id, { status: request.to });
    return (await selectRenewal(tx, request.id)) as RenewalRow;
  });
}
