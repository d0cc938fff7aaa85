import type { VenueLink, VenueListing } from '@/connectors/venue/port';
import { isRefusal } from '@/core/refusal';
import { type ListingRow, selectLinkedListings, stepListings } from '@/database/listings';
import { markFigureTold, selectFigureRefs, selectUntoldFigures } from '@/database/offers';
import { lockSale, type SaleRow, selectUntoldSales, updateSale } from '@/database/sales';
import type { VenueRow } from '@/database/venues';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { venueProblem } from '../venues/venues';
import { takeState } from './listings';
import { isLookDue, setProof } from './prove';
import { leaveSale, transferCode } from './sales';

/** Tells a venue what was decided here. Answers a problem when it does not answer: then nothing else is asked of it. */
export async function tellVenue(deps: Deps, venue: VenueRow, link: VenueLink): Promise<string | null> {
  const { database } = deps;
  const sales = (await selectUntoldSales(database)).filter(({ venueId }) => venueId === venue.id);
  for (const sale of sales) {
    const problem = await tellSale(deps, link, sale);
    if (problem) return problem;
  }
  for (const untold of (await selectUntoldFigures(database)).filter(({ venueId }) => venueId === venue.id)) {
    const outcome =
      untold.what === 'decline'
        ? await link.decline(untold.threadRef)
        : await link.counter(untold.threadRef, `figure ${untold.figureId}`, untold.minor, untold.lapsesAt);
    if (outcome.kind === 'unknown') return venueProblem(outcome);
    if (outcome.kind === 'refused')
      deps.log.warn({ figure: untold.figureId, reason: outcome.reason }, 'a venue refused an answer');
    await markFigureTold(database, untold.figureId);
  }
  const listings = await selectLinkedListings(database, ['sending', 'withdrawing', 'unproved']);
  for (const listing of listings.filter(({ venueId }) => venueId === venue.id)) {
    const problem = await tellListing(deps, venue, link, listing);
    if (problem) return problem;
  }
  return null;
}

async function tellSale(deps: Deps, link: VenueLink, sale: SaleRow): Promise<string | null> {
  const { database } = deps;
  const threadRef = sale.figureId === null ? null : await selectFigureRefs(database, sale.figureId);
  if (sale.toTell === 'agreed' && sale.ref === null && threadRef) {
    const accepted = await link.accept(threadRef.thread, threadRef.figure);
    if (accepted.kind === 'unknown') return venueProblem(accepted);
    if (accepted.kind === 'done') await updateSale(database, sale.id, { ref: accepted.value, toTell: null });
    else
      await changing(deps, async (tx) => {
        const now = await lockSale(tx, sale.id);
        await updateSale(tx, sale.id, { toTell: null });
        if (now) await leaveSale(tx, deps, now, 'refused', 'venue', accepted.reason);
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
  if (outcome.kind === 'unknown') return venueProblem(outcome);
  if (outcome.kind === 'refused') deps.log.warn({ sale: sale.id, reason: outcome.reason }, 'a venue refused an answer');
  await updateSale(database, sale.id, { toTell: null });
  return null;
}

/** The code goes to the venue, which holds the buyer's money; of a push there is none. */
async function codeToTell(deps: Deps, sale: SaleRow): Promise<string | null> {
  const code = sale.hasCode ? await transferCode(deps, sale.id) : null;
  return isRefusal(code) ? null : code;
}

async function tellListing(deps: Deps, venue: VenueRow, link: VenueLink, listing: ListingRow): Promise<string | null> {
  const { database } = deps;
  if (listing.status === 'withdrawing') {
    const gone = await link.withdraw(listing.ascii);
    if (gone.kind === 'unknown') return venueProblem(gone);
    const step =
      gone.kind === 'done' ? ({ status: 'withdrawn' } as const) : ({ status: 'live', problem: gone.reason } as const);
    await changing(deps, (tx) => stepListings(tx, [listing.id], step, ['withdrawing']));
    return null;
  }
  if (listing.status === 'sending') {
    const sent = await link.list(asSent(listing));
    if (sent.kind === 'unknown') return venueProblem(sent);
    if (sent.kind === 'refused') {
      const { reason: problem } = sent;
      await changing(deps, (tx) => stepListings(tx, [listing.id], { status: 'refused', problem }, ['sending']));
      return null;
    }
    await changing(deps, (tx) => takeState(tx, deps, venue, listing, sent.value, ['sending']));
    if (sent.value.status !== 'unproved' || venue.accountId === listing.accountId) return null;
    await setProof(deps, listing, sent.value);
    return null;
  }
  // Unproved: the venue is asked to look for the record again by itself.
  if (!isLookDue(listing, deps.clock())) return null;
  await stepListings(database, [listing.id], { proofLookedAt: deps.clock() });
  const looked = await link.prove(listing.ascii, 'txt', null);
  if (looked.kind === 'unknown') return venueProblem(looked);
  if (looked.kind === 'done' && looked.value.status !== 'unproved')
    await changing(deps, (tx) => takeState(tx, deps, venue, listing, looked.value, ['unproved']));
  return null;
}

/** A listing as the protocol has it. */
function asSent(listing: ListingRow): VenueListing {
  const {
    kind,
    currency,
    prices,
    auctionDays,
    reserveShown,
    withSite,
    categories,
    pitch,
    description,
    adult,
    network,
  } = listing;
  const words = { pitch, description, categories, adult, network, withSite };
  return { name: listing.ascii, kind, currency, prices, auctionDays, reserveShown, ...words };
}
