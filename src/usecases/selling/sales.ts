import { randomUUID } from 'node:crypto';
import { NOT_OURS } from '@/connectors/registrar/results';
import { OVER_MOVES } from '@/core/moving';
import { sameRegistrar } from '@/core/records';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dueAt, hasFailed, netProceedsOf, refuseStage, SALE_STAGES, type SaleStage, saleFees } from '@/core/selling';
import { addDays, dayOf, formatInstant, type Instant } from '@/core/time';
import { selectAccount } from '@/database/accounts';
import { type AuctionRow, cancelAuctions, lockRunningAuctions } from '@/database/auctions';
import { patchNames } from '@/database/changes';
import { type EntryDraft, insertEntries } from '@/database/entries';
import { reviveListings, stepListings, withdrawListings } from '@/database/listings';
import { selectMarketplace } from '@/database/marketplaces';
import { closeThreads, holdThreads, noteBestOffers } from '@/database/offers';
import type { Transaction } from '@/database/pool';
import { selectRates } from '@/database/rates';
import { selectNewestRecords } from '@/database/records';
import {
  beginHandover,
  insertSale,
  insertSaleStep,
  lockSale,
  type SaleDraft,
  type SaleRow,
  type SaleStepRow,
  selectSale,
  selectSales,
  updateSale,
} from '@/database/sales';
import { insertOutTransfer, moveTransfers, selectTransferOfSale } from '@/database/transfers';
import { changing, recordIn } from '../changing';
import type { Deps } from '../deps';
import { linkOf, linkProblem } from '../links/links';
import { codeOfTransfer } from '../moving/byHand';
import { carryOnTransfers } from '../moving/carryOn';
import { command } from '../people/command';
import { queueChecks } from '../records/check';
import { readRequest } from '../validate';
import { HandOver, StepSale } from './requests';

export type { SaleRow } from '@/database/sales';

type Origin = SaleStepRow['origin'];

/**
 * Commits a name to a buyer, in the transaction of whatever brought the sale about. The database lets one sale of a name stand:
 * whoever comes second is refused. While an auction has bids, nothing sells beside it. Other threads wait, other listings are
 * withdrawn, and auctions that nobody has bid in are cancelled.
 */
export async function commitSale(
  tx: Transaction,
  at: Instant,
  sale: Omit<SaleDraft, 'dueAt'>,
  origin: Origin,
  threadId: number | null = null,
): Promise<number | Refusal> {
  const running = (await lockRunningAuctions(tx, sale.nameId)).filter(({ id }) => id !== sale.auctionId);
  // What its marketplace tells of an auction there ends that auction: it knows the bids.
  const ended = (auction: AuctionRow) =>
    origin === 'marketplace' && auction.atMarketplace && auction.marketplaceId === sale.marketplaceId;
  if (running.some((auction) => auction.bids.length > 0 && !ended(auction)))
    return refuse(
      'auction-has-bids',
      'An auction of this name has bids: it runs to its close, and nothing sells beside it. Answer this when it is over.',
    );
  const id = await insertSale(tx, { ...sale, dueAt: dueAt('agreed', at) }, at);
  if (id === null)
    return refuse('name-promised', 'This name is promised to somebody already, or sold. See its sale under Selling.');
  await insertSaleStep(tx, id, { at, stage: 'agreed', origin, note: '' });
  if (sale.listingId !== null) await stepListings(tx, [sale.listingId], { status: 'sold' });
  await withdrawListings(tx, sale.nameId, sale.listingId);
  await cancelAuctions(
    tx,
    running.filter(({ atMarketplace }) => !atMarketplace).map(({ listingId }) => listingId),
    at,
  );
  await holdThreads(tx, sale.nameId, true, threadId);
  await noteBestOffers(tx, [sale.nameId]);
  return id;
}

/** Where nothing comes of a sale, or it is in dispute, the name is put back as it was: locked, its code changed. */
const GOES_BACK: ReadonlySet<SaleStage> = new Set(['not paid', 'refused', 'dispute']);

/** Ends the transfer of a sold name with its sale: from then on its code is of no use to anyone but a thief. */
async function endTransferOfSale(tx: Transaction, saleId: number, to: SaleStage, at: Instant): Promise<void> {
  const transfer = await selectTransferOfSale(tx, saleId);
  if (!transfer || OVER_MOVES.includes(transfer.stage) || transfer.stage === 'going back') return;
  const move = { id: transfer.id, from: transfer.stage };
  if (to === 'arrived' || to === 'done') await moveTransfers(tx, [{ ...move, to: 'closed', problem: null }], at);
  if (GOES_BACK.has(to))
    await moveTransfers(
      tx,
      [{ ...move, to: 'going back', problem: `The sale is at “${to}”.`, patch: { exit: 'stopped' } }],
      at,
    );
}

/** Takes a sale from its stage to another that may follow, books it when it is done, frees the name when it failed. */
export async function stepTo(
  tx: Transaction,
  deps: Deps,
  sale: SaleRow,
  to: SaleStage,
  origin: Origin,
  note = '',
): Promise<SaleRow> {
  const at = deps.clock();
  await updateSale(tx, sale.id, { stage: to, stageSince: at, dueAt: dueAt(to, at), handingOver: false });
  await insertSaleStep(tx, sale.id, { at, stage: to, origin, note });
  await endTransferOfSale(tx, sale.id, to, at);
  if (to === 'done') await book(tx, deps, sale);
  if (hasFailed(to)) await free(tx, sale);
  return (await selectSale(tx, sale.id)) as SaleRow;
}

/** Takes a sale forward through every stage up to `to`; one that is there or beyond stays. */
export async function bringTo(
  tx: Transaction,
  deps: Deps,
  sale: SaleRow,
  to: SaleStage,
  origin: Origin,
): Promise<SaleRow> {
  const goal = (SALE_STAGES as readonly SaleStage[]).indexOf(to);
  let now = sale;
  for (;;) {
    const place = (SALE_STAGES as readonly SaleStage[]).indexOf(now.stage);
    const next = SALE_STAGES[place + 1];
    if (place < 0 || place >= goal || next === undefined) return now;
    now = await stepTo(tx, deps, now, next, origin);
  }
}

/** Takes a sale out of the way: not paid, refused, or in dispute. Where that does not follow, nothing happens. */
export async function leaveSale(
  tx: Transaction,
  deps: Deps,
  sale: SaleRow,
  to: SaleStage,
  origin: Origin,
  note = '',
): Promise<void> {
  if (refuseStage(sale.stage, to) === null) await stepTo(tx, deps, sale, to, origin, note);
}

/** Nothing came of it: the name may be offered again, and threads that waited are open. */
async function free(tx: Transaction, sale: SaleRow): Promise<void> {
  await holdThreads(tx, sale.nameId, false, null);
  await reviveListings(tx, sale.nameId, sale.listingId);
  await noteBestOffers(tx, [sale.nameId]);
}

/** Books a sale, once: what came in, what the marketplace kept. The name leaves the working views and stays in the books. */
async function book(tx: Transaction, deps: Deps, sale: SaleRow): Promise<void> {
  if (sale.bookedBatch !== null) return;
  const at = deps.clock();
  const { commissionMinor, feesMinor } = (await keptBy(tx, deps, sale)) ?? { commissionMinor: null, feesMinor: null };
  const batchId = await recordIn(tx, deps, 'sale', `Sold: ${sale.unicode}`);
  const entry = (kind: EntryDraft['kind'], minor: number | null): EntryDraft[] =>
    // What the marketplace keeps is not known without a rate: then it is not booked, and the statement says so.
    minor === null || minor === 0
      ? []
      : [
          {
            nameId: sale.nameId,
            onDay: dayOf(at),
            kind,
            minor,
            currency: sale.currency,
            paymentMethod: sale.marketplace ?? 'paid directly',
            saleId: sale.id,
            note: `sold to ${sale.buyer}`,
          },
        ];
  await insertEntries(tx, batchId, [
    ...entry('sale', -sale.priceMinor),
    ...entry('commission', commissionMinor),
    ...entry('listing fee', feesMinor),
  ]);
  await patchNames(tx, batchId, [
    { nameId: sale.nameId, patch: { gone_at: formatInstant(at) }, evidence: `sold to ${sale.buyer}` },
  ]);
  await updateSale(tx, sale.id, { bookedBatch: batchId, commissionMinor, feesMinor });
  await closeThreads(tx, sale.nameId);
}

/** What the marketplace keeps: as it told, else by its rules; `null` where a rate is missing. */
async function keptBy(
  tx: Transaction,
  deps: Deps,
  sale: SaleRow,
): Promise<{ commissionMinor: number; feesMinor: number } | null> {
  if (sale.commissionMinor !== null) return { commissionMinor: sale.commissionMinor, feesMinor: sale.feesMinor ?? 0 };
  const marketplace = sale.marketplaceId === null ? null : await selectMarketplace(tx, sale.marketplaceId);
  const fees = saleFees(marketplace, null, sale.currency, await selectRates(tx), deps.clock());
  return fees && netProceedsOf(sale.priceMinor, fees);
}

/** Takes down a step of a sale by hand. */
export const stepSale = command('stepSale', async (deps: Deps, input: unknown): Promise<SaleRow | Refusal> => {
  const request = await readRequest(StepSale, input);
  if (isRefusal(request)) return request;
  const { to, handover, buyerAccount, note = '' } = request;
  return changing(deps, async (tx) => {
    const sale = await lockSale(tx, request.saleId);
    if (!sale) return refuse('sale-unknown', 'This sale is no longer there. Load the page again.');
    const refused = refuseStage(sale.stage, to);
    if (refused) return refused;
    if (to === 'done' && (await keptBy(tx, deps, sale)) === null)
      return refuse(
        'rate-missing',
        `What the marketplace keeps is not known: save a rate from its currency into ${sale.currency} under Setup, Marketplaces, first.`,
      );
    if (to === 'buyer known' && (!handover || !buyerAccount))
      return refuse(
        'buyer-account-missing',
        'Write the buyer’s account at the registrar, or the registrar it goes to.',
        'buyerAccount',
      );
    if (to === 'buyer known')
      await updateSale(tx, sale.id, { handover: handover ?? null, buyerAccount: buyerAccount ?? null });
    return stepTo(tx, deps, sale, to, 'by hand', note);
  });
});

/**
 * Hands a name over: by the registrar's link where the account has one, else as it was done by hand. A push is asked for once and
 * looked after; a transfer needs the lock off and a code of its own, which the buyer gets.
 */
export const handOver = command('handOver', async (deps: Deps, input: unknown): Promise<SaleRow | Refusal> => {
  const request = await readRequest(HandOver, input);
  if (isRefusal(request)) return request;
  const sale = await selectSale(deps.database, request.saleId);
  if (!sale) return refuse('sale-unknown', 'This sale is no longer there. Load the page again.');
  if (sale.stage !== 'buyer known') return refuseStage(sale.stage, 'handed over') ?? sale;
  if (request.byHand) return changing(deps, (tx) => toldAsHandedOver(tx, deps, sale.id, 'by hand'));
  if (!(await linkOf(deps, sale.accountId)))
    return refuse(
      'no-link',
      'This account has no link: hand the name over at the registrar, then say that it is done.',
    );
  if (!deps.key) return refuse('no-key', 'Set NAME_LEDGER_KEY to a long text of your own: it seals the transfer code.');
  // Decided before it is sent: what follows may be sent again.
  await changing(deps, async (tx, { at }) => {
    await beginHandover(tx, sale.id);
    if (sale.handover === 'transfer') await insertOutTransfer(tx, randomUUID(), sale.id, at);
  });
  return handOverByLink(deps, sale.id);
});

/** Goes on with a handover that was decided. Sent again it harms nothing: a name that is no longer ours has gone. */
async function handOverByLink(deps: Deps, saleId: number): Promise<SaleRow | Refusal> {
  const sale = await selectSale(deps.database, saleId);
  const link = sale && (await linkOf(deps, sale.accountId));
  if (!sale || !link) return refuse('no-link', 'This account has no link that works.');
  if (sale.handover === 'transfer') return giveCode(deps, sale);
  const outcome = await link.change(sale.ascii, { pushTo: sale.buyerAccount as string }, `NL-${randomUUID()}`);
  const isGone = outcome.kind === 'refused' && NOT_OURS.has(outcome.code);
  if (outcome.kind === 'done' || isGone) return changing(deps, (tx) => toldAsHandedOver(tx, deps, saleId, 'registrar'));
  if (outcome.kind === 'refused') await updateSale(deps.database, saleId, { handingOver: false });
  return refuse('link-failed', linkProblem(outcome));
}

/** From these stages on the name is open for its buyer, who has the code. */
const CODE_IS_GIVEN: ReadonlySet<string> = new Set(['code held', 'requested', 'pending', 'approved', 'closed']);

/** Takes the transfer of a sold name to where its buyer can ask for it: the same stages as every other transfer. */
async function giveCode(deps: Deps, sale: SaleRow): Promise<SaleRow | Refusal> {
  await carryOnTransfers(deps);
  const transfer = await selectTransferOfSale(deps.database, sale.id);
  if (transfer && CODE_IS_GIVEN.has(transfer.stage))
    return changing(deps, (tx) => toldAsHandedOver(tx, deps, sale.id, 'registrar'));
  if (!transfer || transfer.exit !== null) {
    await updateSale(deps.database, sale.id, { handingOver: false });
    return refuse('link-failed', transfer?.problem ?? 'This name is on its way elsewhere already. See Transfers.');
  }
  return refuse('link-failed', transfer.problem ?? 'The registrar has not answered yet. It goes on by itself.');
}

/** The code by which the buyer's registrar asks for a name: shown when it is asked for, while its transfer is on its way. */
export const transferCode = command('transferCode', async (deps: Deps, saleId: number): Promise<string | Refusal> => {
  const transfer = await selectTransferOfSale(deps.database, saleId);
  return transfer
    ? codeOfTransfer(deps, transfer.id)
    : refuse('code-gone', 'There is no code: it is destroyed when a transfer is over.');
});

async function toldAsHandedOver(
  tx: Transaction,
  deps: Deps,
  saleId: number,
  origin: Origin,
): Promise<SaleRow | Refusal> {
  const sale = await lockSale(tx, saleId);
  if (!sale) return refuse('sale-unknown', 'This sale is no longer there. Load the page again.');
  if (sale.stage !== 'buyer known') return sale;
  await updateSale(tx, saleId, sale.linked && sale.ref !== null ? { toTell: 'handed over' } : {});
  return stepTo(tx, deps, sale, 'handed over', origin);
}

/** Carries on handovers whose answer did not come, and looks whether names have arrived at their buyers. */
export async function followHandovers(deps: Deps): Promise<void> {
  await carryOnTransfers(deps);
  for (const sale of await selectSales(deps.database, 'open')) {
    if (sale.stage === 'buyer known' && sale.handingOver) {
      const gone = await handOverByLink(deps, sale.id);
      if (isRefusal(gone)) deps.log.warn({ sale: sale.id, problem: gone.message }, 'a handover goes on later');
    }
    if (sale.stage !== 'handed over') continue;
    const isClosed = (await selectTransferOfSale(deps.database, sale.id))?.stage === 'closed';
    const origin = isClosed ? 'registrar' : await arrivalOf(deps, sale);
    if (origin)
      await changing(deps, async (tx) => {
        const now = await lockSale(tx, sale.id);
        if (now) await bringTo(tx, deps, now, 'arrived', origin);
      });
  }
}

/**
 * What shows that a name has arrived: the account no longer has it, or the registration record has it at another registrar than before.
 * `null` while nothing does: then it is the buyer's word that counts.
 */
async function arrivalOf(deps: Deps, sale: SaleRow): Promise<'registrar' | 'record' | null> {
  const link = await linkOf(deps, sale.accountId);
  const seen = link && (await link.info(sale.ascii));
  if (seen?.kind === 'refused' && NOT_OURS.has(seen.code)) return 'registrar';
  if (sale.handover !== 'transfer') return null;
  const records = await selectNewestRecords(deps.database, [sale.ascii]);
  const newest = records.find(({ source }) => source === 'registry');
  if (!newest || newest.lastAt < addDays(deps.clock(), -1)) await queueChecks(deps, [sale.ascii]);
  const at = newest?.record.registrar ?? null;
  const account = await selectAccount(deps.database, sale.accountId);
  return at !== null &&
    account !== null &&
    newest !== undefined &&
    newest.lastAt > sale.stageSince &&
    !sameRegistrar(at, account.registrar)
    ? 'record'
    : null;
}
