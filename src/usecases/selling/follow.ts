import { randomUUID } from 'node:crypto';
import type { UnreadEvent, VenueEvent, VenueLink, VenueListingState } from '@/connectors/venue/port';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { sellingTerms, usualIncrements } from '@/core/selling';
import type { Instant } from '@/core/time';
import { insertAuction, insertBid, lockAuction, selectAuctions, updateAuction } from '@/database/auctions';
import {
  type ListingRow,
  selectLinkedListings,
  selectListing,
  selectListingAt,
  stepListings,
} from '@/database/listings';
import {
  markFigureTold,
  noteBestOffers,
  selectThreadByRef,
  selectUntoldFigures,
  setFigure,
  setThread,
} from '@/database/offers';
import type { Transaction } from '@/database/pool';
import { whileAlone } from '@/database/runs';
import {
  insertSaleStep,
  lockSale,
  type SaleRow,
  selectSaleByRef,
  selectUntoldSales,
  updateSale,
} from '@/database/sales';
import { insertVenueEvent, noteVenue, selectVenue, selectVenues, type VenueRow } from '@/database/venues';
import type { Deps } from '../deps';
import { linkOf } from '../links/links';
import { readRequest } from '../validate';
import { closeDueAuctions, endAuction } from './auctions';
import { changing } from './changing';
import { lapseOffers, receiveOffer } from './offers';
import { ProveListing } from './requests';
import { bringTo, commitSale, followHandovers, leaveSale } from './sales';
import { venueLink, venueProblem } from './venues';

/**
 * Everything of selling that happens without anyone clicking: venues are told what was decided, what happened there is taken
 * down, auctions close, figures lapse, handovers go on. Safe at any moment and as often as wished.
 */
export async function followSelling(deps: Deps): Promise<void> {
  await closeDueAuctions(deps);
  await whileAlone(deps.database, 'venues', async () => {
    for (const venue of await selectVenues(deps.database)) {
      const link = await venueLink(deps, venue);
      if (link) await followVenue(deps, venue, link);
    }
    return 0;
  });
  // Also what has just come in and is late already.
  await lapseOffers(deps);
  await followHandovers(deps);
}

async function followVenue(deps: Deps, venue: VenueRow, link: VenueLink): Promise<void> {
  const told = await tellVenue(deps, venue, link);
  const read = told === null ? await readEventsOf(deps, venue, link) : null;
  await noteVenue(deps.database, venue.id, { at: deps.clock(), cursor: null, problem: told ?? read });
  // What came in may have to be answered at once.
  if (told === null && read === null) await tellVenue(deps, venue, link);
}

/** Tells a venue what was decided here. Answers a problem when it does not answer: then nothing else is asked of it. */
async function tellVenue(deps: Deps, venue: VenueRow, link: VenueLink): Promise<string | null> {
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
    if (outcome.kind === 'refused') deps.log.warn({ untold, reason: outcome.reason }, 'a venue refused an answer');
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
  const threadRef =
    sale.figureId === null
      ? null
      : (
          await database.query<{ thread: string; figure: string }>(
            'select t.ref as thread, f.ref as figure from figures f join offer_threads t on t.id = f.thread_id where f.id = $1',
            [sale.figureId],
          )
        ).rows[0];
  if (sale.toTell === 'agreed' && sale.ref === null && threadRef) {
    const accepted = await link.accept(threadRef.thread, threadRef.figure);
    if (accepted.kind === 'unknown') return venueProblem(accepted);
    if (accepted.kind === 'done')
      await database.query('update sales set ref = $2, to_tell = null where id = $1', [sale.id, accepted.value]);
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
      ? await link.handedOver(sale.ref, sale.authCode)
      : await link.answerSale(sale.ref, sale.toTell === 'refused' ? 'refused' : 'agreed');
  if (outcome.kind === 'unknown') return venueProblem(outcome);
  if (outcome.kind === 'refused') deps.log.warn({ sale: sale.id, reason: outcome.reason }, 'a venue refused an answer');
  await updateSale(database, sale.id, { toTell: null });
  return null;
}

async function tellListing(deps: Deps, venue: VenueRow, link: VenueLink, listing: ListingRow): Promise<string | null> {
  const { database } = deps;
  if (listing.status === 'withdrawing') {
    const gone = await link.withdraw(listing.ascii);
    if (gone.kind === 'unknown') return venueProblem(gone);
    await stepListings(
      database,
      [listing.id],
      gone.kind === 'done' ? { status: 'withdrawn' } : { status: 'live', problem: gone.reason },
      ['withdrawing'],
    );
    return null;
  }
  if (listing.status === 'sending') {
    const {
      ascii: name,
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
    const sent = await link.list({
      name,
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
    });
    if (sent.kind === 'unknown') return venueProblem(sent);
    if (sent.kind === 'refused') {
      await stepListings(database, [listing.id], { status: 'refused', problem: sent.reason }, ['sending']);
      return null;
    }
    await changing(deps, (tx) => takeState(tx, deps, listing, sent.value, ['sending']));
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
    await changing(deps, (tx) => takeState(tx, deps, listing, looked.value, ['unproved']));
  return null;
}

const LOOK_AGAIN_MS = 10 * 60_000;

/** At once when the link has set the record, else every ten minutes: somebody may be setting it by hand. */
function isLookDue({ proofSetAt, proofLookedAt }: ListingRow, now: Instant): boolean {
  const isNew = proofSetAt !== null && (proofLookedAt === null || proofLookedAt < proofSetAt);
  return isNew || proofLookedAt === null || now - proofLookedAt >= LOOK_AGAIN_MS;
}

/** Sets the record that proves ownership by the registrar's link, where the account has one. */
async function setProof(deps: Deps, listing: ListingRow, state: VenueListingState): Promise<void> {
  const link = state.proof && (await linkOf(deps, listing.accountId));
  if (!link || !state.proof) return;
  const set = await link.change(listing.ascii, { text: state.proof.text }, `NL-${randomUUID()}`);
  if (set.kind === 'done') await stepListings(deps.database, [listing.id], { proofSetAt: deps.clock() });
  else deps.log.warn({ name: listing.ascii, set }, 'a proof could not be set by link');
}

/** Asks a venue to look for a proof now, or to take a code that it mailed. Answers a problem, or `null`. */
export async function proveAtVenue(
  deps: Deps,
  listing: ListingRow,
  by: 'txt' | 'mail',
  code: string | null,
): Promise<string | null> {
  const venue = listing.venueId === null ? null : await selectVenue(deps.database, listing.venueId);
  const link = venue && (await venueLink(deps, venue));
  if (!link) return 'This venue has no link that works: prove it there, then note it here.';
  const looked = await link.prove(listing.ascii, by, code);
  if (looked.kind !== 'done') return venueProblem(looked);
  await changing(deps, (tx) => takeState(tx, deps, listing, looked.value, ['unproved']));
  return looked.value.status === 'unproved' ? looked.value.reason : null;
}

/** Takes down how a listing stands at its venue. */
async function takeState(
  tx: Transaction,
  deps: Deps,
  listing: Pick<ListingRow, 'id' | 'nameId' | 'currency' | 'prices' | 'kind'>,
  state: VenueListingState,
  from: Parameters<typeof stepListings>[3],
): Promise<void> {
  await stepListings(
    tx,
    [listing.id],
    {
      status: state.status,
      ...(state.proof ? { proofHost: state.proof.host, proofText: state.proof.text } : {}),
      ...(state.provedBy ? { proofBy: state.provedBy, provedAt: deps.clock() } : {}),
      reviewUntil: state.reviewUntil,
      problem: state.reason,
      ...(state.status === 'live' ? { seenLiveAt: deps.clock() } : {}),
    },
    from,
  );
  if (state.auction && state.status === 'live' && listing.kind === 'auction' && listing.prices.start !== null)
    await insertAuction(tx, {
      listingId: listing.id,
      nameId: listing.nameId,
      atVenue: true,
      currency: listing.currency,
      opensAt: state.auction.opensAt,
      closesAt: state.auction.closesAt,
      startMinor: listing.prices.start,
      reserveMinor: listing.prices.reserve,
      buyNowMinor: listing.prices.buyNow,
      increments: usualIncrements(sellingTerms(null, listing.currency, [], deps.clock()).unitMinor),
    });
}

/** Reads the events of a venue, one transaction each: an event that is taken down twice is taken down once. */
async function readEventsOf(deps: Deps, venue: VenueRow, link: VenueLink): Promise<string | null> {
  let cursor = (await selectVenue(deps.database, venue.id))?.linkCursor ?? venue.linkCursor;
  for (;;) {
    const answer = await link.events(cursor);
    if (answer.kind !== 'done') return venueProblem(answer);
    if (answer.value.length === 0) return null;
    for (const event of answer.value) {
      const taken = await changing(deps, (tx) => takeEvent(tx, deps, venue, event));
      // A sale of which the venue knows before we have heard its number: told first, read later.
      if (!taken) return null;
      cursor = event.id;
    }
  }
}

/** Takes one event down with what follows from it. False when it has to wait. */
async function takeEvent(
  tx: Transaction,
  deps: Deps,
  venue: VenueRow,
  event: VenueEvent | UnreadEvent,
): Promise<boolean> {
  if ('sale' in event && event.kind !== 'purchase' && (await selectSaleByRef(tx, venue.id, event.sale)) === null) {
    const { rows } = await tx.query("select 1 from sales where venue_id = $1 and to_tell = 'agreed' and ref is null", [
      venue.id,
    ]);
    if (rows.length > 0) return false;
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
      if (listing) await takeState(tx, deps, listing, event.state, ['sending', 'unproved', 'in review', 'live']);
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
  const { rows } = await tx.query<{ id: number }>('select id from names where ascii = $1', [ascii]);
  return rows[0]?.id ?? null;
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
  const { rows } = await tx.query<{ id: number }>(
    `insert into sales (name_id, venue_id, ref, how, buyer, price_minor, currency, stage, agreed_at, stage_since, to_tell, note)
     values ($1, $2, $3, $4, $5, $6, $7, 'refused', $8, $8, 'refused', 'promised or sold elsewhere')
     on conflict do nothing returning id`,
    [nameId, venue.id, event.sale, event.how, event.buyer, event.minor, event.currency, new Date(at)],
  );
  const id = rows[0]?.id;
  if (id !== undefined)
    await insertSaleStep(tx, id, { at, stage: 'refused', origin: 'rule', note: 'promised or sold elsewhere' });
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

/** Has a listing's proof looked for, or takes the code that was mailed; by hand it is noted as proved. */
export async function proveListing(deps: Deps, input: unknown): Promise<true | Refusal> {
  const request = await readRequest(ProveListing, input);
  if (isRefusal(request)) return request;
  const listing = await selectListing(deps.database, request.listingId);
  if (!listing) return refuse('listing-unknown', 'This listing is no longer there. Load the page again.');
  if (request.by === 'by hand') {
    await changing(deps, (tx) =>
      stepListings(tx, [listing.id], { proofBy: 'by hand', provedAt: deps.clock(), status: 'in review' }, ['unproved']),
    );
    return true;
  }
  const problem = await proveAtVenue(deps, listing, request.by, request.code ?? null);
  return problem === null ? true : refuse('not-proved', problem, 'code');
}
