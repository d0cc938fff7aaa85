import { createHash } from 'node:crypto';
import type { MarketplaceListing, MarketplaceListingState } from '@/connectors/marketplace/port';
import { currencyDigits } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import { type Auction, checkListing, liveFigure, lowerReserve, type MarketplaceRules, outcomeOf } from '@/core/selling';
import { formatInstant, HOUR_MS, type Instant } from '@/core/time';
import { beginTransfer } from '../world/moving';
import type { Ms, World } from '../world/types';
import type { Market, MarketListing, MarketSale, MarketThread } from './types';

export const MARKETPLACE_TITLE = 'Cordage Hall';
/** The rules of the practice marketplace. */
export const MARKETPLACE_RULES: MarketplaceRules = {
  currencies: ['USD', 'EUR'],
  wholeUnits: true,
  auctionDays: [4, 10, 21],
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

/** Something that this marketplace does not do, with the reason that it tells. */
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

export const at = (ms: Ms) => formatInstant(ms as Instant);
const hash = (text: string) => createHash('sha256').update(text).digest();
/** A number from 0 to 1 that is always the same for a text. */
export function chanceOf(text: string): number {
  return hash(text).readUInt32BE(0) / 2 ** 32;
}

export function tellEvent(world: World, ms: Ms, kind: string, more: object): void {
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
export function list(world: World, sent: MarketplaceListing): MarketListing {
  const before = world.market.listings[sent.name];
  const renewed = before && !['withdrawn', 'ended', 'sold'].includes(before.status) ? before : null;
  if (renewed && isRunning(renewed.auction) && !renewed.closed)
    throw new MarketRefusal('Somebody has bid on it: only the reserve can still be lowered.');
  const unitMinor = 10 ** currencyDigits(sent.currency);
  const [wrong] = checkListing({
    offered: sent,
    costMinor: 0,
    unitMinor,
    marketplace: MARKETPLACE_RULES,
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
  return world.now + (6 + chanceOf(`${name} review`) * (MARKETPLACE_RULES.reviewHours - 6)) * HOUR_MS;
}

/** The name is proved to be the office's: its listing goes into review. */
export function prove(world: World, name: string, by: NonNullable<MarketplaceListingState['provedBy']>): MarketListing {
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
  const lowered = listing.auction && lowerReserve(listing.auction, reserveMinor, world.now as Instant);
  if (!lowered || isRefusal(lowered)) throw new MarketRefusal(lowered ? lowered.message : 'There is no auction of it.');
  listing.auction = lowered;
}

export function addFigure(
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

export function newThread(world: World, listing: MarketListing, buyer: string): MarketThread {
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

export function tellOffer(world: World, thread: MarketThread, figureId: number): void {
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
export function purchase(
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
    beginTransfer(world, domain, { to, holder: sale.buyer });
  }
  world.market.due.push({ at: world.now + 30 * HOUR_MS, what: 'sale', sale: sale.id, from: 'handed over' });
}
