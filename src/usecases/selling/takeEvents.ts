import type { MarketplaceEvent, MarketplaceLink, UnreadEvent } from '@/connectors/marketplace/port';
import { isRefusal } from '@/core/refusal';
import type { Instant } from '@/core/time';
import { insertBid, lockAuction, selectAuctions, updateAuction } from '@/database/auctions';
import { selectListingAt } from '@/database/listings';
import {
  insertMarketplaceEvent,
  type MarketplaceRow,
  noteMarketplace,
  selectMarketplace,
} from '@/database/marketplaces';
import { selectNameIds } from '@/database/names';
import { selectThreadByRef, setFigure, setThread } from '@/database/offers';
import type { Transaction } from '@/database/pool';
import { hasUnnamedSale, insertRefusedSale, lockSale, selectSaleByRef, updateSale } from '@/database/sales';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { marketplaceProblem } from '../marketplaces/marketplaces';
import { endAuction } from './auctions';
import { withdrawThread } from './offers';
import { receiveOffer } from './receiveOffer';
import { bringTo, commitSale, leaveSale } from './sales';
import { takeState } from './sendListings';

/** So many pages are read at a time, of however many events a marketplace has to tell. */
const MOST_PAGES = 100;

/** Reads the events of a marketplace, one transaction each: an event that is taken down twice is taken down once. */
export async function readEventsOf(
  deps: Deps,
  marketplace: MarketplaceRow,
  link: MarketplaceLink,
): Promise<string | null> {
  let cursor = (await selectMarketplace(deps.database, marketplace.id))?.linkCursor ?? marketplace.linkCursor;
  for (let page = 0; page < MOST_PAGES; page += 1) {
    const answer = await link.events(cursor);
    if (answer.kind !== 'done') return marketplaceProblem(answer);
    if (answer.value.length === 0) return null;
    for (const event of answer.value) {
      // Its numbers rise: a marketplace that repeats itself would be followed for ever.
      if (event.id <= cursor)
        return `The marketplace repeats itself: event ${event.id} came again after ${cursor}. Tell its people; what came before is taken down.`;
      const taken = await changing(deps, (tx) => takeEvent(tx, deps, marketplace, event));
      // A sale of which the marketplace knows before we have heard its number: told first, read later.
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
  marketplace: MarketplaceRow,
  event: MarketplaceEvent | UnreadEvent,
): Promise<boolean> {
  if (
    'sale' in event &&
    event.kind !== 'purchase' &&
    (await selectSaleByRef(tx, marketplace.id, event.sale)) === null
  ) {
    if (await hasUnnamedSale(tx, marketplace.id)) return false;
  }
  if (await insertMarketplaceEvent(tx, marketplace.id, event)) await apply(tx, deps, marketplace, event);
  await noteMarketplace(tx, marketplace.id, { at: deps.clock(), cursor: event.id, problem: null });
  return true;
}

async function apply(
  tx: Transaction,
  deps: Deps,
  marketplace: MarketplaceRow,
  event: MarketplaceEvent | UnreadEvent,
): Promise<void> {
  switch (event.kind) {
    case 'unread':
      deps.log.warn(
        { marketplace: marketplace.id, event: event.id },
        'an event of a marketplace could not be understood',
      );
      return;
    case 'listing': {
      const listing = await selectListingAt(tx, marketplace.id, event.state.name);
      if (listing)
        await takeState(tx, deps, marketplace, listing, event.state, ['sending', 'unproved', 'in review', 'live']);
      return;
    }
    case 'offer': {
      const nameId = await nameIdOf(tx, event.name);
      if (nameId === null) return;
      const thread = await selectThreadByRef(tx, marketplace.id, event.thread);
      await receiveOffer(tx, deps, {
        nameId,
        marketplaceId: marketplace.id,
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
      const thread = await selectThreadByRef(tx, marketplace.id, event.thread);
      if (!thread || thread.state === 'accepted') return;
      return withdrawThread(tx, thread);
    }
    case 'bid':
      return takeBid(tx, marketplace, event);
    case 'closed': {
      const found = await auctionOf(tx, marketplace.id, event.name);
      if (found) await endAuction(tx, deps, found, event.outcome, event.at);
      return;
    }
    case 'purchase':
      return takePurchase(tx, deps, marketplace, event);
    default:
      return takeSaleEvent(tx, deps, marketplace, event);
  }
}

async function nameIdOf(tx: Transaction, ascii: string): Promise<number | null> {
  return (await selectNameIds(tx, [ascii])).get(ascii) ?? null;
}

async function auctionOf(tx: Transaction, marketplaceId: number, ascii: string) {
  const nameId = await nameIdOf(tx, ascii);
  const all = nameId === null ? [] : await selectAuctions(tx, [nameId]);
  return all.find((one) => one.marketplaceId === marketplaceId && one.outcome === null) ?? null;
}

async function takeBid(
  tx: Transaction,
  marketplace: MarketplaceRow,
  event: MarketplaceEvent & { kind: 'bid' },
): Promise<void> {
  const found = await auctionOf(tx, marketplace.id, event.name);
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

/** Somebody takes a name at a marketplace. It is agreed to, unless the name is promised or sold: then it is refused there. */
async function takePurchase(
  tx: Transaction,
  deps: Deps,
  marketplace: MarketplaceRow,
  event: MarketplaceEvent & { kind: 'purchase' },
): Promise<void> {
  const nameId = await nameIdOf(tx, event.name);
  if (nameId === null) return;
  const at = deps.clock() as Instant;
  const listing = await selectListingAt(tx, marketplace.id, event.name);
  const thread = event.thread === null ? null : await selectThreadByRef(tx, marketplace.id, event.thread);
  const figure = thread?.figures.findLast(({ state, by }) => state === 'live' && by === 'owner') ?? null;
  const closed = event.how === 'offer' ? [] : await selectAuctions(tx, [nameId]);
  const auctionId =
    closed.findLast((one) => one.marketplaceId === marketplace.id && one.outcome?.kind === 'sold')?.id ?? null;
  const sale = {
    nameId,
    marketplaceId: marketplace.id,
    listingId: listing?.id ?? null,
    figureId: figure?.id ?? null,
    auctionId,
    ref: event.sale,
    how: event.how,
    buyer: event.buyer,
    priceMinor: event.minor,
    currency: event.currency,
  };
  const committed = await commitSale(tx, at, { ...sale, toTell: 'agreed' }, 'marketplace', thread?.id ?? null);
  if (!isRefusal(committed)) {
    if (figure && thread) {
      await setFigure(tx, figure.id, 'accepted');
      await setThread(tx, thread.id, 'accepted');
    }
    return;
  }
  await insertRefusedSale(tx, sale, at, 'promised or sold elsewhere');
}

type SaleEvent = Extract<MarketplaceEvent, { sale: string }>;

async function takeSaleEvent(
  tx: Transaction,
  deps: Deps,
  marketplace: MarketplaceRow,
  event: Exclude<SaleEvent, { kind: 'purchase' }>,
): Promise<void> {
  const found = await selectSaleByRef(tx, marketplace.id, event.sale);
  const sale = found && (await lockSale(tx, found.id));
  if (!sale) return;
  switch (event.kind) {
    case 'paid':
      await bringTo(tx, deps, sale, 'money held', 'marketplace');
      return;
    case 'buyer':
      await updateSale(tx, sale.id, { handover: event.handover, buyerAccount: event.account });
      await bringTo(tx, deps, sale, 'buyer known', 'marketplace');
      return;
    case 'arrived':
      await bringTo(tx, deps, sale, 'arrived', 'marketplace');
      return;
    case 'released':
      await updateSale(tx, sale.id, { commissionMinor: event.commissionMinor, feesMinor: event.feesMinor });
      await bringTo(
        tx,
        deps,
        { ...sale, commissionMinor: event.commissionMinor, feesMinor: event.feesMinor },
        'done',
        'marketplace',
      );
      return;
    case 'not paid':
      await leaveSale(tx, deps, sale, 'not paid', 'marketplace');
      return;
    case 'dispute':
      await leaveSale(tx, deps, sale, 'dispute', 'marketplace', event.note);
  }
}
