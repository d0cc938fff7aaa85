import {
  askedFirst,
  LISTING_KINDS,
  type ListingKind,
  type ListingStatus,
  OVER_LISTINGS,
  type PriceName,
} from '@/core/selling';
import { addDays, dayOf, type Instant } from '@/core/time';
import { copyOut } from './copyOut';
import { oneOf } from './oneOf';
import type { Database } from './pool';

/** What many listings have alike: where and how they are listed, and what is still to be paid for that. */
export interface ListedTerms {
  readonly marketplaceId: number | null;
  readonly marketplace: string | null;
  readonly kind: ListingKind;
  readonly currency: string;
  readonly status: ListingStatus;
  readonly sent: boolean;
  readonly attributes: Readonly<Record<string, string>>;
  readonly categories: readonly string[];
}

/** Listings that are not over, in columns, by name and as they were made: `terms` of each is an index of `listed`. `asked` is `NaN` where nothing is asked. */
export interface StoredListings {
  readonly listed: readonly ListedTerms[];
  readonly terms: Int32Array;
  readonly id: Int32Array;
  readonly nameId: Int32Array;
  readonly asked: Float64Array;
  readonly visits: Int32Array;
}

const COLUMN: Readonly<Record<PriceName, string>> = {
  minimum: 'minimum_minor',
  start: 'start_minor',
  reserve: 'reserve_minor',
  asking: 'asking_minor',
  buyNow: 'buy_now_minor',
};
const ASKED = `case kind ${LISTING_KINDS.map(
  (kind) =>
    `when '${kind}' then coalesce(${askedFirst(kind)
      .map((price) => COLUMN[price])
      .join(', ')})`,
).join(' ')} end`;

/** What a listing that was sent has chosen is paid already: it does not set it apart. */
const unpaid = (column: string, none: string) => `case when sent_at is null then ${column} else ${none} end`;

const query = (first: string, last: string) => `
  with l as (
    select id, name_id, coalesce(marketplace_id, 0) as marketplace_id, kind, currency, status, sent_at is not null as sent,
      ${unpaid('attributes', "'{}'::jsonb")} as attributes, ${unpaid('categories', "'{}'::text[]")} as categories, ${ASKED} as asked
    from listings where status not ${oneOf(OVER_LISTINGS)}),
  terms as (
    select *, row_number() over () - 1 as code
    from (select distinct marketplace_id, kind, currency, status, sent, attributes, categories from l) d),
  seen as (select name_id, sum(visits)::int as visits from visits where day > '${first}' and day <= '${last}' group by name_id),
  main as (
    select string_agg(int4send(code::int), ''::bytea) as terms, string_agg(int4send(id), ''::bytea) as id,
      string_agg(int4send(name_id), ''::bytea) as name_id, string_agg(float8send(coalesce(asked::float8, 'NaN')), ''::bytea) as asked,
      string_agg(int4send(coalesce(visits, 0)), ''::bytea) as visits
    from (
      select code, l.id, l.name_id, asked, visits
      from l join terms using (marketplace_id, kind, currency, status, sent, attributes, categories) left join seen on seen.name_id = l.name_id
      order by l.name_id, l.id) o)
  select main.*, (select coalesce(json_agg(json_build_object('marketplaceId', nullif(t.marketplace_id, 0), 'marketplace', m.label, 'kind', kind,
      'currency', t.currency, 'status', status, 'sent', sent, 'attributes', t.attributes, 'categories', t.categories) order by code), '[]')::text
    from terms t left join marketplaces m on m.id = t.marketplace_id)
  from main`;

/** Every listing that is not over, with how often its window was opened in the `days` until an instant. */
export async function selectListingColumns(db: Database, until: Instant, days: number): Promise<StoredListings> {
  const fields = await copyOut(db, query(dayOf(addDays(until, -days)), dayOf(until)));
  return {
    terms: fields.int32(),
    id: fields.int32(),
    nameId: fields.int32(),
    asked: fields.float64(),
    visits: fields.int32(),
    listed: fields.json<ListedTerms[]>(),
  };
}
