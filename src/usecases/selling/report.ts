import { type Amount, sumIn } from '@/core/money';
import {
  AGENDA_KINDS,
  type AgendaItem,
  type AgendaKind,
  costIn,
  HANDOVER_DAYS,
  orderAgenda,
  soldBy,
  turnAt,
} from '@/core/selling';
import { addDays, dayOf, earliestAt, earliestEnd, HOUR_MS, type Instant } from '@/core/time';
import { type AuctionRow, selectAuctions, selectUnsold } from '@/database/auctions';
import {
  countListings,
  type ListingRow,
  type NameOnSale,
  selectListings,
  selectListingsToWatch,
  selectNameOnSale,
  selectNeverListed,
  selectSaleNames,
  type WatchedListing,
} from '@/database/listings';
import { type MarketplaceRow, selectMarketplaces } from '@/database/marketplaces';
import { selectThreads, type ThreadRow } from '@/database/offers';
import { selectRates } from '@/database/rates';
import { type SaleRow, selectSales, selectSalesOf } from '@/database/sales';
import { selectSettings } from '@/database/settings';
import type { Deps } from '../deps';

/** What awaits the owner of one kind: how much, and the most urgent of it. */
export interface AgendaGroup {
  readonly kind: AgendaKind;
  readonly total: number;
  readonly items: readonly AgendaItem[];
}

/** What Selling shows: what awaits the owner first. */
export interface SellingReport {
  readonly agenda: readonly AgendaGroup[];
  readonly threads: readonly ThreadRow[];
  readonly auctions: readonly AuctionRow[];
  readonly sales: readonly SaleRow[];
  readonly listed: number;
}

/** So much of each kind is shown. */
const MOST_ITEMS = 50;
/** The handover, in days, and so many more that an end of which only the day is known may lie earlier. */
const WATCHED_DAYS = HANDOVER_DAYS + 2;
const CLOSING_DAYS = 3;
const SEEN_AGAIN_DAYS = 30;
const NEVER_LISTED = 20;
/** Days in which a listing should be proved or mended, and an unsold name offered to who bid most. */
const PROOF_DAYS = 3;
const UNSOLD_DAYS = 7;

export async function sellingReport(deps: Deps): Promise<SellingReport> {
  const { agenda, ...rest } = await wholeReport(deps);
  return {
    ...rest,
    agenda: byKind(agenda, MOST_ITEMS),
  };
}

function byKind(agenda: readonly AgendaItem[], most: number): AgendaGroup[] {
  return AGENDA_KINDS.flatMap((kind) => {
    const all = agenda.filter((item) => item.kind === kind);
    return all.length === 0 ? [] : [{ kind, total: all.length, items: all.slice(0, most) }];
  });
}

async function wholeReport(deps: Deps): Promise<Omit<SellingReport, 'agenda'> & { agenda: readonly AgendaItem[] }> {
  const { database } = deps;
  const now = deps.clock();
  const [listings, listed, threads, auctions, unsold, sales, marketplaces, never, settings, rates] = await Promise.all([
    selectListingsToWatch(database, addDays(now, WATCHED_DAYS)),
    countListings(database),
    selectThreads(database, null),
    selectAuctions(database, null),
    selectUnsold(database),
    selectSales(database, 'open'),
    selectMarketplaces(database),
    selectNeverListed(database, NEVER_LISTED),
    selectSettings(database),
    selectRates(database),
  ]);
  const byId = new Map(marketplaces.map((marketplace) => [marketplace.id, marketplace]));
  const agenda = [
    ...threads.flatMap((thread) => offerToAnswer(thread, now)),
    ...sales.flatMap(saleAtTurn),
    ...listings.flatMap((listing) => listingItems(listing, byId.get(listing.marketplaceId ?? -1) ?? null, now)),
    ...auctions.filter(({ closesAt }) => closesAt < addDays(now, CLOSING_DAYS)).map(auctionClosing),
    ...unsold.map(
      (auction): AgendaItem => ({
        ...nameOf(auction),
        kind: 'auction unsold',
        by: auction.closedAt === null ? null : addDays(auction.closedAt, UNSOLD_DAYS),
        minor: auction.priceMinor,
        currency: auction.currency,
        who: auction.outcome?.kind === 'unsold' ? (auction.outcome.highest ?? '') : '',
        about: { kind: 'auction', id: auction.id },
      }),
    ),
    ...never.map((name): AgendaItem => {
      const cost = sumIn(name.spent, settings.homeCurrency, rates, dayOf(now));
      return {
        ...nameOf(name),
        kind: 'never listed',
        // Before it costs again.
        by: name.termEnd === null ? null : earliestEnd(name.termEnd),
        minor: cost?.minor ?? null,
        currency: cost?.currency ?? null,
        who: name.account,
        about: { kind: 'price' },
      };
    }),
  ];
  return { agenda: orderAgenda(agenda), threads, auctions, sales, listed };
}

const nameOf = ({ nameId, ascii, unicode }: Pick<AgendaItem, 'nameId' | 'ascii' | 'unicode'>) => ({
  nameId,
  ascii,
  unicode,
  asking: null,
});

function offerToAnswer(thread: ThreadRow, now: Instant): AgendaItem[] {
  const live = thread.figures.findLast(({ state }) => state === 'live');
  if (thread.state !== 'open' || live?.by !== 'buyer' || (live.lapsesAt !== null && live.lapsesAt <= now)) return [];
  return [
    {
      ...nameOf(thread),
      kind: 'offer to answer',
      by: live.lapsesAt,
      minor: live.minor,
      currency: thread.currency,
      asking: thread.asking,
      who: thread.buyer,
      about: { kind: 'offer', id: thread.id },
    },
  ];
}

/** Sales where the owner has to act, or the marketplace has not been told; where no marketplace stands between, the owner does its part. */
function saleAtTurn(sale: SaleRow): AgendaItem[] {
  const turn = turnAt(sale.stage);
  const isOwners = turn === 'owner' || sale.stage === 'dispute' || (!sale.linked && turn !== 'nobody');
  return isOwners
    ? [
        {
          ...nameOf(sale),
          kind: 'handover',
          by: sale.dueAt,
          minor: sale.priceMinor,
          currency: sale.currency,
          who: sale.buyer,
          about: { kind: 'sale', id: sale.id, stage: sale.stage },
        },
      ]
    : [];
}

function listingItems(listing: WatchedListing, marketplace: MarketplaceRow | null, now: Instant): AgendaItem[] {
  const item = (kind: AgendaItem['kind'], by: Instant | null): AgendaItem => ({
    ...nameOf(listing),
    kind,
    by,
    minor: listing.askedMinor,
    currency: listing.currency,
    who: listing.marketplace ?? 'the office',
    about: { kind: 'listings' },
  });
  const items: AgendaItem[] = [];
  const sent = listing.sentAt ?? listing.madeAt;
  if (listing.status === 'unproved' && listing.linked) items.push(item('proof missing', addDays(sent, PROOF_DAYS)));
  if (listing.status === 'refused') items.push(item('listing refused', addDays(sent, PROOF_DAYS)));
  if (marketplace && !listing.linked && ['unproved', 'live'].includes(listing.status)) {
    const reviewed = listing.sentAt === null ? now : ((listing.sentAt + marketplace.reviewHours * HOUR_MS) as Instant);
    const again = listing.seenLiveAt === null ? reviewed : addDays(listing.seenLiveAt, SEEN_AGAIN_DAYS);
    if (again <= now) items.push(item('to be seen live', again));
  }
  const isOffered = ['sending', 'unproved', 'in review', 'live'].includes(listing.status);
  const end = listing.termEndsAt === null ? null : earliestAt(listing.termEndsAt, listing.termEndDay);
  if (isOffered && end !== null && end < soldBy(listing, marketplace, now)) items.push(item('term too short', end));
  return items;
}

function auctionClosing(auction: AuctionRow): AgendaItem {
  return {
    ...nameOf(auction),
    kind: 'auction closing',
    by: auction.closesAt,
    minor: auction.priceMinor ?? auction.startMinor,
    currency: auction.currency,
    who: auction.marketplace ?? 'the office',
    about: { kind: 'auction', id: auction.id },
  };
}

/** Everything that awaits the owner in selling, the most urgent first. */
export async function sellingAgenda(deps: Deps): Promise<readonly AgendaItem[]> {
  return (await wholeReport(deps)).agenda;
}

const TODAY_ITEMS = 10;

/** What awaits the owner in selling, for Today: how much there is of each kind, and the most urgent of it. */
export async function sellingToday(deps: Deps): Promise<readonly AgendaGroup[]> {
  return byKind(await sellingAgenda(deps), TODAY_ITEMS);
}

/** Everything of selling about one name. */
export interface NameSelling extends NameOnSale {
  readonly listings: readonly ListingRow[];
  readonly threads: readonly ThreadRow[];
  readonly auctions: readonly AuctionRow[];
  readonly sales: readonly SaleRow[];
  readonly cost: Amount | null;
}

export async function sellingOf(deps: Deps, ascii: string): Promise<NameSelling | null> {
  const { database } = deps;
  const name = await selectNameOnSale(database, ascii);
  if (!name) return null;
  const [listings, threads, auctions, sales, [costs], rates, settings] = await Promise.all([
    selectListings(database, [name.nameId]),
    selectThreads(database, [name.nameId]),
    selectAuctions(database, [name.nameId]),
    selectSalesOf(database, name.nameId),
    selectSaleNames(database, [name.nameId]),
    selectRates(database),
    selectSettings(database),
  ]);
  const cost = costs ? costIn(costs.spent, settings.homeCurrency, rates, deps.clock()) : null;
  return { ...name, listings, threads, auctions, sales, cost };
}
