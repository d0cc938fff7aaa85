import { wholeUnit } from '@/core/money';
import {
  type Auction,
  type AuctionOutcome,
  type BuyNowEnd,
  type Increment,
  type Standing,
  standingAsShown,
  standingOf,
} from '@/core/selling';
import type { Instant } from '@/core/time';
import type { Queryable, Transaction } from './pool';

export interface BidRow {
  readonly id: number;
  readonly bidder: string;
  readonly maxMinor: number | null;
  readonly priceMinor: number;
  readonly at: Instant;
}

/** An auction of a name, held by the office or followed at a marketplace. */
export interface AuctionRow {
  readonly id: number;
  readonly listingId: number;
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly marketplaceId: number | null;
  readonly marketplace: string | null;
  readonly atMarketplace: boolean;
  readonly currency: string;
  readonly opensAt: Instant;
  readonly closesAt: Instant;
  readonly startMinor: number;
  readonly reserveMinor: number | null;
  readonly buyNowMinor: number | null;
  readonly increments: readonly Increment[];
  readonly wholeUnits: boolean;
  readonly extensionMinutes: number;
  readonly buyNowEnds: BuyNowEnd;
  /** The least next bid, where a marketplace names one. */
  readonly nextMinor: number | null;
  readonly cancelled: boolean;
  readonly boughtBy: string | null;
  readonly boughtAt: Instant | null;
  readonly priceMinor: number | null;
  readonly leader: string | null;
  readonly reserveMet: boolean;
  readonly outcome: AuctionOutcome | null;
  readonly closedAt: Instant | null;
  readonly bids: readonly BidRow[];
}

const AUCTION = `
  select a.id, a.listing_id as "listingId", a.name_id as "nameId", n.ascii, n."unicode", l.marketplace_id as "marketplaceId", v.label as marketplace,
    a.at_marketplace as "atMarketplace", a.currency, a.opens_at as "opensAt", a.closes_at as "closesAt", a.start_minor as "startMinor",
    a.reserve_minor as "reserveMinor", a.buy_now_minor as "buyNowMinor", a.increments, a.whole_units as "wholeUnits",
    a.extension_minutes as "extensionMinutes", a.buy_now_ends as "buyNowEnds", a.next_minor as "nextMinor", a.cancelled, a.bought_by as "boughtBy",
    a.bought_at as "boughtAt", a.price_minor as "priceMinor", a.leader, a.reserve_met as "reserveMet", a.outcome, a.closed_at as "closedAt",
    coalesce((select json_agg(json_build_object('id', b.id, 'bidder', b.bidder, 'maxMinor', b.max_minor, 'priceMinor', b.price_minor,
      'at', extract(epoch from b.at) * 1000) order by b.id) from bids b where b.auction_id = a.id), '[]') as bids
  from auctions a join names n on n.id = a.name_id join listings l on l.id = a.listing_id left join marketplaces v on v.id = l.marketplace_id`;

export async function selectAuctions(db: Queryable, nameIds: readonly number[] | null): Promise<AuctionRow[]> {
  const { rows } = await db.query<AuctionRow>(
    `${AUCTION} where ($1::int[] is null and a.outcome is null) or a.name_id = any($1) order by a.closes_at`,
    [nameIds],
  );
  return rows;
}

export async function selectAuction(db: Queryable, id: number): Promise<AuctionRow | null> {
  return (await db.query<AuctionRow>(`${AUCTION} where a.id = $1`, [id])).rows[0] ?? null;
}

/** Auctions that closed unsold with a highest bidder, to whom nothing has been offered since. */
export async function selectUnsold(db: Queryable): Promise<AuctionRow[]> {
  const { rows } = await db.query<AuctionRow>(
    `${AUCTION} where a.outcome->>'kind' = 'unsold' and a.outcome->>'highest' is not null and n.gone_at is null
       and not exists (select from offer_threads t where t.name_id = a.name_id and t.made_at >= a.closed_at)
       and not exists (select from listings o where o.name_id = a.name_id and o.made_at > a.closed_at)
       and not exists (select from sales s where s.name_id = a.name_id and s.agreed_at >= a.closed_at)
     order by a.closed_at desc`,
  );
  return rows;
}

/** Locks an auction's row, and its name before it as every sale does: events come one after the other. */
export async function lockAuction(tx: Transaction, id: number): Promise<AuctionRow | null> {
  await tx.query('select 1 from names n join auctions a on a.name_id = n.id where a.id = $1 for no key update of n', [
    id,
  ]);
  await tx.query('select 1 from auctions where id = $1 for update', [id]);
  return selectAuction(tx, id);
}

/** Locks a name with its auctions that are not over. Answers them: while one of them has bids, nothing sells beside it. */
export async function lockRunningAuctions(tx: Transaction, nameId: number): Promise<AuctionRow[]> {
  await tx.query('select 1 from names where id = $1 for no key update', [nameId]);
  await tx.query('select 1 from auctions where name_id = $1 and outcome is null for update', [nameId]);
  const { rows } = await tx.query<AuctionRow>(`${AUCTION} where a.name_id = $1 and a.outcome is null order by a.id`, [
    nameId,
  ]);
  return rows;
}

/** Ids of the office's own auctions that are to be closed by now. */
export async function selectDueAuctions(db: Queryable, at: Instant): Promise<number[]> {
  const { rows } = await db.query<{ id: number }>(
    'select id from auctions where outcome is null and not at_marketplace and closes_at <= $1 order by closes_at, id',
    [new Date(at)],
  );
  return rows.map(({ id }) => id);
}

export type AuctionDraft = Pick<
  AuctionRow,
  | 'listingId'
  | 'nameId'
  | 'atMarketplace'
  | 'currency'
  | 'opensAt'
  | 'closesAt'
  | 'startMinor'
  | 'reserveMinor'
  | 'buyNowMinor'
  | 'increments'
  | 'wholeUnits'
  | 'extensionMinutes'
  | 'buyNowEnds'
>;

/** Opens auctions; one that is open already takes over close and reserve. */
export async function insertAuctions(tx: Transaction, auctions: readonly AuctionDraft[]): Promise<void> {
  if (auctions.length === 0) return;
  await tx.query(
    `insert into auctions (listing_id, name_id, at_marketplace, currency, opens_at, closes_at, start_minor, reserve_minor, buy_now_minor, increments,
       whole_units, extension_minutes, buy_now_ends)
     select "listingId", "nameId", "atMarketplace", currency, to_timestamp("opensAt" / 1000.0), to_timestamp("closesAt" / 1000.0), "startMinor",
       "reserveMinor", "buyNowMinor", increments, "wholeUnits", "extensionMinutes", "buyNowEnds"
     from jsonb_to_recordset($1::jsonb) as a("listingId" int, "nameId" int, "atMarketplace" boolean, currency text, "opensAt" float8, "closesAt" float8,
       "startMinor" int8, "reserveMinor" int8, "buyNowMinor" int8, increments jsonb, "wholeUnits" boolean,
       "extensionMinutes" int, "buyNowEnds" text)
     on conflict (listing_id) do update set closes_at = excluded.closes_at, reserve_minor = excluded.reserve_minor`,
    [JSON.stringify(auctions)],
  );
}

/** Cancels the open auctions of listings that are taken off offer, which nobody has bid in. */
export async function cancelAuctions(tx: Transaction, listingIds: readonly number[], at: Instant): Promise<void> {
  await tx.query(
    `update auctions set cancelled = true, outcome = '{"kind":"cancelled"}', closed_at = $2 where listing_id = any($1) and outcome is null`,
    [listingIds, new Date(at)],
  );
}

/** Writes how an auction stands after an event. */
export async function updateAuction(
  tx: Transaction,
  id: number,
  now: Pick<
    AuctionRow,
    | 'closesAt'
    | 'reserveMinor'
    | 'cancelled'
    | 'boughtBy'
    | 'boughtAt'
    | 'priceMinor'
    | 'leader'
    | 'reserveMet'
    | 'nextMinor'
  >,
): Promise<void> {
  await tx.query(
    `update auctions set closes_at = $2, reserve_minor = $3, cancelled = $4, bought_by = $5, bought_at = $6, price_minor = $7, leader = $8,
       reserve_met = $9, next_minor = $10 where id = $1`,
    [
      id,
      new Date(now.closesAt),
      now.reserveMinor,
      now.cancelled,
      now.boughtBy,
      now.boughtAt === null ? null : new Date(now.boughtAt),
      now.priceMinor,
      now.leader,
      now.reserveMet,
      now.nextMinor,
    ],
  );
}

/** Closes an auction, once. False when it was closed before. */
export async function closeAuction(
  tx: Transaction,
  id: number,
  outcome: AuctionOutcome,
  at: Instant,
): Promise<boolean> {
  const { rowCount } = await tx.query(
    'update auctions set outcome = $2, closed_at = $3 where id = $1 and outcome is null',
    [id, JSON.stringify(outcome), new Date(at)],
  );
  return rowCount === 1;
}

export async function insertBid(
  tx: Transaction,
  auctionId: number,
  bid: Pick<BidRow, 'bidder' | 'maxMinor' | 'priceMinor' | 'at'> & { readonly ref?: string | null },
): Promise<void> {
  await tx.query(
    `insert into bids (auction_id, bidder, max_minor, price_minor, at, ref) values ($1, $2, $3, $4, $5, $6) on conflict do nothing`,
    [auctionId, bid.bidder, bid.maxMinor, bid.priceMinor, new Date(bid.at), bid.ref ?? null],
  );
}

/** The auction as the rules read it. Bids at a marketplace have no maximum: their shown price stands for it. */
export function asAuction(row: AuctionRow): Auction {
  return {
    opensAt: row.opensAt,
    closesAt: row.closesAt,
    seller: 'the office',
    startMinor: row.startMinor,
    reserveMinor: row.reserveMinor,
    buyNowMinor: row.buyNowMinor,
    increments: row.increments,
    unitMinor: row.wholeUnits ? wholeUnit(row.currency) : 1,
    extensionMinutes: row.extensionMinutes,
    buyNowEnds: row.buyNowEnds,
    bids: row.bids.map(({ bidder, maxMinor, priceMinor, at }) => ({ bidder, maxMinor: maxMinor ?? priceMinor, at })),
    bought: row.boughtBy !== null && row.boughtAt !== null ? { bidder: row.boughtBy, at: row.boughtAt } : null,
    cancelled: row.cancelled,
  };
}

/** How an auction stands: by its bids, or as its marketplace shows it. */
export function standingOfRow(row: AuctionRow): Standing {
  return row.atMarketplace ? standingAsShown(asAuction(row), row) : standingOf(asAuction(row));
}
