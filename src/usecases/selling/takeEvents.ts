import type { UnreadEvent, VenueEvent, VenueLink } from '@/connectors/venue/port';
import { isRefusal } from '@/core/refusal';
import type { Instant } from '@/core/time';
import { insertBid, lockAuction, selectAuctions, updateAuction } from '@/database/auctions';
import { selectListingAt } from '@/database/listings';
import { selectNameIds } from '@/database/names';
import { noteBestOffers, selectThreadByRef, setFigure, setThread } from '@/database/offers';
import type { Transaction } from '@/database/pool';
import { hasUnnamedSale, insertRefusedSale, lockSale, selectSaleByRef, updateSale } from '@/database/sales';
import { insertVenueEvent, noteVenue, selectVenue, type VenueRow } from '@/database/venues';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { venueProblem } from '../venues/venues';
import { endAuction } from './auctions';
import { takeState } from './listings';
import { receiveOffer } from './offers';
import { bringTo, commitSale, leaveSale } from './sales';

/** So many pages are read at a time, of however many events a venue has to tell. */
const MOST_PAGES = 100;

/** Reads the events of a venue, one transaction each: an event that is taken down twice is taken down once. */
export async function readEventsOf(deps: Deps, venue: VenueRow, link: VenueLink): Promise<string | null> {
  let cursor = (await selectVenue(deps.database, venue.id))?.linkCursor ?? venue.linkCursor;
  for (let page = 0; page < MOST_PAGES; page += 1) {
    const answer = await link.events(cursor);
    if (answer.kind !== 'done') return venueProblem(answer);
    if (answer.value.length === 0) return null;
    for (const event of answer.value) {
      // Its numbers rise: a venue that repeats itself would be followed for ever.
      if (event.id <= cursor)
        return `The venue repeats itself: event ${event.id} came again after ${cursor}. Tell its people; what came before is taken down.`;
      const taken = await changing(deps, (tx) => takeEvent(tx, deps, venue, event));
      // A sale of which the venue knows before we have heard its number: told first, read later.
      if (!taken) return null;
      cursor = event.id;
    }
  }
  // The rest comes next time.
  return null;
}

/** Takes one event down with what follows from it. False when it has to wait. */
async function takeEvent(
  tx: Transaction,
  deps: Deps,
  venue: VenueRow,
  event: VenueEvent | UnreadEvent,
): Promise<boolean> {
  if ('sale' in event && event.kind !== 'purchase' && (await selectSaleByRef(tx, venue.id, event.sale)) === null) {
    if (await hasUnnamedSale(tx, venue.id)) return false;
  }
  if (await insertVenueEvent(tx, venue.id, event)) await apply(tx, deps, venue, event);
  await noteVenue(tx, venue.id, { at: deps.clock(), cursor: event.id, problem: null });
  return true;
}

async function apply(tx: Transaction, deps: Deps, venue: VenueRow, event: VenueEvent | UnreadEvent): Promise<void> {
  switch (event.kind) {
    case 'unread':
      deps.log.warn({ venue: venue.id, event: event.id }, 'an event of a venue could not be understood');
      return;
    case 'listing': {
      const listing = await selectListingAt(tx, venue.id, event.state.name);
      if (listing) await takeState(tx, deps, venue, listing, event.state, ['sending', 'unproved', 'in review', 'live']);
      return;
    }
    case 'offer': {
      const nameId = await nameIdOf(tx, event.name);
      if (nameId === null) return;
      const thread = await selectThreadByRef(tx, venue.id, event.thread);
      await receiveOffer(tx, deps, {
        nameId,
        venueId: venue.id,
        threadId: thread?.id ?? null,
        threadRef: event.thread,
        figureRef: event.figure,
        buyer: event.buyer,
        contact: '',
        minor: event.minor,
        currency: event.currency,
        lapsesAt: event.lapsesAt,
        note: '',
        at: event.at,
      });
      return;
    }
    case 'declined': {
      const thread = await selectThreadByRef(tx, venue.id, event.thread);
      if (!thread || thread.state === 'accepted') return;
      const live = thread.figures.findLast(({ state }) => state === 'live');
      if (live) await setFigure(tx, live.id, 'declined');
      await setThread(tx, thread.id, live?.by === 'buyer' ? 'withdrawn' : 'declined');
      await noteBestOffers(tx, [thread.nameId]);
      return;
    }
    case 'bid':
      return takeBid(tx, venue, event);
    case 'closed': {
      const found = await auctionOf(tx, venue.id, event.name);
      if (found) await endAuction(tx, deps, found, event.outcome, event.at);
      return;
    }
    case 'purchase':
      return takePurchase(tx, deps, venue, event);
    default:
      return takeSaleEvent(tx, deps, venue, event);
  }
}

async function nameIdOf(tx: Transaction, ascii: string): Promise<number | null> {
  return (await selectNameIds(tx, [ascii])).get(ascii) ?? null;
}

async function auctionOf(tx: Transaction, venueId: number, ascii: string) {
  const nameId = await nameIdOf(tx, ascii);
  const all = nameId === null ? [] : await selectAuctions(tx, [nameId]);
  return all.find((one) => one.venueId === venueId && one.outcome === null) ?? null;
}

async function takeBid(tx: Transaction, venue: VenueRow, event: VenueEvent & { kind: 'bid' }): Promise<void> {
  const found = await auctionOf(tx, venue.id, event.name);
  const row = found && (await lockAuction(tx, found.id));
  if (!row) return;
  await insertBid(tx, row.id, {
    bidder: event.bidder,
    maxMinor: null,
    priceMinor: event.priceMinor,
    at: event.at,
    ref: event.bid,
  });
  await updateAuction(tx, row.id, {
    ...row,
    closesAt: event.closesAt,
    priceMinor: event.priceMinor,
    leader: event.leader,
    reserveMet: event.reserveMet,
    nextMinor: event.nextMinor,
  });
}

/** Somebody takes a name at a venue. It is agreed to, unless the name is promised or sold: then it is refused there. */
async function takePurchase(
  tx: Transaction,
  deps: Deps,
  venue: VenueRow,
  event: VenueEvent & { kind: 'purchase' },
): Promise<void> {
  const nameId = await nameIdOf(tx, event.name);
  if (nameId === null) return;
  const at = deps.clock() as Instant;
  const listing = await selectListingAt(tx, venue.id, event.name);
  const thread = event.thread === null ? null : await selectThreadByRef(tx, venue.id, event.thread);
  const figure = thread?.figures.findLast(({ state, by }) => state === 'live' && by === 'owner') ?? null;
  const closed = event.how === 'offer' ? [] : await selectAuctions(tx, [nameId]);
  const auctionId = closed.findLast((one) => one.venueId === venue.id && one.outcome?.kind === 'sold')?.id ?? null;
  const sale = {
    nameId,
    venueId: venue.id,
    listingId: listing?.id ?? null,
    figureId: figure?.id ?? null,
    auctionId,
    ref: event.sale,
    how: event.how,
    buyer: event.buyer,
    priceMinor: event.minor,
    currency: event.currency,
  };
  const committed = await commitSale(tx, at, { ...sale, toTell: 'agreed' }, 'venue', thread?.id ?? null);
  if (!isRefusal(committed)) {
    if (figure && thread) {
      await setFigure(tx, figure.id, 'accepted');
      await setThread(tx, thread.id, 'accepted');
    }
    return;
  }
  await insertRefusedSale(tx, sale, at, 'promised or sold elsewhere');
}

type SaleEvent = Extract<VenueEvent, { sale: string }>;

async function takeSaleEvent(
  tx: Transaction,
  deps: Deps,
  venue: VenueRow,
  event: Exclude<SaleEvent, { kind: 'purchase' }>,
): Promise<void> {
  const found = await selectSaleByRef(tx, venue.id, event.sale);
  const sale = found && (await lockSale(tx, found.id));
  if (!sale) return;
  switch (event.kind) {
    case 'paid':
      await bringTo(tx, deps, sale, 'money held', 'venue');
      return;
    case 'buyer':
      await updateSale(tx, sale.id, { handover: event.handover, buyerAccount: event.account });
      await bringTo(tx, deps, sale, 'buyer known', 'venue');
      return;
    case 'arrived':
      await bringTo(tx, deps, sale, 'arrived', 'venue');
      return;
    case 'released':
      await updateSale(tx, sale.id, { commissionMinor: event.commissionMinor, feesMinor: event.feesMinor });
      await bringTo(
        tx,
        deps,
        { ...sale, commissionMinor: event.commissionMinor, feesMinor: event.feesMinor },
        'done',
        'venue',
      );
      return;
    case 'not paid':
      await leaveSale(tx, deps, sale, 'not paid', 'venue');
      return;
    case 'dispute':
      await leaveSale(tx, deps, sale, 'dispute', 'venue', event.note);
  }
}
