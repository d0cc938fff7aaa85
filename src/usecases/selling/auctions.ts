import type { Amount } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import {
  type Auction,
  type AuctionOutcome,
  buyNow,
  costIn,
  lowerReserve,
  type MarketplaceFees,
  outcomeOf,
  placeBid,
  type Standing,
  sellingTerms,
  standingOf,
} from '@/core/selling';
import { dayIn, endOfDay, type Instant, parseDay } from '@/core/time';
import {
  type AuctionRow,
  asAuction,
  closeAuction,
  insertBid,
  lockAuction,
  selectAuction,
  selectDueAuctions,
  standingOfRow,
  updateAuction,
} from '@/database/auctions';
import { attachThread } from '@/database/letters';
import { selectSaleNames, stepListings } from '@/database/listings';
import { selectMarketplace } from '@/database/marketplaces';
import { insertFigure, insertThread } from '@/database/offers';
import type { Transaction } from '@/database/pool';
import { selectRates } from '@/database/rates';
import { selectSalesOf } from '@/database/sales';
import { selectSettings } from '@/database/settings';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { marketplaceLink, marketplaceProblem } from '../marketplaces/marketplaces';
import { command } from '../people/command';
import type { Weighty } from '../people/secondPerson';
import { readRequest } from '../validate';
import { readPrice } from './readPrice';
import { ChangeReserve, EnterBid, OfferToHighest } from './requests';
import { commitSale } from './sales';

export type { AuctionRow } from '@/database/auctions';

/** An auction with what its price is weighed against. */
export interface AuctionView {
  readonly auction: AuctionRow;
  readonly standing: Standing;
  /** What the name has cost, in the auction's currency; `null` when a rate is missing. */
  readonly cost: Amount | null;
  /** `null` when a rate is missing. */
  readonly fees: MarketplaceFees | null;
  readonly unitMinor: number;
  readonly saleId: number | null;
  readonly now: Instant;
}

export async function auctionView(deps: Deps, id: number): Promise<AuctionView | null> {
  const { database } = deps;
  const auction = await selectAuction(database, id);
  if (!auction) return null;
  const [[name], rates, marketplace, sales] = await Promise.all([
    selectSaleNames(database, [auction.nameId]),
    selectRates(database),
    auction.marketplaceId === null ? null : selectMarketplace(database, auction.marketplaceId),
    selectSalesOf(database, auction.nameId),
  ]);
  const now = deps.clock();
  const { fees, unitMinor } = sellingTerms(marketplace, null, auction.currency, rates, now);
  return {
    auction,
    standing: standingOfRow(auction),
    cost: name ? costIn(name.spent, auction.currency, rates, now) : null,
    fees,
    unitMinor,
    saleId: sales.find(({ auctionId }) => auctionId === id)?.id ?? null,
    now,
  };
}

/** Writes how an auction stands by its rules. */
async function write(tx: Transaction, id: number, now: Auction): Promise<void> {
  const { priceMinor, leader, reserveMet } = standingOf(now);
  await updateAuction(tx, id, {
    closesAt: now.closesAt,
    reserveMinor: now.reserveMinor,
    cancelled: now.cancelled,
    boughtBy: now.bought?.bidder ?? null,
    boughtAt: now.bought?.at ?? null,
    priceMinor,
    leader,
    reserveMet,
    nextMinor: null,
  });
}

const UNKNOWN = refuse('auction-unknown', 'This auction is no longer there. Load the page again.');
const AT_MARKETPLACE = refuse(
  'auction-at-marketplace',
  'This auction is held at its marketplace: bids are made there.',
);

/** Enters a bid that was given to the office itself, or a purchase at the buy-now price. Bids come one after the other. */
export const enterBid = command('enterBid', async (deps: Deps, input: unknown): Promise<AuctionRow | Refusal> => {
  const request = await readRequest(EnterBid, input);
  if (isRefusal(request)) return request;
  return changing(deps, async (tx) => {
    const row = await lockAuction(tx, request.auctionId);
    if (!row) return UNKNOWN;
    if (row.atMarketplace) return AT_MARKETPLACE;
    if (row.outcome) return refuse('auction-closed', 'This auction has closed.');
    const max = request.buyNow === true ? null : readPrice(request.max, row.currency, 'max');
    if (isRefusal(max)) return max;
    // Nothing written is no purchase.
    if (max === null && request.buyNow !== true)
      return refuse('price-missing', 'Write the most that is bid, like 1200.', 'max');
    const taken = await takeBid(tx, deps, row, request.bidder, max?.minor ?? null);
    return isRefusal(taken) ? taken : ((await selectAuction(tx, row.id)) as AuctionRow);
  });
});

/** Takes a maximum in an auction of the office that is locked, or a purchase at its buy-now price where `maxMinor` is `null`. */
export async function takeBid(
  tx: Transaction,
  deps: Deps,
  row: AuctionRow,
  bidder: string,
  maxMinor: number | null,
): Promise<true | Refusal> {
  const at = deps.clock();
  const next =
    maxMinor === null ? buyNow(asAuction(row), bidder, at) : placeBid(asAuction(row), { bidder, maxMinor, at });
  if (isRefusal(next)) return next;
  await write(tx, row.id, next);
  if (maxMinor !== null)
    await insertBid(tx, row.id, { bidder, maxMinor, priceMinor: standingOf(next).priceMinor ?? 0, at });
  else await settle(tx, deps, row.id);
  return true;
}

/** Closes an auction when its time has come, at whatever moment that is noticed: only bids before the close were taken. */
async function settle(tx: Transaction, deps: Deps, id: number): Promise<void> {
  const row = await lockAuction(tx, id);
  if (!row || row.outcome || row.atMarketplace) return;
  const outcome = outcomeOf(asAuction(row), deps.clock());
  if (outcome) await endAuction(tx, deps, row, outcome, row.boughtAt ?? row.closesAt);
}

/** Sells a name of an auction of the office at its buy-now price to who has offered as much: the auction ends by it. Answers the sale. */
export async function buyAtAuction(
  tx: Transaction,
  deps: Deps,
  row: AuctionRow,
  offer: { readonly buyer: string; readonly figureId: number; readonly threadId: number },
): Promise<number | Refusal> {
  const next = buyNow(asAuction(row), offer.buyer, deps.clock());
  if (isRefusal(next)) return next;
  await write(tx, row.id, next);
  const outcome = outcomeOf(next, deps.clock()) as AuctionOutcome;
  return (await endAuction(tx, deps, row, outcome, deps.clock(), offer)) ?? UNKNOWN;
}

/** Takes the outcome of an auction down, once; one that sold is a sale. Answers that, or why there is none. */
export async function endAuction(
  tx: Transaction,
  deps: Deps,
  row: AuctionRow,
  outcome: AuctionOutcome,
  at: Instant,
  offer: { readonly figureId: number; readonly threadId: number } | null = null,
): Promise<number | Refusal | null> {
  if (!(await closeAuction(tx, row.id, outcome, at))) return null;
  if (outcome.kind !== 'sold') {
    await stepListings(tx, [row.listingId], { status: outcome.kind === 'cancelled' ? 'withdrawn' : 'ended' }, ['live']);
    return null;
  }
  // At a marketplace the purchase follows as an event of its own.
  if (row.atMarketplace) return null;
  const sale = await commitSale(
    tx,
    deps.clock(),
    {
      nameId: row.nameId,
      marketplaceId: row.marketplaceId,
      listingId: row.listingId,
      figureId: offer?.figureId ?? null,
      auctionId: row.id,
      ref: null,
      how: outcome.how,
      buyer: outcome.to,
      priceMinor: outcome.priceMinor,
      currency: row.currency,
      toTell: null,
    },
    'rule',
    offer?.threadId ?? null,
  );
  // Promised elsewhere in the meantime: the auction has ended and sells nothing.
  if (isRefusal(sale)) await stepListings(tx, [row.listingId], { status: 'ended', problem: sale.message });
  return sale;
}

/** Closes every auction of the office whose time has come, also while nobody looked or the program was down. */
export async function closeDueAuctions(deps: Deps): Promise<number> {
  const due = await selectDueAuctions(deps.database, deps.clock());
  for (const id of due) await changing(deps, (tx) => settle(tx, deps, id));
  return due.length;
}

/** Lowers the reserve of a running auction, or drops it; at a marketplace with a link, there first. */
export const changeReserve = command(
  'changeReserve',
  async (deps: Deps, input: unknown): Promise<AuctionRow | Refusal> => {
    const request = await readRequest(ChangeReserve, input);
    if (isRefusal(request)) return request;
    const row = await selectAuction(deps.database, request.auctionId);
    if (!row) return UNKNOWN;
    const reserve = request.withoutReserve === true ? null : readPrice(request.reserve, row.currency, 'reserve');
    if (isRefusal(reserve)) return reserve;
    if (reserve === null && request.withoutReserve !== true)
      return refuse('price-missing', 'Write the lower reserve, like 1200.', 'reserve');
    const checked = lowerReserve(asAuction(row), reserve?.minor ?? null, deps.clock());
    if (isRefusal(checked)) return checked;
    if (row.atMarketplace) {
      const marketplace = row.marketplaceId === null ? null : await selectMarketplace(deps.database, row.marketplaceId);
      const link = marketplace && (await marketplaceLink(deps, marketplace));
      const done = link ? await link.lowerReserve(row.ascii, reserve?.minor ?? null) : null;
      if (done && done.kind !== 'done') return refuse('marketplace-failed', marketplaceProblem(done));
    }
    return changing(deps, async (tx) => {
      const now = await lockAuction(tx, row.id);
      if (!now) return UNKNOWN;
      const next = lowerReserve(asAuction(now), reserve?.minor ?? null, deps.clock());
      if (isRefusal(next)) return next;
      // What a marketplace shows stays as it shows it.
      if (now.atMarketplace) await updateAuction(tx, row.id, { ...now, reserveMinor: next.reserveMinor });
      else await write(tx, row.id, next);
      return (await selectAuction(tx, row.id)) as AuctionRow;
    });
  },
);

/** What is offered to the highest bidder is sold when he takes it: that wants a second person. */
async function weightOfOffer(deps: Deps, input: unknown): Promise<Weighty | null> {
  const request = await readRequest(OfferToHighest, input);
  const row = isRefusal(request) ? null : await selectAuction(deps.database, request.auctionId);
  if (isRefusal(request) || !row) return null;
  const what = `Offer ${row.ascii} to the highest bidder for ${request.amount} ${row.currency}`;
  return { what, isGrave: true, spendsMinor: 0 };
}

/** Offers a name that did not sell to the highest bidder: a thread that begins with the owner's figure. Answers its id. */
export const offerToHighest = command(
  'offerToHighest',
  async (deps: Deps, input: unknown): Promise<number | Refusal> => {
    const request = await readRequest(OfferToHighest, input);
    if (isRefusal(request)) return request;
    const row = await selectAuction(deps.database, request.auctionId);
    const outcome = row?.outcome;
    if (!row || outcome?.kind !== 'unsold' || outcome.highest === null)
      return refuse('no-highest-bidder', 'Nobody bid on it: there is no one to offer it to.');
    const highest = outcome.highest;
    const price = readPrice(request.amount, row.currency, 'amount');
    if (isRefusal(price)) return price;
    const { zone } = await selectSettings(deps.database);
    const day = parseDay(request.until);
    if (price === null) return refuse('price-invalid', 'Write your figure, like 1200.', 'amount');
    if (!day || day < dayIn(deps.clock(), zone))
      return refuse('date-out-of-range', 'Write the last day on which it stands, like 2026-12-09.', 'until');
    const lapsesAt = endOfDay(day, zone);
    const marketplace =
      row.atMarketplace && row.marketplaceId !== null
        ? await selectMarketplace(deps.database, row.marketplaceId)
        : null;
    const link = marketplace && (await marketplaceLink(deps, marketplace));
    // The key makes it one offer, however often it is sent.
    const told = link ? await link.offerTo(row.ascii, `auction ${row.id}`, price.minor, lapsesAt) : null;
    if (told && told.kind !== 'done') return refuse('marketplace-failed', marketplaceProblem(told));
    return changing(deps, async (tx) => {
      const threadId = await insertThread(
        tx,
        {
          nameId: row.nameId,
          marketplaceId: told ? row.marketplaceId : null,
          ref: told?.kind === 'done' ? told.value : null,
          buyer: highest,
          contact: '',
          currency: row.currency,
          note: 'Highest bidder of an auction that did not sell',
        },
        deps.clock(),
      );
      await insertFigure(tx, threadId, { by: 'owner', minor: price.minor, at: deps.clock(), lapsesAt, ref: null });
      await attachThread(tx, row.id, highest, threadId);
      return threadId;
    });
  },
  weightOfOffer,
);
