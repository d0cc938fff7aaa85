import { createHash } from 'node:crypto';
import type { VenueListing, VenueListingState } from '@/connectors/venue/port';
import { currencyDigits } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import {
  type Auction,
  buyNow,
  buyPrice,
  checkListing,
  closingAt,
  liveFigure,
  lowerReserve,
  outcomeOf,
  placeBid,
  receive,
  standingOf,
  usualIncrements,
  type VenueRules,
} from '@/core/selling';
import { formatInstant, HOUR_MS, type Instant } from '@/core/time';
import { DAY } from '../world/calendar';
import { OFFICE } from '../world/domain';
import type { Ms, World } from '../world/types';
import type { BuyerAct, Buyers, Market, MarketListing, MarketSale, MarketStage, MarketThread } from './types';

/** The rules of the practice venue. */
export const VENUE_TITLE = 'Cordage Hall';
export const VENUE_RULES: VenueRules = {
  currencies: ['USD', 'EUR'],
  wholeUnits: true,
  auctionDays: [3, 7, 14, 30],
  reviewHours: 72,
  payoutSet: true,
  fees: {
    percent: 15,
    floorMinor: 2500,
    steps: [{ fromMinor: 500_000, percent: 10 }],
    saleFeeMinor: 0,
    listingFeeMinor: 0,
  },
};

/** What this venue keeps, worked out its own way: fifteen in a hundred, ten of what lies above 5,000, at least 25. */
function keptOf(minor: number): number {
  const low = Math.min(minor, 500_000);
  const kept = Math.round((low * 15) / 100 + ((minor - low) * 10) / 100);
  return Math.min(minor, Math.max(2500, kept));
}

/** Something that this venue does not do, with the reason that it tells. */
export class MarketRefusal extends Error {}

export function emptyMarket(): Market {
  return {
    nextId: 1,
    plannedDay: 0,
    events: [],
    listings: {},
    threads: {},
    sales: {},
    due: [],
    paidOut: {},
  };
}

const at = (ms: Ms) => formatInstant(ms as Instant);
const hash = (text: string) => createHash('sha256').update(text).digest();

/** A number from 0 to 1 that is always the same for a text. */
export function chanceOf(text: string): number {
  return hash(text).readUInt32BE(0) / 2 ** 32;
}

function tellEvent(world: World, ms: Ms, kind: string, more: object): void {
  const { market } = world;
  market.events.push({ id: market.events.length + 1, at: at(ms), kind, ...more });
}

/** How a listing stands, as it is told. */
export function stateOf(listing: MarketListing): object {
  return {
    name: listing.name,
    status: listing.status,
    proof: listing.provedBy === null ? { host: listing.name, text: listing.code } : null,
    provedBy: listing.provedBy,
    reviewUntil: listing.reviewUntil === null ? null : at(listing.reviewUntil),
    reason: listing.reason,
    auction: listing.auction && { opensAt: at(listing.auction.opensAt), closesAt: at(listing.auction.closesAt) },
  };
}

const listingOf = ({ market }: World, name: string): MarketListing => {
  const listing = market.listings[name];
  if (!listing) throw new MarketRefusal('There is no such listing here.');
  return listing;
};

const isRunning = (auction: Auction | null) => auction !== null && auction.bids.length > 0;

/** Takes a listing, or a change of one. A name that was sold or withdrawn begins anew. */
export function list(world: World, sent: VenueListing): MarketListing {
  const before = world.market.listings[sent.name];
  const renewed = before && !['withdrawn', 'ended', 'sold'].includes(before.status) ? before : null;
  if (renewed && isRunning(renewed.auction) && !renewed.closed)
    throw new MarketRefusal('Somebody has bid on it: only the reserve can still be lowered.');
  const unitMinor = 10 ** currencyDigits(sent.currency);
  const [wrong] = checkListing({
    offered: sent,
    costMinor: 0,
    unitMinor,
    venue: VENUE_RULES,
    pitch: sent.pitch,
    description: sent.description,
    now: world.now as Instant,
    termEnd: null,
    lockedUntil: null,
    atAccount: true,
  }).filter(({ stops }) => stops);
  if (wrong) throw new MarketRefusal(`Not taken: ${wrong.code}${wrong.price ? ` (${wrong.price})` : ''}.`);
  const proved = renewed?.provedBy ?? null;
  const listing: MarketListing = {
    ...sent,
    code:
      renewed?.code ??
      `proof=${hash(`${sent.name} ${world.market.nextId++}`)
        .toString('hex')
        .slice(0, 24)}`,
    status: proved === null ? 'unproved' : 'in review',
    provedBy: proved,
    reviewUntil: proved === null ? null : reviewEnd(world, sent.name),
    reason: null,
    auction: null,
    closed: false,
  };
  world.market.listings[sent.name] = listing;
  return listing;
}

/** A review takes from a few hours to 72. */
function reviewEnd(world: World, name: string): Ms {
  return world.now + (6 + chanceOf(`${name} review`) * (VENUE_RULES.reviewHours - 6)) * HOUR_MS;
}

/** The name is proved to be the office's: its listing goes into review. */
export function prove(world: World, name: string, by: NonNullable<VenueListingState['provedBy']>): MarketListing {
  const listing = listingOf(world, name);
  if (listing.status !== 'unproved') return listing;
  listing.provedBy = by;
  listing.status = 'in review';
  listing.reviewUntil = reviewEnd(world, name);
  tellEvent(world, world.now, 'listing', { state: stateOf(listing) });
  return listing;
}

/** Says why a listing stays unproved. */
export function notProved(world: World, name: string, reason: string): MarketListing {
  const listing = listingOf(world, name);
  listing.reason = reason;
  return listing;
}

export function withdraw(world: World, name: string): void {
  const listing = listingOf(world, name);
  if (listing.status === 'live' && isRunning(listing.auction) && !listing.closed)
    throw new MarketRefusal('Somebody has bid on it: the auction runs to its close.');
  listing.status = 'withdrawn';
  for (const thread of Object.values(world.market.threads)) if (thread.name === name) thread.open = false;
}

export function lowerTheReserve(world: World, name: string, reserveMinor: number | null): void {
  const listing = listingOf(world, name);
  const lowered = listing.auction && lowerReserve(listing.auction, reserveMinor);
  if (!lowered || isRefusal(lowered)) throw new MarketRefusal(lowered ? lowered.message : 'There is no auction of it.');
  listing.auction = lowered;
}

function addFigure(
  world: World,
  thread: MarketThread,
  by: 'buyer' | 'owner',
  minor: number,
  ms: Ms,
  lapsesAt: Ms | null,
  key: string | null,
): number {
  const id = world.market.nextId++;
  for (const [i, figure] of thread.figures.entries())
    if (figure.state === 'live') thread.figures[i] = { ...figure, state: 'voided' };
  thread.figures.push({ id, key, by, minor, at: ms as Instant, lapsesAt: lapsesAt as Instant | null, state: 'live' });
  return id;
}

function offer(world: World, listing: MarketListing, act: BuyerAct & { do: 'offer' }): void {
  const received = receive(act.minor, listing);
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

function newThread(world: World, listing: MarketListing, buyer: string): MarketThread {
  const thread: MarketThread = {
    id: world.market.nextId++,
    name: listing.name,
    buyer,
    currency: listing.currency,
    figures: [],
    open: true,
    sale: null,
  };
  world.market.threads[thread.id] = thread;
  return thread;
}

function tellOffer(world: World, thread: MarketThread, figureId: number): void {
  const figure = thread.figures.find(({ id }) => id === figureId);
  if (!figure) return;
  tellEvent(world, figure.at, 'offer', {
    name: thread.name,
    thread: String(thread.id),
    figure: String(figureId),
    buyer: thread.buyer,
    minor: figure.minor,
    currency: thread.currency,
    lapsesAt: figure.lapsesAt === null ? null : at(figure.lapsesAt),
  });
}

/** Somebody takes the name: a sale once the seller agrees. */
function purchase(
  world: World,
  listing: Pick<MarketListing, 'name' | 'currency'>,
  buyer: string,
  minor: number,
  how: MarketSale['how'],
  thread: number | null,
  ms: Ms,
): MarketSale {
  const sale: MarketSale = {
    id: world.market.nextId++,
    name: listing.name,
    buyer,
    minor,
    currency: listing.currency,
    how,
    thread,
    stage: 'to agree',
    since: ms,
    handover: null,
    account: null,
  };
  world.market.sales[sale.id] = sale;
  // It is kept for who came first, until the seller has answered.
  const shown = world.market.listings[sale.name];
  if (shown) shown.status = 'sold';
  tellEvent(world, ms, 'purchase', {
    name: sale.name,
    sale: String(sale.id),
    how,
    thread: thread === null ? null : String(thread),
    buyer,
    minor,
    currency: sale.currency,
  });
  return sale;
}

const threadOf = ({ market }: World, id: string): MarketThread => {
  const thread = market.threads[id];
  if (!thread) throw new MarketRefusal('There is no such thread here.');
  return thread;
};

/** The owner accepts the buyer's figure. Answered the same way when it is asked again. */
export function accept(world: World, id: string, figureId: string): MarketSale {
  const thread = threadOf(world, id);
  if (thread.sale !== null) return world.market.sales[thread.sale] as MarketSale;
  const figure = thread.figures.find((one) => String(one.id) === figureId);
  const live = liveFigure(thread.figures, world.now as Instant);
  if (!thread.open || !figure || figure !== live || figure.by !== 'buyer')
    throw new MarketRefusal('This figure is no longer on the table.');
  thread.figures[thread.figures.indexOf(figure)] = { ...figure, state: 'accepted' };
  const sale: MarketSale = {
    id: world.market.nextId++,
    name: thread.name,
    buyer: thread.buyer,
    minor: figure.minor,
    currency: thread.currency,
    how: 'offer',
    thread: thread.id,
    stage: 'to agree',
    since: world.now,
    handover: null,
    account: null,
  };
  thread.sale = sale.id;
  thread.open = false;
  world.market.sales[sale.id] = sale;
  agree(world, sale);
  return sale;
}

/** The owner names a figure; the buyer answers within two days. The same key is taken once. */
export function counter(world: World, id: string, key: string, minor: number, lapsesAt: Ms | null): void {
  const thread = threadOf(world, id);
  if (thread.figures.some((figure) => figure.key === key)) return;
  if (!thread.open) throw new MarketRefusal('This thread is closed.');
  const figure = addFigure(world, thread, 'owner', minor, world.now, lapsesAt, key);
  const hours = 4 + 40 * chanceOf(`${thread.name} ${thread.buyer} ${figure}`);
  world.market.due.push({ at: world.now + hours * HOUR_MS, what: 'reply', thread: thread.id, figure });
}

export function decline(world: World, id: string): void {
  const thread = threadOf(world, id);
  thread.open = false;
}

/** Offers a name to who bid most when its reserve was not met. */
export function offerToHighest(world: World, name: string, key: string, minor: number, lapsesAt: Ms): MarketThread {
  const listing = listingOf(world, name);
  const outcome = listing.auction && outcomeOf(listing.auction, world.now as Instant);
  if (outcome?.kind !== 'unsold' || outcome.highest === null)
    throw new MarketRefusal('There is nobody to offer it to.');
  const { highest } = outcome;
  const known = Object.values(world.market.threads).find((one) => one.figures.some((figure) => figure.key === key));
  const thread = known ?? newThread(world, listing, highest);
  counter(world, String(thread.id), key, minor, lapsesAt);
  return thread;
}

function agree(world: World, sale: MarketSale): void {
  sale.stage = 'agreed';
  sale.since = world.now;
  const listing = world.market.listings[sale.name];
  if (listing) listing.status = 'sold';
  world.market.due.push({
    at: world.now + (8 + 60 * chanceOf(`${sale.name} ${sale.buyer} pays`)) * HOUR_MS,
    what: 'sale',
    sale: sale.id,
    from: 'agreed',
  });
}

const saleOf = ({ market }: World, id: string): MarketSale => {
  const sale = market.sales[id];
  if (!sale) throw new MarketRefusal('There is no such sale here.');
  return sale;
};

/** The seller agrees to a purchase, or does not: the name may be promised elsewhere. */
export function answerSale(world: World, id: string, answer: 'agreed' | 'refused'): void {
  const sale = saleOf(world, id);
  if (sale.stage !== 'to agree') {
    const same = answer === 'refused' ? sale.stage === 'refused' : sale.stage !== 'refused';
    if (same) return;
    if (answer === 'refused' && ['agreed', 'paid', 'buyer known'].includes(sale.stage)) sale.stage = 'refused';
    else throw new MarketRefusal('This sale has been answered already.');
    return;
  }
  if (answer === 'agreed') agree(world, sale);
  else {
    sale.stage = 'refused';
    sale.since = world.now;
  }
}

/** The seller says that the name was handed over; a transfer is asked for with the code at the buyer's registrar. */
export function handedOver(world: World, id: string, code: string | null): void {
  const sale = saleOf(world, id);
  if (['handed over', 'arrived', 'released'].includes(sale.stage)) return;
  if (sale.stage !== 'buyer known') throw new MarketRefusal('It is not the time to hand over.');
  sale.stage = 'handed over';
  sale.since = world.now;
  const domain = world.domains.get(sale.name);
  const to = sale.account ?? '';
  if (sale.handover === 'transfer' && domain && code === domain.authInfo && !domain.lock && domain.registrar !== to) {
    domain.transfer = { to, askedAt: world.now, passesAt: world.now + 5 * DAY, holder: sale.buyer };
    world.touched.domains.add(domain.name);
  }
  world.market.due.push({ at: world.now + 30 * HOUR_MS, what: 'sale', sale: sale.id, from: 'handed over' });
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
  const { priceMinor, leader, reserveMet } = standingOf(next);
  if (what.do === 'bid')
    tellEvent(world, what.at, 'bid', {
      name,
      bid: String(next.bids.length),
      bidder: what.buyer,
      priceMinor,
      leader,
      reserveMet,
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

/** A review is over: the listing is shown, an auction opens. */
function passReview(world: World, listing: MarketListing): void {
  const ms = listing.reviewUntil as number;
  listing.reviewUntil = null;
  if (listing.adult) {
    listing.status = 'refused';
    listing.reason = 'This venue shows nothing that is for adults only.';
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
        bids: [],
        bought: null,
        cancelled: false,
      };
  }
  tellEvent(world, ms, 'listing', { state: stateOf(listing) });
}

/** Lets everything happen at the venue that is due up to `end`, in its order. */
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
