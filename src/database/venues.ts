import type { Rate } from '@/core/money';
import type { BuyNowEnd, CommissionStep } from '@/core/selling';
import type { Instant } from '@/core/time';
import type { Queryable } from './pool';

/** A column of a venue's list of listings. */
export interface CsvColumn {
  readonly heading: string;
  readonly field: string;
}

/** A venue with its rules, without the secret of its link. */
export interface VenueRow {
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
  readonly placements: readonly { readonly label: string; readonly minor: number }[];
  readonly categories: readonly string[];
  readonly categoryMinor: number;
  readonly network: string | null;
  readonly accountId: number | null;
  readonly csvColumns: readonly CsvColumn[] | null;
  readonly notes: string;
  readonly linkUrl: string | null;
  readonly linkCursor: number;
  readonly linkReadAt: Instant | null;
  readonly linkProblem: string | null;
}

export type VenueDraft = Omit<VenueRow, 'id' | 'linkUrl' | 'linkCursor' | 'linkReadAt' | 'linkProblem'>;

const VENUE = `
  select id, label, currencies, fees_currency as "feesCurrency", percent, floor_minor as "floorMinor", steps, sale_fee_minor as "saleFeeMinor",
    listing_fee_minor as "listingFeeMinor", membership_minor as "membershipMinor", whole_units as "wholeUnits", auction_days as "auctionDays",
    extension_minutes as "extensionMinutes", buy_now_ends as "buyNowEnds",
    review_hours as "reviewHours", payout_set as "payoutSet", placements, categories, category_minor as "categoryMinor", network,
    account_id as "accountId", csv_columns as "csvColumns", notes, link_url as "linkUrl", link_cursor as "linkCursor",
    link_read_at as "linkReadAt", coalesce(link_problem, (select p.problem from partner_pauses p where p.kind = 'venue' and p.partner_id = venues.id)) as "linkProblem"
  from venues`;

export async function selectVenues(db: Queryable): Promise<VenueRow[]> {
  return (await db.query<VenueRow>(`${VENUE} order by lower(label)`)).rows;
}

export async function selectVenue(db: Queryable, id: number): Promise<VenueRow | null> {
  return (await db.query<VenueRow>(`${VENUE} where id = $1`, [id])).rows[0] ?? null;
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
  placements: 'placements',
  categories: 'categories',
  categoryMinor: 'category_minor',
  network: 'network',
  accountId: 'account_id',
  csvColumns: 'csv_columns',
  notes: 'notes',
} as const satisfies Record<keyof VenueDraft, string>;
const JSON_COLUMNS = new Set(['steps', 'placements', 'csvColumns']);

/** Adds a venue, or changes one. Answers its id; `null` when it is not there, or another has its label. */
export async function upsertVenue(db: Queryable, id: number | null, venue: VenueDraft): Promise<number | null> {
  const keys = Object.keys(COLUMNS) as (keyof VenueDraft)[];
  const values = keys.map((key) =>
    JSON_COLUMNS.has(key) && venue[key] !== null ? JSON.stringify(venue[key]) : venue[key],
  );
  const other = await db.query('select 1 from venues where lower(label) = lower($1) and id is distinct from $2', [
    venue.label,
    id,
  ]);
  if (other.rows.length > 0) return null;
  const columns = keys.map((key) => COLUMNS[key]);
  const { rows } =
    id === null
      ? await db.query<{ id: number }>(
          `insert into venues (${columns.join(', ')}) values (${columns.map((_, i) => `$${i + 1}`).join(', ')}) returning id`,
          values,
        )
      : await db.query<{ id: number }>(
          `update venues set ${columns.map((column, i) => `${column} = $${i + 2}`).join(', ')} where id = $1 returning id`,
          [id, ...values],
        );
  return rows[0]?.id ?? null;
}

export async function selectVenueSecret(db: Queryable, id: number): Promise<Buffer | null> {
  const { rows } = await db.query<{ secret: Buffer | null }>('select link_secret as secret from venues where id = $1', [
    id,
  ]);
  return rows[0]?.secret ?? null;
}

/** Sets the link of a venue, or takes it away. */
export async function updateVenueLink(
  db: Queryable,
  id: number,
  link: { readonly url: string; readonly secret: Buffer } | null,
): Promise<void> {
  await db.query('update venues set link_url = $2, link_secret = $3, link_problem = null where id = $1', [
    id,
    link?.url ?? null,
    link?.secret ?? null,
  ]);
}

/** Notes when a venue's link was last read, how far, and what went wrong. */
export async function noteVenue(
  db: Queryable,
  id: number,
  note: { readonly at: Instant | null; readonly cursor: number | null; readonly problem: string | null },
): Promise<void> {
  await db.query(
    `update venues set link_read_at = coalesce($2, link_read_at), link_cursor = greatest(link_cursor, coalesce($3, link_cursor)),
       link_problem = $4 where id = $1`,
    [id, note.at === null ? null : new Date(note.at), note.cursor, note.problem],
  );
}

/** Takes an event down. False when it was there already. */
export async function insertVenueEvent(
  db: Queryable,
  venueId: number,
  event: { readonly id: number; readonly at: Instant },
): Promise<boolean> {
  const { rowCount } = await db.query(
    'insert into venue_events (venue_id, event_id, at, event) values ($1, $2, $3, $4) on conflict do nothing',
    [venueId, event.id, new Date(event.at), JSON.stringify(event)],
  );
  return rowCount === 1;
}

export async function selectRates(db: Queryable): Promise<Rate[]> {
  const { rows } = await db.query<Rate>(
    'select from_day as "from", currency, into_currency as "into", factor from rates order by from_day desc, currency',
  );
  return rows;
}

export async function upsertRate(db: Queryable, { from, currency, into, factor }: Rate): Promise<void> {
  await db.query(
    `insert into rates (from_day, currency, into_currency, factor) values ($1, $2, $3, $4)
     on conflict (from_day, currency, into_currency) do update set factor = excluded.factor`,
    [from, currency, into, factor],
  );
}
