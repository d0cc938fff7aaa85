import { randomUUID } from 'node:crypto';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf, FIRST_DAY, formatInstant, type Instant, parseDay } from '@/core/time';
import { insertBatch, type PatchedName, patchNames } from '@/database/changes';
import { type EntryDraft, insertEntries } from '@/database/entries';
import { bumpRevision } from '@/database/ledger';
import { type Transaction, transaction } from '@/database/pool';
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
import type { Done } from '../names/edit';
import { readRequest } from '../validate';
import { type QuotedItem, quoteRenewal, type RenewalQuote } from './quote';
import { ConfirmRenewal, MoveRenewal } from './requests';

/** A renewal with what it would do today. */
export interface OpenRenewal {
  readonly renewal: RenewalRow;
  readonly quote: RenewalQuote;
}

/**
 * Plans the renewal of some names by hand. `key` is the caller's idempotency key: the same key answers with the renewal it
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
  const { promotion, taxPercent } = quote;
  const draft = {
    id,
    idempotencyKey: key,
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
  };
}

/** A planned renewal with its quote worked out anew. */
export async function openRenewal(deps: Deps, id: string): Promise<OpenRenewal | Refusal> {
  const renewal = await selectRenewal(deps.database, id);
  if (!renewal) return refuse('renewal-unknown', 'This renewal is no longer there. Choose the names again.');
  const items = renewal.items.map(({ nameId, years }) => ({ nameId, years }));
  const quote = await quoteRenewal(deps, {
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

/**
 * Takes down what really happened at the registrar: entries with the amounts charged beside the quote, new ends, history,
 * in one transaction. Doing it twice does it once: a renewal that is confirmed already answers as it did the first time.
 */
export async function confirmRenewal(deps: Deps, input: unknown): Promise<Done | Refusal> {
  const request = await readRequest(ConfirmRenewal, input);
  if (isRefusal(request)) return request;
  const at = deps.clock();
  const day = parseDay(request.chargedOn);
  if (!day || day < FIRST_DAY || day > dayOf(at))
    return refuse('date-out-of-range', 'Write the day of the charge: today or before.', 'chargedOn');
  return transaction(deps.database, async (tx) => {
    await bumpRevision(tx);
    const status = await lockRenewal(tx, request.id);
    const renewal = status === null ? null : await selectRenewal(tx, request.id);
    if (!renewal || status === 'dropped')
      return refuse('renewal-unknown', 'This renewal is no longer there. Choose the names again.');
    if (status === 'confirmed')
      return { batchId: renewal.batchId, changed: doneItems(renewal).length, summary: summaryOf(renewal) };
    const open = await openRenewal(deps, request.id);
    if (isRefusal(open)) return open;
    return settle(tx, open, request, at);
  });
}

async function settle(
  tx: Transaction,
  { renewal, quote }: OpenRenewal,
  request: ConfirmRenewal,
  at: Instant,
): Promise<Done | Refusal> {
  const told = new Map(request.items.map((item) => [item.nameId, item]));
  const quoted = new Map(quote.items.map((item) => [item.nameId, item]));
  const items: RenewalItemRow[] = [];
  for (const item of renewal.items) {
    const now = quoted.get(item.nameId);
    const done = told.get(item.nameId)?.done === true;
    if (done && (now === undefined || now.refusal || now.newEnd === null || now.oldEnd === null)) {
      return now?.refusal ?? refuse('renewal-changed', 'One of the names has changed since. Load the page again.');
    }
    if (done && now?.oldEnd?.at !== item.oldEnd) {
      return refuse(
        'renewal-changed',
        `The term of ${now?.unicode} has changed since this was planned. Drop it and choose the names again.`,
      );
    }
    items.push({
      ...item,
      years: now?.years ?? item.years,
      newEnd: now?.newEnd?.at ?? null,
      quotedMinor: now?.total?.minor ?? null,
      currency: now?.total?.currency ?? item.currency ?? accountCurrency(quote, now),
      chargedMinor: done ? (told.get(item.nameId)?.chargedMinor ?? now?.total?.minor ?? null) : null,
      chargedOn: request.chargedOn,
      means: request.means ?? '',
      reference: request.reference ?? '',
      done,
    });
  }
  const done = items.filter((item) => item.done && item.newEnd !== null);
  const summary = summaryOf({ ...renewal, items });
  const batchId = await insertBatch(tx, at, 'renewal', summary);
  const evidence = ['by hand', request.reference].filter(Boolean).join(', ');
  const patches = done.map(
    (item): PatchedName => ({
      nameId: item.nameId,
      patch: { term_end: formatInstant(item.newEnd as Instant), ...unstall(quoted.get(item.nameId), at) },
      evidence,
    }),
  );
  const entries = done.flatMap((item): EntryDraft[] =>
    item.chargedMinor === null || item.currency === null
      ? []
      : [
          {
            nameId: item.nameId,
            onDay: request.chargedOn,
            kind: 'renewal',
            minor: item.chargedMinor,
            currency: item.currency,
            means: request.means,
            reference: request.reference,
            note: `${item.years} ${item.years === 1 ? 'year' : 'years'}`,
            quotedMinor: item.quotedMinor,
          },
        ],
  );
  await writeItems(tx, renewal.id, items);
  await patchNames(tx, batchId, patches);
  await insertEntries(tx, batchId, entries);
  await updateRenewal(tx, renewal.id, { status: 'confirmed', batchId, at });
  return { batchId, changed: done.length, summary };
}

/** A name whose charge had failed is paid now; that auto-renew goes on is believed until it is seen at the registrar. */
function unstall(item: QuotedItem | undefined, at: Instant): Record<string, unknown> {
  if (item?.setting !== 'stalled') return {};
  return {
    setting: 'on',
    standing: 'believed',
    setting_since: formatInstant(at),
    setting_evidence: 'renewed by hand',
  };
}

function accountCurrency(quote: RenewalQuote, item: QuotedItem | undefined): string | null {
  return quote.accounts.find(({ account }) => account.id === item?.accountId)?.account.currency ?? null;
}

function doneItems(renewal: RenewalRow): readonly RenewalItemRow[] {
  return renewal.items.filter((item) => item.done);
}

function summaryOf(renewal: RenewalRow): string {
  const count = doneItems(renewal).length;
  return `Renewed ${count === 1 ? 'one name' : `${count} names`} by hand`;
}
