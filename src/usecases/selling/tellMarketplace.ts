import type { MarketplaceLink } from '@/connectors/marketplace/port';
import { isRefusal } from '@/core/refusal';
import { termsOf } from '@/core/selling';
import { type ListingRow, selectLinkedListings, stepListings } from '@/database/listings';
import type { MarketplaceRow } from '@/database/marketplaces';
import { markFigureTold, selectFigureRefs, selectUntoldFigures } from '@/database/offers';
import { lockSale, type SaleRow, selectUntoldSales, updateSale } from '@/database/sales';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { marketplaceProblem } from '../marketplaces/marketplaces';
import { isLookDue, setProof } from './prove';
import { leaveSale, transferCode } from './sales';
import { takeState } from './sendListings';

/** Tells a marketplace what was decided here. Answers a problem when it does not answer: then nothing else is asked of it. */
export async function tellMarketplace(
  deps: Deps,
  marketplace: MarketplaceRow,
  link: MarketplaceLink,
): Promise<string | null> {
  const { database } = deps;
  const sales = (await selectUntoldSales(database)).filter(({ marketplaceId }) => marketplaceId === marketplace.id);
  for (const sale of sales) {
    const problem = await tellSale(deps, link, sale);
    if (problem) return problem;
  }
  for (const untold of (await selectUntoldFigures(database)).filter(
    ({ marketplaceId }) => marketplaceId === marketplace.id,
  )) {
    const outcome =
      untold.what === 'decline'
        ? await link.decline(untold.threadRef)
        : await link.counter(untold.threadRef, `figure ${untold.figureId}`, untold.minor, untold.lapsesAt);
    if (outcome.kind === 'unknown') return marketplaceProblem(outcome);
    if (outcome.kind === 'refused')
      deps.log.warn({ figure: untold.figureId, reason: outcome.reason }, 'a marketplace refused an answer');
    await markFigureTold(database, untold.figureId);
  }
  const listings = await selectLinkedListings(database, ['sending', 'withdrawing', 'unproved']);
  for (const listing of listings.filter(({ marketplaceId }) => marketplaceId === marketplace.id)) {
    const problem = await tellListing(deps, marketplace, link, listing);
    if (problem) return problem;
  }
  return null;
}

async function tellSale(deps: Deps, link: MarketplaceLink, sale: SaleRow): Promise<string | null> {
  const { database } = deps;
  const threadRef = sale.figureId === null ? null : await selectFigureRefs(database, sale.figureId);
  if (sale.toTell === 'agreed' && sale.ref === null && threadRef) {
    const accepted = await link.accept(threadRef.thread, threadRef.figure);
    if (accepted.kind === 'unknown') return marketplaceProblem(accepted);
    if (accepted.kind === 'done') await updateSale(database, sale.id, { ref: accepted.value, toTell: null });
    else
      await changing(deps, async (tx) => {
        const now = await lockSale(tx, sale.id);
        await updateSale(tx, sale.id, { toTell: null });
        if (now) await leaveSale(tx, deps, now, 'refused', 'marketplace', accepted.reason);
      });
    return null;
  }
  if (sale.ref === null) {
    await updateSale(database, sale.id, { toTell: null });
    return null;
  }
  const outcome =
    sale.toTell === 'handed over'
      ? await link.handedOver(sale.ref, await codeToTell(deps, sale))
      : await link.answerSale(sale.ref, sale.toTell === 'refused' ? 'refused' : 'agreed');
  if (outcome.kind === 'unknown') return marketplaceProblem(outcome);
  if (outcome.kind === 'refused')
    deps.log.warn({ sale: sale.id, reason: outcome.reason }, 'a marketplace refused an answer');
  await updateSale(database, sale.id, { toTell: null });
  return null;
}

/** The code goes to the marketplace, which holds the buyer's money; of a push there is none. */
async function codeToTell(deps: Deps, sale: SaleRow): Promise<string | null> {
  const code = sale.hasCode ? await transferCode(deps, sale.id) : null;
  return isRefusal(code) ? null : code;
}

async function tellListing(
  deps: Deps,
  marketplace: MarketplaceRow,
  link: MarketplaceLink,
  listing: ListingRow,
): Promise<string | null> {
  const { database } = deps;
  if (listing.status === 'withdrawing') {
    const gone = await link.withdraw(listing.ascii);
    if (gone.kind === 'unknown') return marketplaceProblem(gone);
    const step =
      gone.kind === 'done' ? ({ status: 'withdrawn' } as const) : ({ status: 'live', problem: gone.reason } as const);
    await changing(deps, (tx) => stepListings(tx, [listing.id], step, ['withdrawing']));
    return null;
  }
  if (listing.status === 'sending') {
    const sent = await link.list({ name: listing.ascii, ...termsOf(listing) });
    if (sent.kind === 'unknown') return marketplaceProblem(sent);
    if (sent.kind === 'refused') {
      const { reason: problem } = sent;
      await changing(deps, (tx) => stepListings(tx, [listing.id], { status: 'refused', problem }, ['sending']));
      return null;
    }
    await changing(deps, (tx) => takeState(tx, deps, marketplace, listing, sent.value, ['sending']));
    if (sent.value.status !== 'unproved' || marketplace.accountId === listing.accountId) return null;
    await setProof(deps, listing, sent.value);
    return null;
  }
  // Unproved: the marketplace is asked to look for the record again by itself.
  if (!isLookDue(listing, deps.clock())) return null;
  await stepListings(database, [listing.id], { proofLookedAt: deps.clock() });
  const looked = await link.prove(listing.ascii, 'txt', null);
  if (looked.kind === 'unknown') return marketplaceProblem(looked);
  if (looked.kind === 'done' && looked.value.status !== 'unproved')
    await changing(deps, (tx) => takeState(tx, deps, marketplace, listing, looked.value, ['unproved']));
  return null;
}
