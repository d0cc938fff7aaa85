import { wholeUnit } from '@/core/money';
import { isRefusal, type Refusal } from '@/core/refusal';
import { answerByRule, askedPrice, type Offered, receive } from '@/core/selling';
import { addDays, type Instant } from '@/core/time';
import { type AuctionRow, asAuction, lockRunningAuctions } from '@/database/auctions';
import { type ListingRow, selectListings } from '@/database/listings';
import {
  insertFigure,
  insertThread,
  lockThread,
  noteBestOffers,
  setFigure,
  setThread,
  type ThreadRow,
} from '@/database/offers';
import type { Transaction } from '@/database/pool';
import { selectSettings } from '@/database/settings';
import type { Deps } from '../deps';
import { buyAtAuction } from './auctions';
import { commitSale } from './sales';

/** A buyer's figure, from wherever it came. */
export interface Incoming {
  readonly nameId: number;
  readonly marketplaceId: number | null;
  readonly threadId: number | null;
  readonly threadRef: string | null;
  readonly figureRef: string | null;
  readonly buyer: string;
  readonly contact: string;
  readonly minor: number;
  readonly currency: string;
  readonly lapsesAt: Instant | null;
  readonly note: string;
  /** When it was made. */
  readonly at: Instant;
}

/** The listing that an offer is about: that of its marketplace, else the first that stands. */
export function listingFor(listings: readonly ListingRow[], marketplaceId: number | null): ListingRow | null {
  return listings.find((listing) => listing.marketplaceId === marketplaceId) ?? listings[0] ?? null;
}

/**
 * Takes a buyer's figure down and answers it where a rule says how: below the minimum it is declined, from the buy-now price on
 * it is a purchase at that price, and the office's own rule may accept or counter. Beside an auction with bids nothing is answered.
 */
export async function receiveOffer(tx: Transaction, deps: Deps, offer: Incoming): Promise<number> {
  const { at } = offer;
  const threadId = offer.threadId ?? (await insertThread(tx, { ...offer, ref: offer.threadRef }, at));
  const thread = (await lockThread(tx, threadId)) as ThreadRow;
  const figureId = await insertFigure(tx, threadId, {
    by: 'buyer',
    minor: offer.minor,
    at,
    lapsesAt: offer.lapsesAt,
    ref: offer.figureRef,
    note: offer.note,
  });
  await setThread(tx, threadId, 'open');
  const listing = listingFor(await selectListings(tx, [offer.nameId]), offer.marketplaceId);
  const isAtMarketplace = thread.ref !== null;
  const offered: Offered | null = listing && listing.currency === offer.currency ? listing : null;
  const running = await lockRunningAuctions(tx, offer.nameId);
  const auction =
    running.find((one) => one.bids.length > 0) ?? running.find((one) => one.listingId === listing?.id) ?? null;
  const reception =
    offered === null ? { kind: 'open' as const } : receive(offer.minor, offered, auction && asAuction(auction));
  // At an auction, and where nothing is listed, the owner answers.
  if (reception.kind === 'declined' && offered?.prices.minimum != null) {
    await setFigure(tx, figureId, 'declined', isAtMarketplace ? 'decline' : null);
    await setThread(tx, threadId, 'declined');
  } else if (reception.kind === 'purchase' && !isAtMarketplace) {
    await buy(tx, deps, thread, figureId, reception.minor, listing, auction);
  } else if (auction === null) await answerRuled(tx, deps, thread, figureId, offer.minor, listing);
  await noteBestOffers(tx, [offer.nameId]);
  return threadId;
}

/** Sells at the buy-now price: where that is the price of an auction of the office, the auction ends by it. */
async function buy(
  tx: Transaction,
  deps: Deps,
  thread: ThreadRow,
  figureId: number,
  priceMinor: number,
  listing: ListingRow | null,
  auction: AuctionRow | null,
): Promise<void> {
  if (!auction || auction.atMarketplace || auction.listingId !== listing?.id) {
    await accept(tx, deps, thread, figureId, priceMinor, 'rule', listing);
    return;
  }
  const { buyer } = thread;
  if (isRefusal(await buyAtAuction(tx, deps, auction, { buyer, figureId, threadId: thread.id }))) return;
  await setFigure(tx, figureId, 'accepted');
  await setThread(tx, thread.id, 'accepted');
}

async function answerRuled(
  tx: Transaction,
  deps: Deps,
  thread: ThreadRow,
  figureId: number,
  minor: number,
  listing: ListingRow | null,
): Promise<void> {
  const { answerRule } = await selectSettings(tx);
  if (!answerRule || listing?.currency !== thread.currency || listing.kind === 'auction') return;
  const hasCountered = thread.figures.some(({ byRule }) => byRule);
  const answer = answerByRule(answerRule, minor, askedPrice(listing), hasCountered, wholeUnit(thread.currency));
  if (answer?.kind === 'accept') await accept(tx, deps, thread, figureId, minor, 'rule', listing);
  if (answer?.kind === 'counter')
    await insertFigure(tx, thread.id, {
      by: 'owner',
      minor: answer.minor,
      at: deps.clock(),
      lapsesAt: addDays(deps.clock(), answerRule.counterDays),
      ref: null,
      byRule: true,
      tell: thread.ref !== null,
    });
}

/** Accepts a figure: the name is committed first. When it is promised already the thread waits. */
export async function accept(
  tx: Transaction,
  deps: Deps,
  thread: ThreadRow,
  figureId: number,
  priceMinor: number,
  origin: 'by hand' | 'rule' | 'buyer',
  listing: ListingRow | null,
): Promise<number | Refusal> {
  const sale = await commitSale(
    tx,
    deps.clock(),
    {
      nameId: thread.nameId,
      marketplaceId: thread.marketplaceId,
      listingId: listing && listing.marketplaceId === thread.marketplaceId ? listing.id : null,
      figureId,
      auctionId: null,
      ref: null,
      how: 'offer',
      buyer: thread.buyer,
      priceMinor,
      currency: thread.currency,
      toTell: thread.ref === null ? null : 'agreed',
    },
    origin,
    thread.id,
  );
  if (isRefusal(sale)) {
    if (sale.code === 'name-promised') await setThread(tx, thread.id, 'waiting');
    return sale;
  }
  await setFigure(tx, figureId, 'accepted');
  await setThread(tx, thread.id, 'accepted');
  return sale;
}
