import type { BuyNowEnd, CommissionStep, MarketplaceAttribute } from '@/core/selling';
import type { Instant } from '@/core/time';
import type { Queryable } from './pool';

/** A column of a marketplace's list of listings. */
export interface CsvColumn {
  readonly heading: string;
  readonly field: string;
}

/** A marketplace with its rules, without the secret of its link. */
export interface MarketplaceRow {
  readonly id: number;
  readonly label: string;
  readonly currencies: readonly string[];
  readonly feesCurrency: string;
  readonly percent: number;
  readonly floorMinor: number;
  readonly steps: readonly CommissionStep[];
  readonly saleFeeMinor: number;
  readonly listingFeeMinor: number;
  readonly membershipMinor: number;
  readonly wholeUnits: boolean;
  readonly auctionDays: readonly number[];
  /** By how many minutes a late bid moves the close of an auction there, and until when a name can be bought at once. */
  readonly extensionMinutes: number;
  readonly buyNowEnds: BuyNowEnd;
  readonly reviewHours: number;
  readonly payoutSet: boolean;
  readonly attributes: readonly MarketplaceAttribute[];
  readonly categories: readonly string[];
  readonly categoryMinor: number;
  readonly accountId: number | null;
  readonly csvColumns: readonly CsvColumn[] | null;
  readonly notes: string;
  readonly linkUrl: string | null;
  readonly linkCursor: number;
  readonly linkReadAt: Instant | null;
  readonly linkProblem: string | null;
}

export type MarketplaceDraft = Omit<MarketplaceRow, 'id' | 'linkUrl' | 'linkCursor' | 'linkReadAt' | 'linkProblem'>;

const MARKETPLACE = `
  select id, label, currencies, fees_currency as "feesCurrency", percent, floor_minor as "floorMinor", steps, sale_fee_minor as "saleFeeMinor",
    listing_fee_minor as "listingFeeMinor", membership_minor as "membershipMinor", whole_units as "wholeUnits", auction_days as "auctionDays",
    extension_minutes as "extensionMinutes", buy_now_ends as "buyNowEnds",
    review_hours as "reviewHours", payout_set as "payoutSet", attributes, categories, category_minor as "categoryMinor",
    account_id as "accountId", csv_columns as "csvColumns", notes, link_url as "linkUrl", link_cursor as "linkCursor",
    link_read_at as "linkReadAt", coalesce(link_problem, (select p.problem from partner_pauses p where p.kind = 'marketplace' and p.partner_id = marketplaces.id)) as "linkProblem"
  from marketplaces`;

export async function selectMarketplaces(db: Queryable): Promise<MarketplaceRow[]> {
  return (await db.query<MarketplaceRow>(`${MARKETPLACE} order by lower(label)`)).rows;
}

export async function selectMarketplace(db: Queryable, id: number): Promise<MarketplaceRow | null> {
  return (await db.query<MarketplaceRow>(`${MARKETPLACE} where id = $1`, [id])).rows[0] ?? null;
}

const COLUMNS = {
  label: 'label',
  currencies: 'currencies',
  feesCurrency: 'fees_currency',
  percent: 'percent',
  floorMinor: 'floor_minor',
  steps: 'steps',
  saleFeeMinor: 'sale_fee_minor',
  listingFeeMinor: 'listing_fee_minor',
  membershipMinor: 'membership_minor',
  wholeUnits: 'whole_units',
  auctionDays: 'auction_days',
  extensionMinutes: 'extension_minutes',
  buyNowEnds: 'buy_now_ends',
  reviewHours: 'review_hours',
  payoutSet: 'payout_set',
  attributes: 'attributes',
  categories: 'categories',
  categoryMinor: 'category_minor',
  accountId: 'account_id',
  csvColumns: 'csv_columns',
  notes: 'notes',
} as const satisfies Record<keyof MarketplaceDraft, string>;
const JSON_COLUMNS = new Set(['steps', 'attributes', 'csvColumns']);

/** Adds a marketplace, or changes one. Answers its id; `null` when it is not there, or another has its label. */
export async function upsertMarketplace(
  db: Queryable,
  id: number | null,
  marketplace: MarketplaceDraft,
): Promise<number | null> {
  const keys = Object.keys(COLUMNS) as (keyof MarketplaceDraft)[];
  const values = keys.map((key) =>
    JSON_COLUMNS.has(key) && marketplace[key] !== null ? JSON.stringify(marketplace[key]) : marketplace[key],
  );
  const other = await db.query('select 1 from marketplaces where lower(label) = lower($1) and id is distinct from $2', [
    marketplace.label,
    id,
  ]);
  if (other.rows.length > 0) return null;
  const columns = keys.map((key) => COLUMNS[key]);
  const { rows } =
    id === null
      ? await db.query<{ id: number }>(
          `insert into marketplaces (${columns.join(', ')}) values (${columns.map((_, i) => `$${i + 1}`).join(', ')}) returning id`,
          values,
        )
      : await db.query<{ id: number }>(
          `update marketplaces set ${columns.map((column, i) => `${column} = $${i + 2}`).join(', ')} where id = $1 returning id`,
          [id, ...values],
        );
  return rows[0]?.id ?? null;
}

export async function selectMarketplaceSecret(db: Queryable, id: number): Promise<Buffer | null> {
  const { rows } = await db.query<{ secret: Buffer | null }>(
    'select link_secret as secret from marketplaces where id = $1',
    [id],
  );
  return rows[0]?.secret ?? null;
}

/** Sets the link of a marketplace, or takes it away. */
export async function updateMarketplaceLink(
  db: Queryable,
  id: number,
  link: { readonly url: string; readonly secret: Buffer } | null,
): Promise<void> {
  await db.query('update marketplaces set link_url = $2, link_secret = $3, link_problem = null where id = $1', [
    id,
    link?.url ?? null,
    link?.secret ?? null,
  ]);
}

/** Notes when a marketplace's link was last read, how far, and what went wrong. */
export async function noteMarketplace(
  db: Queryable,
  id: number,
  note: { readonly at: Instant | null; readonly cursor: number | null; readonly problem: string | null },
): Promise<void> {
  await db.query(
    `update marketplaces set link_read_at = coalesce($2, link_read_at), link_cursor = greatest(link_cursor, coalesce($3, link_cursor)),
       link_problem = $4 where id = $1`,
    [id, note.at === null ? null : new Date(note.at), note.cursor, note.problem],
  );
}

/** Takes an event down. False when it was there already. */
export async function insertMarketplaceEvent(
  db: Queryable,
  marketplaceId: number,
  event: { readonly id: number; readonly at: Instant },
): Promise<boolean> {
  const { rowCount } = await db.query(
    'insert into marketplace_events (marketplace_id, event_id, at, event) values ($1, $2, $3, $4) on conflict do nothing',
    [marketplaceId, event.id, new Date(event.at), JSON.stringify(event)],
  );
  return rowCount === 1;
}
