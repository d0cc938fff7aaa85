import {
  askedFirst,
  FAILED_STAGES,
  LEAVING_LISTINGS,
  LISTING_KINDS,
  type ListingStatus,
  type ListingTerms,
  MOST_BIDS_TO_CANCEL,
  OVER_LISTINGS,
  PRICE_NAMES,
  type PriceName,
  type PriceReasons,
  STANDING_LISTINGS,
  TOLD_LISTINGS,
  UNSEEN_LISTINGS,
} from '@/core/selling';
import type { Day, Instant, TermEnd } from '@/core/time';
import { oneOf, word } from './oneOf';
import type { Queryable, Transaction } from './pool';

/** What the owner says of a listing, with whose it is and where. */
export interface ListingDraft extends ListingTerms {
  readonly nameId: number;
  readonly marketplaceId: number | null;
  readonly reasons: PriceReasons;
}

/** A listing as it stands. */
export interface ListingRow extends ListingDraft {
  readonly id: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly accountId: number;
  readonly marketplace: string | null;
  readonly linked: boolean;
  readonly status: ListingStatus;
  readonly proofHost: string | null;
  readonly proofText: string | null;
  readonly proofBy: 'txt' | 'mail' | 'account' | 'by hand' | null;
  readonly proofSetAt: Instant | null;
  readonly proofLookedAt: Instant | null;
  readonly provedAt: Instant | null;
  readonly reviewUntil: Instant | null;
  readonly seenLiveAt: Instant | null;
  readonly problem: string | null;
  /** The end of the name's term. */
  readonly termEnd: TermEnd | null;
  readonly madeAt: Instant;
  readonly sentAt: Instant | null;
}

const COLUMN: Readonly<Record<PriceName, string>> = {
  minimum: 'minimum_minor',
  start: 'start_minor',
  reserve: 'reserve_minor',
  asking: 'asking_minor',
  buyNow: 'buy_now_minor',
};
/** The price that counts as asked, of a row of listings `l`. */
export const ASKED = `case l.kind ${LISTING_KINDS.map(
  (kind) =>
    `when '${kind}' then coalesce(${askedFirst(kind)
      .map((price) => `l.${COLUMN[price]}`)
      .join(', ')})`,
).join(' ')} end`;

const LISTING = `
  select l.id, l.name_id as "nameId", n.ascii, n."unicode", n.account_id as "accountId", l.marketplace_id as "marketplaceId", v.label as marketplace,
    v.link_url is not null as linked, l.kind, l.currency,
    json_build_object('minimum', l.minimum_minor, 'start', l.start_minor, 'reserve', l.reserve_minor, 'asking', l.asking_minor,
      'buyNow', l.buy_now_minor) as prices,
    l.reasons, l.auction_days as "auctionDays", l.reserve_shown as "reserveShown", l.with_site as "withSite", l.categories, l.pitch,
    l.description, l.attributes, l.status, l.proof_host as "proofHost", l.proof_text as "proofText",
    l.proof_by as "proofBy", l.proof_set_at as "proofSetAt", l.proof_looked_at as "proofLookedAt", l.proved_at as "provedAt", l.review_until as "reviewUntil",
    case when n.term_end is null then null else
      json_build_object('at', extract(epoch from n.term_end) * 1000, 'precision', case when n.term_end_day then 'day' else 'instant' end) end as "termEnd",
    l.seen_live_at as "seenLiveAt", l.problem, l.made_at as "madeAt", l.sent_at as "sentAt"
  from listings l join names n on n.id = l.name_id left join marketplaces v on v.id = l.marketplace_id`;

const status = word<ListingStatus>;

/** Listings that are not over. */
const CURRENT = `l.status not ${oneOf(OVER_LISTINGS)} and n.gone_at is null`;

export async function selectListings(db: Queryable, nameIds: readonly number[] | null): Promise<ListingRow[]> {
  const { rows } = await db.query<ListingRow>(
    `${LISTING} where ${CURRENT} and ($1::int[] is null or l.name_id = any($1)) order by n.ascii, l.id`,
    [nameIds],
  );
  return rows;
}

export async function selectListing(db: Queryable, id: number): Promise<ListingRow | null> {
  return (await db.query<ListingRow>(`${LISTING} where l.id = $1`, [id])).rows[0] ?? null;
}

export async function selectListingsById(db: Queryable, ids: readonly number[]): Promise<ListingRow[]> {
  return (await db.query<ListingRow>(`${LISTING} where l.id = any($1)`, [ids])).rows;
}

/** The current listing of a name at a marketplace. */
export async function selectListingAt(db: Queryable, marketplaceId: number, ascii: string): Promise<ListingRow | null> {
  const { rows } = await db.query<ListingRow>(
    `${LISTING} where l.marketplace_id = $1 and n.ascii = $2 and l.status not ${oneOf(OVER_LISTINGS)}`,
    [marketplaceId, ascii],
  );
  return rows[0] ?? null;
}

/** What of a listing says whether it needs the owner. */
export interface WatchedListing
  extends Pick<
    ListingRow,
    | 'nameId'
    | 'ascii'
    | 'unicode'
    | 'marketplaceId'
    | 'marketplace'
    | 'linked'
    | 'kind'
    | 'auctionDays'
    | 'currency'
    | 'status'
    | 'madeAt'
    | 'sentAt'
    | 'seenLiveAt'
  > {
  readonly askedMinor: number | null;
  readonly termEndsAt: Instant | null;
  /** Only the date of the term's end is known. */
  readonly termEndDay: boolean;
}

/**
 * Listings that may need the owner: not proved, refused, kept at a marketplace by hand, or with a term that may end before a sale is
 * handed over. `handedOver` is when that would be without the marketplace's review and an auction, which come on top.
 */
export async function selectListingsToWatch(db: Queryable, handedOver: Instant): Promise<WatchedListing[]> {
  const { rows } = await db.query<WatchedListing>(
    `select l.name_id as "nameId", n.ascii, n."unicode", l.marketplace_id as "marketplaceId", v.label as marketplace, v.link_url is not null as linked,
       l.kind, l.auction_days as "auctionDays", l.currency, l.status, l.made_at as "madeAt", l.sent_at as "sentAt", l.seen_live_at as "seenLiveAt",
       ${ASKED} as "askedMinor", n.term_end as "termEndsAt", n.term_end_day as "termEndDay"
     from listings l join names n on n.id = l.name_id left join marketplaces v on v.id = l.marketplace_id
     where ${CURRENT} and (l.status ${oneOf(UNSEEN_LISTINGS)} or (l.marketplace_id is not null and v.link_url is null)
       or n.term_end < $1::timestamptz + make_interval(hours => coalesce(v.review_hours, 0), days => case when l.kind = 'auction' then l.auction_days else 0 end))
     order by n.ascii, l.id`,
    [new Date(handedOver)],
  );
  return rows;
}

export async function countListings(db: Queryable): Promise<number> {
  const { rows } = await db.query<{ n: number }>(
    `select count(*) as n from listings l join names n on n.id = l.name_id where ${CURRENT}`,
  );
  return rows[0]?.n ?? 0;
}

/** Listings in some states at marketplaces with a link. */
export async function selectLinkedListings(db: Queryable, states: readonly ListingStatus[]): Promise<ListingRow[]> {
  const { rows } = await db.query<ListingRow>(
    `${LISTING} where v.link_url is not null and l.status = any($1) order by l.id`,
    [states],
  );
  return rows;
}

/**
 * Writes listings: a name's current one at its marketplace is changed, else one is made. Those that stand at the marketplace are sent again.
 * Answers the ids in the order of the names.
 */
export async function upsertListings(
  tx: Transaction,
  drafts: readonly ListingDraft[],
  at: Instant,
): Promise<{ id: number; nameId: number }[]> {
  const flat = drafts.map(({ prices, ...draft }) => ({
    ...draft,
    ...Object.fromEntries(PRICE_NAMES.map((name) => [name, prices[name]])),
  }));
  const { rows } = await tx.query<{ id: number; nameId: number }>(
    `insert into listings (name_id, marketplace_id, kind, currency, minimum_minor, start_minor, reserve_minor, asking_minor, buy_now_minor, reasons,
       auction_days, reserve_shown, with_site, categories, pitch, description, attributes, made_at)
     select d."nameId", d."marketplaceId", d.kind, d.currency, d.minimum, d.start, d.reserve, d.asking, d."buyNow", d.reasons, d."auctionDays",
       d."reserveShown", d."withSite", array(select jsonb_array_elements_text(d.categories)), d.pitch, d.description, d.attributes, $2
     from jsonb_to_recordset($1::jsonb) as d("nameId" int, "marketplaceId" int, kind text, currency text, minimum int8, start int8, reserve int8,
       asking int8, "buyNow" int8, reasons jsonb, "auctionDays" int, "reserveShown" boolean, "withSite" boolean, categories jsonb, pitch text,
       description text, attributes jsonb)
     on conflict (name_id, coalesce(marketplace_id, 0)) where status not ${oneOf(OVER_LISTINGS)} do update set
       kind = excluded.kind, currency = excluded.currency, minimum_minor = excluded.minimum_minor, start_minor = excluded.start_minor,
       reserve_minor = excluded.reserve_minor, asking_minor = excluded.asking_minor, buy_now_minor = excluded.buy_now_minor,
       reasons = listings.reasons || excluded.reasons, auction_days = excluded.auction_days, reserve_shown = excluded.reserve_shown,
       with_site = excluded.with_site, categories = excluded.categories, pitch = excluded.pitch, description = excluded.description,
       attributes = excluded.attributes,
       status = case when listings.status ${oneOf(TOLD_LISTINGS)} and exists
           (select from marketplaces v where v.id = listings.marketplace_id and v.link_url is not null) then ${status('sending')} else listings.status end
     returning id, name_id as "nameId"`,
    [JSON.stringify(flat), new Date(at)],
  );
  return rows;
}

/** Columns of a listing that change as it goes its way. */
export interface ListingStep {
  readonly status?: ListingStatus;
  readonly proofHost?: string | null;
  readonly proofText?: string | null;
  readonly proofBy?: ListingRow['proofBy'];
  readonly proofSetAt?: Instant | null;
  readonly proofLookedAt?: Instant | null;
  readonly provedAt?: Instant | null;
  readonly reviewUntil?: Instant | null;
  readonly seenLiveAt?: Instant | null;
  readonly sentAt?: Instant | null;
  readonly problem?: string | null;
}

const STEP: Readonly<Record<keyof ListingStep, string>> = {
  status: 'status',
  proofHost: 'proof_host',
  proofText: 'proof_text',
  proofBy: 'proof_by',
  proofSetAt: 'proof_set_at',
  proofLookedAt: 'proof_looked_at',
  provedAt: 'proved_at',
  reviewUntil: 'review_until',
  seenLiveAt: 'seen_live_at',
  sentAt: 'sent_at',
  problem: 'problem',
};

/** Takes listings a step further. `from` guards it: those in another state are left alone. Answers how many were taken. */
export async function stepListings(
  db: Queryable,
  ids: readonly number[],
  step: ListingStep,
  from: readonly ListingStatus[] | null = null,
): Promise<number> {
  const keys = Object.keys(step) as (keyof ListingStep)[];
  const values = keys.map((key) => {
    const value = step[key];
    return typeof value === 'number' ? new Date(value) : value;
  });
  const { rowCount } = await db.query(
    `update listings set ${keys.map((key, i) => `${STEP[key]} = $${i + 3}`).join(', ')}
     where id = any($1) and ($2::text[] is null or status = any($2))`,
    [ids, from, ...values],
  );
  return rowCount ?? 0;
}

/** Ends every other offer of a name that is sold: those at linked marketplaces are to be withdrawn, drafts and others are over. */
export async function withdrawListings(tx: Transaction, nameId: number, except: number | null): Promise<void> {
  await tx.query(
    `update listings l set status = case
         when l.status ${oneOf(STANDING_LISTINGS)} and exists
           (select from marketplaces v where v.id = l.marketplace_id and v.link_url is not null) then ${status('withdrawing')}
         else ${status('withdrawn')} end, ended_by_sale = true, problem = 'promised elsewhere'
     where l.name_id = $1 and l.id is distinct from $2 and l.status not ${oneOf(LEAVING_LISTINGS)}`,
    [nameId, except],
  );
}

/** Locks listings that may be taken off offer: those that stand, and whose auction nobody has bid in. */
export async function lockFreeListings(
  tx: Transaction,
  ids: readonly number[],
): Promise<{ readonly id: number; readonly linked: boolean }[]> {
  const { rows } = await tx.query<{ id: number; linked: boolean }>(
    `select l.id, v.link_url is not null and l.status <> ${status('draft')} as linked from listings l left join marketplaces v on v.id = l.marketplace_id
     where l.id = any($1) and l.status not ${oneOf(LEAVING_LISTINGS)}
       and (select count(*) from auctions a join bids b on b.auction_id = a.id where a.listing_id = l.id and a.outcome is null) <= $2
     for update of l`,
    [ids, MOST_BIDS_TO_CANCEL],
  );
  return rows;
}

/** A sale fell through: what was ended for it is a draft again, an auction stays ended. */
export async function reviveListings(tx: Transaction, nameId: number, listingId: number | null): Promise<void> {
  await tx.query(
    `update listings l set status = case when l.kind = 'auction' then ${status('ended')} else ${status('draft')} end, ended_by_sale = false,
       problem = 'The sale fell through: list it again.'
     where l.name_id = $1 and (l.id = $2 or (l.status = ${status('withdrawn')} and l.ended_by_sale))
       and not exists (select from listings o where o.name_id = l.name_id and o.id <> l.id and coalesce(o.marketplace_id, 0) = coalesce(l.marketplace_id, 0)
         and o.status not ${oneOf(OVER_LISTINGS)})`,
    [nameId, listingId],
  );
}

/** What pricing has to know of names: what they cost, when their term ends, and whether they are where the ledger has them. */
export interface SaleName {
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly ending: string;
  readonly accountId: number;
  readonly account: string;
  /** The latest instant at which it may have been registered. */
  readonly registered: Instant | null;
  readonly termEnd: TermEnd | null;
  readonly spent: readonly { readonly minor: number; readonly currency: string }[];
  readonly bestOfferMinor: number | null;
  readonly bestOfferCurrency: string | null;
  readonly askingMinor: number | null;
  readonly askingCurrency: string | null;
}

const SALE_NAME = `
  select n.id as "nameId", n.ascii, n."unicode", n.ending, n.account_id as "accountId", a.label as account,
    case when n.registered_day then n.registered + interval '36 hours' else n.registered end as registered,
    case when n.term_end is null then null else
      json_build_object('at', extract(epoch from n.term_end) * 1000, 'precision', case when n.term_end_day then 'day' else 'instant' end) end as "termEnd",
    coalesce((select json_agg(s) from (select sum(e.minor) as minor, e.currency from spending e where e.name_id = n.id group by e.currency) s), '[]') as spent,
    n.best_offer_minor as "bestOfferMinor", n.best_offer_currency as "bestOfferCurrency", n.asking_minor as "askingMinor",
    n.asking_currency as "askingCurrency"
  from names n join accounts a on a.id = n.account_id`;

export async function selectSaleNames(db: Queryable, nameIds: readonly number[]): Promise<SaleName[]> {
  const { rows } = await db.query<SaleName>(
    `${SALE_NAME} where n.id = any($1) and n.gone_at is null order by n.ascii`,
    [nameIds],
  );
  return rows;
}

/** Every entry of names as dated money, spent above nothing. */
export async function selectDatedSpending(
  db: Queryable,
  nameIds: readonly number[],
): Promise<Map<number, { readonly day: Day; readonly minor: number; readonly currency: string }[]>> {
  const { rows } = await db.query<{ nameId: number; money: { day: Day; minor: number; currency: string }[] }>(
    `select name_id as "nameId", json_agg(json_build_object('day', on_day, 'minor', minor, 'currency', currency) order by on_day) as money
     from spending where name_id = any($1) group by name_id`,
    [nameIds],
  );
  return new Map(rows.map(({ nameId, money }) => [nameId, money]));
}

/** Names that cost most and were never offered, for one currency of cost each. */
export async function selectNeverListed(db: Queryable, most: number): Promise<SaleName[]> {
  const { rows } = await db.query<SaleName>(
    `with dearest as (
       select n.id from names n join spending e on e.name_id = n.id
       where n.gone_at is null and n.purpose in ('hold', 'for sale') and not n.never_lost
         and not exists (select from listings l where l.name_id = n.id)
         and not exists (select from sales s where s.name_id = n.id and s.stage not ${oneOf(FAILED_STAGES)})
       group by n.id order by sum(e.minor) desc limit $1)
     ${SALE_NAME} where n.id in (select id from dearest)`,
    [most],
  );
  return rows;
}

/** A name that is sold or may be, also one that has left the working views. */
export interface NameOnSale {
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly account: string;
  readonly linkedAccount: boolean;
}

export async function selectNameOnSale(db: Queryable, written: string): Promise<NameOnSale | null> {
  const { rows } = await db.query<NameOnSale>(
    `select n.id as "nameId", n.ascii, n."unicode", a.label as account, a.link_host is not null as "linkedAccount"
     from names n join accounts a on a.id = n.account_id where n.ascii = $1 or n."unicode" = $1`,
    [written],
  );
  return rows[0] ?? null;
}
