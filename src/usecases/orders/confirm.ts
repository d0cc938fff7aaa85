import { isCurrency } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf, FIRST_DAY, formatInstant, type Instant, parseDay } from '@/core/time';
import { type PatchedName, patchNames } from '@/database/changes';
import { type EntryDraft, insertEntries } from '@/database/entries';
import { lockTermEnds } from '@/database/names';
import type { Transaction } from '@/database/pool';
import { inferPrices } from '@/database/prices';
import {
  lockRenewal,
  type RenewalItemRow,
  type RenewalRow,
  selectRenewal,
  updateRenewal,
  writeItems,
} from '@/database/renewals';
import { confirmSettledRun } from '@/database/runs';
import { type Change, changing, type Done } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readRequest } from '../validate';
import { agreedRenewal, type OpenRenewal } from './plan';
import type { QuotedItem, RenewalQuote } from './quote';
import { ConfirmRenewal } from './requests';

/**
 * Takes down what really happened at the registrar: entries with the amounts charged beside the quote, new ends, history,
 * in one transaction. Doing it twice does it once: a renewal that is confirmed already answers as it did the first time.
 */
export const confirmRenewal = command('confirmRenewal', async (deps: Deps, input: unknown): Promise<Done | Refusal> => {
  const request = await readRequest(ConfirmRenewal, input);
  if (isRefusal(request)) return request;
  const at = deps.clock();
  const day = parseDay(request.chargedOn);
  if (!day || day < FIRST_DAY || day > dayOf(at))
    return refuse('date-out-of-range', 'Write the day of the charge: today or before.', 'chargedOn');
  const strange = request.items.find(({ currency }) => currency !== undefined && !isCurrency(currency));
  if (strange) return refuse('currency-unknown', `${strange.currency} is not a currency code of ISO 4217.`, 'currency');
  // The quote is read before the transaction: a second connection asked for within one could wait for itself.
  const open = await agreedRenewal(deps, request.id);
  if (isRefusal(open)) return open;
  return changing(deps, async (tx, change) => {
    const status = await lockRenewal(tx, request.id);
    const renewal = status === null ? null : await selectRenewal(tx, request.id);
    if (!renewal || status === 'dropped')
      return refuse('renewal-unknown', 'This renewal is no longer there. Choose the names again.');
    if (status === 'confirmed')
      return { batchId: renewal.batchId, changed: doneItems(renewal).length, summary: summaryOf(renewal) };
    return settle(tx, change, { renewal, quote: open.quote }, request);
  });
});

async function settle(
  tx: Transaction,
  { at, record }: Change,
  { renewal, quote }: OpenRenewal,
  request: ConfirmRenewal,
): Promise<Done | Refusal> {
  const told = new Map(request.items.map((item) => [item.nameId, item]));
  const quoted = new Map(quote.items.map((item) => [item.nameId, item]));
  const ends = await lockTermEnds(
    tx,
    renewal.items.map((item) => item.nameId),
  );
  // What goes over a link is settled by the registrar's answer, not by anybody's word.
  const planned = renewal.items.filter(({ state }) => state === 'planned');
  const items = settledItems(planned, { told, quoted, ends, quote, request });
  if (isRefusal(items)) return items;
  const done = items.filter((item) => item.done && item.newEnd !== null);
  const summary = summaryOf({ ...renewal, items });
  const restored = renewal.action === 'restore';
  const batchId = await record(restored ? 'restore' : 'renewal', summary);
  const evidence = ['by hand', request.reference].filter(Boolean).join(', ');
  const patches = done.map(
    (item): PatchedName => ({
      nameId: item.nameId,
      patch: {
        term_end: formatInstant(item.newEnd as Instant),
        ...(!restored && item.oldEnd <= at && { grace_paid: formatInstant(at) }),
        ...(restored ? { observed: null, observed_at: null } : {}),
        ...unstall(quoted.get(item.nameId), at),
      },
      evidence,
    }),
  );
  const entries = done.flatMap((item) => entriesOf(item, request, restored));
  await writeItems(tx, renewal.id, items);
  await patchNames(tx, batchId, patches);
  await insertEntries(tx, batchId, entries);
  // Only what nothing else can explain teaches a price: one year, in term, without promotion or tax that was spoken of.
  const isPlain = !restored && renewal.promotion === null && !renewal.taxPercent;
  await inferPrices(
    tx,
    batchId,
    done.flatMap(({ nameId, years }) =>
      isPlain && years === 1 && quoted.get(nameId)?.phase !== 'late' ? [nameId] : [],
    ),
  );
  await updateRenewal(tx, renewal.id, { status: 'requested', batchId, at });
  await confirmSettledRun(tx, renewal.id, at);
  return { batchId, changed: done.length, summary };
}

interface Settling {
  readonly told: ReadonlyMap<number, ConfirmRenewal['items'][number]>;
  readonly quoted: ReadonlyMap<number, QuotedItem>;
  /** The ends of terms as they stand now, locked. */
  readonly ends: ReadonlyMap<number, Instant | null>;
  readonly quote: OpenRenewal['quote'];
  readonly request: ConfirmRenewal;
}

/** The items as they were told to have gone; refused where a name has changed since it was planned. */
function settledItems(
  planned: readonly RenewalItemRow[],
  { told, quoted, ends, quote, request }: Settling,
): RenewalItemRow[] | Refusal {
  const items: RenewalItemRow[] = [];
  for (const item of planned) {
    const now = quoted.get(item.nameId);
    const done = told.get(item.nameId)?.done === true;
    if (done && (now === undefined || now.refusal || now.newEnd === null || now.oldEnd === null)) {
      return now?.refusal ?? refuse('renewal-changed', 'One of the names has changed since. Load the page again.');
    }
    if (done && (ends.get(item.nameId) !== item.oldEnd || now?.oldEnd?.at !== item.oldEnd)) {
      return refuse(
        'renewal-changed',
        `The term of ${now?.unicode} has changed since this was planned. Drop it and choose the names again.`,
      );
    }
    items.push({
      ...item,
      years: now?.years ?? item.years,
      newEnd: now?.newEnd?.at ?? null,
      ...chargeOf(now, told.get(item.nameId), item.currency ?? accountCurrency(quote, now), done),
      chargedOn: request.chargedOn,
      paymentMethod: request.paymentMethod ?? '',
      reference: request.reference ?? '',
      done,
    });
  }
  return items;
}

/** What goes into the books for an item: nothing where no amount was told. */
function entriesOf(item: RenewalItemRow, request: ConfirmRenewal, restored: boolean): EntryDraft[] {
  return item.chargedMinor === null || item.currency === null
    ? []
    : [
        {
          nameId: item.nameId,
          onDay: request.chargedOn,
          kind: restored ? 'restore' : 'renewal',
          minor: item.chargedMinor,
          currency: item.currency,
          paymentMethod: request.paymentMethod,
          reference: request.reference,
          note: restored ? 'restore and a year' : `${item.years} ${item.years === 1 ? 'year' : 'years'}`,
          quotedMinor: item.quotedMinor,
        },
      ];
}

/** What was charged, in the currency it was charged in; a quote in another currency is no quote of it. */
function chargeOf(
  item: QuotedItem | undefined,
  told: ConfirmRenewal['items'][number] | undefined,
  usual: string | null,
  done: boolean,
): Pick<RenewalItemRow, 'quotedMinor' | 'quotedTaxMinor' | 'currency' | 'chargedMinor'> {
  const total = item?.total ?? null;
  const currency = told?.currency ?? total?.currency ?? usual;
  const quoted = total?.currency === currency ? total : null;
  return {
    currency,
    quotedMinor: quoted?.minor ?? null,
    quotedTaxMinor: quoted ? (item?.cost?.tax ?? null) : null,
    chargedMinor: done ? (told?.chargedMinor ?? quoted?.minor ?? null) : null,
  };
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
  return `${renewal.action === 'restore' ? 'Restored' : 'Renewed'} ${count === 1 ? 'one name' : `${count} names`} by hand`;
}
