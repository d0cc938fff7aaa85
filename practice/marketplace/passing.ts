import { currencyDigits } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import {
  buyNow,
  buyPrice,
  closingAt,
  liveFigure,
  outcomeOf,
  placeBid,
  receive,
  standingOf,
  USUAL_AUCTION,
  usualIncrements,
} from '@/core/selling';
import { HOUR_MS, type Instant } from '@/core/time';
import { DAY } from '../world/calendar';
import { OFFICE } from '../world/domain';
import type { Ms, World } from '../world/types';
import { addFigure, at, chanceOf, newThread, purchase, stateOf, tellEvent, tellOffer } from './market';
import type { BuyerAct, Buyers, MarketListing, MarketSale, MarketStage } from './types';

/** What this marketplace keeps, worked out its own way: fifteen in a hundred, ten of what lies above 5,000, at least 25. */
function keptOf(minor: number): number {
  const low = Math.min(minor, 500_000);
  const kept = Math.round((low * 15) / 100 + ((minor - low) * 10) / 100);
  return Math.min(minor, Math.max(2500, kept));
}

function offer(world: World, listing: MarketListing, act: BuyerAct & { do: 'offer' }): void {
  const received = receive(act.minor, listing, listing.auction ?? null);
  if (received.kind === 'purchase')
    return void purchase(world, listing, act.buyer, received.minor, 'buy now', null, act.at);
  if (received.kind === 'declined') return;
  const known = Object.values(world.market.threads).find(
    (thread) => thread.name === listing.name && thread.buyer === act.buyer && thread.open,
  );
  const thread = known ?? newThread(world, listing, act.buyer);
  const figure = addFigure(world, thread, 'buyer', act.minor, act.at, act.at + act.days * DAY, null);
  tellOffer(world, thread, figure);
}

/** A sale goes on by itself: the buyer pays or does not, names an account, looks whether the name has come; the money is released. */
function saleGoesOn(world: World, buyers: Buyers, sale: MarketSale, from: MarketStage, ms: Ms): void {
  if (sale.stage !== from) return;
  const go = (stage: MarketStage, kind: string, more: object = {}, nextHours: number | null = null) => {
    sale.stage = stage;
    sale.since = ms;
    tellEvent(world, ms, kind, { sale: String(sale.id), ...more });
    if (nextHours !== null)
      world.market.due.push({ at: ms + nextHours * HOUR_MS, what: 'sale', sale: sale.id, from: stage });
  };
  switch (from) {
    case 'agreed':
      if (buyers.pays(sale.buyer)) {
        go('paid', 'paid', {}, 12);
        return;
      }
      if (ms - sale.since < 7 * DAY) {
        world.market.due.push({ at: sale.since + 7 * DAY, what: 'sale', sale: sale.id, from });
        return;
      }
      go('not paid', 'not paid');
      return;
    case 'paid': {
      const domain = world.domains.get(sale.name);
      const others = [...world.registrars.keys()].filter((id) => id !== domain?.registrar);
      const handover = chanceOf(`${sale.name} handover`) < 0.7 ? 'push' : 'transfer';
      sale.handover = handover;
      sale.account =
        handover === 'push'
          ? `${sale.buyer.toLowerCase().replace(/\W+/g, '-')}-account`
          : (others[Math.floor(chanceOf(sale.name) * others.length)] as string);
      go('buyer known', 'buyer', { handover, account: sale.account });
      return;
    }
    case 'handed over': {
      const domain = world.domains.get(sale.name);
      if (domain?.owner === 'stranger' && domain.holder === sale.buyer) {
        go('arrived', 'arrived', {}, 20);
        return;
      }
      world.market.due.push({ at: ms + DAY, what: 'sale', sale: sale.id, from });
      return;
    }
    case 'arrived': {
      const commissionMinor = keptOf(sale.minor);
      const feesMinor = 0;
      const proceedsMinor = sale.minor - commissionMinor;
      world.market.paidOut[sale.currency] = (world.market.paidOut[sale.currency] ?? 0) + proceedsMinor;
      go('released', 'released', { commissionMinor, feesMinor, proceedsMinor });
      return;
    }
    default:
  }
}

function act(world: World, name: string, what: BuyerAct): void {
  const listing = world.market.listings[name];
  if (listing?.status !== 'live') return;
  if (what.do === 'offer') {
    offer(world, listing, what);
    return;
  }
  const price = buyPrice(listing);
  if (!listing.auction) {
    if (what.do === 'buy' && price !== null) purchase(world, listing, what.buyer, price, 'buy now', null, what.at);
    return;
  }
  const next =
    what.do === 'buy'
      ? buyNow(listing.auction, what.buyer, what.at as Instant)
      : placeBid(listing.auction, { bidder: what.buyer, maxMinor: what.maxMinor, at: what.at as Instant });
  if (isRefusal(next)) return;
  listing.auction = next;
  const { priceMinor, leader, reserveMet, leastMinor } = standingOf(next);
  if (what.do === 'bid')
    tellEvent(world, what.at, 'bid', {
      name,
      bid: String(next.bids.length),
      bidder: what.buyer,
      priceMinor,
      leader,
      reserveMet,
      nextMinor: leastMinor,
      closesAt: at(next.closesAt),
    });
}

function reply(world: World, buyers: Buyers, threadId: number, figureId: number, ms: Ms): void {
  const thread = world.market.threads[threadId];
  const live = thread && liveFigure(thread.figures, ms as Instant);
  if (!thread?.open || !live || !('id' in live) || live.id !== figureId) return;
  const said = buyers.reply(world.market.listings[thread.name], thread, live.minor);
  if (said.do === 'accept') {
    thread.open = false;
    const sale = purchase(world, thread, thread.buyer, live.minor, 'offer', thread.id, ms);
    thread.sale = sale.id;
  } else if (said.do === 'decline') {
    thread.open = false;
    tellEvent(world, ms, 'declined', { thread: String(thread.id) });
  } else tellOffer(world, thread, addFigure(world, thread, 'buyer', said.minor, ms, ms + 7 * DAY, null));
}

/** The auction of a listing closes: sold to the leader, or unsold. */
function close(world: World, listing: MarketListing): void {
  const { auction } = listing;
  const outcome = auction && outcomeOf(auction, auction.closesAt);
  if (!auction || !outcome) return;
  listing.closed = true;
  listing.status = outcome.kind === 'sold' ? 'sold' : 'ended';
  const ms = outcome.kind === 'sold' && auction.bought ? auction.bought.at : auction.closesAt;
  tellEvent(world, ms, 'closed', { name: listing.name, outcome });
  if (outcome.kind === 'sold') purchase(world, listing, outcome.to, outcome.priceMinor, outcome.how, null, ms);
}

/** The attribute by which a listing is refused here. */
const ADULTS_ONLY = 'For adults only (18+)';

/** A review is over: the listing is shown, an auction opens. */
function passReview(world: World, listing: MarketListing): void {
  const ms = listing.reviewUntil as number;
  listing.reviewUntil = null;
  if (listing.attributes[ADULTS_ONLY] === 'yes') {
    listing.status = 'refused';
    listing.reason = 'This marketplace shows nothing that is for adults only.';
  } else {
    listing.status = 'live';
    if (listing.kind === 'auction')
      listing.auction = {
        opensAt: ms as Instant,
        closesAt: closingAt(ms as Instant, listing.auctionDays),
        seller: OFFICE,
        startMinor: listing.prices.start ?? 1,
        reserveMinor: listing.prices.reserve,
        buyNowMinor: listing.prices.buyNow,
        increments: usualIncrements(10 ** currencyDigits(listing.currency)),
        unitMinor: 10 ** currencyDigits(listing.currency),
        ...USUAL_AUCTION,
        bids: [],
        bought: null,
        cancelled: false,
      };
  }
  tellEvent(world, ms, 'listing', { state: stateOf(listing) });
}

/** Lets everything happen at the marketplace that is due up to `end`, in its order. */
export function marketPasses(world: World, buyers: Buyers, end: Ms): void {
  const { market } = world;
  for (;;) {
    const day = Math.floor(end / DAY);
    const coming: { at: Ms; happen: () => void }[] = [];
    for (const listing of Object.values(market.listings)) {
      if (listing.status === 'in review' && listing.reviewUntil !== null)
        coming.push({ at: listing.reviewUntil, happen: () => passReview(world, listing) });
      const { auction } = listing;
      if (auction && !listing.closed && listing.status === 'live')
        coming.push({ at: auction.bought?.at ?? auction.closesAt, happen: () => close(world, listing) });
    }
    for (const due of market.due)
      coming.push({
        at: due.at,
        happen: () => {
          market.due = market.due.filter((one) => one !== due);
          if (due.what === 'act') act(world, due.name, due.act);
          else if (due.what === 'reply') reply(world, buyers, due.thread, due.figure, due.at);
          else saleGoesOn(world, buyers, market.sales[due.sale] as MarketSale, due.from, due.at);
        },
      });
    // Each day the buyers are asked once what they will do in it.
    if (market.plannedDay < day)
      coming.push({
        at: Math.max(day * DAY, 0),
        happen: () => {
          market.plannedDay = day;
          for (const listing of Object.values(market.listings))
            if (listing.status === 'live')
              for (const one of buyers.acts(listing, day * DAY))
                market.due.push({ at: one.at, what: 'act', name: listing.name, act: one });
        },
      });
    const next = coming.filter(({ at: when }) => when <= end).sort((a, b) => a.at - b.at)[0];
    if (!next) return;
    next.happen();
  }
}
