import { type OfferFacts, VISIT_DAYS } from '@/core/prospects';
import type { MarketplaceTerms } from '@/core/selling';
import { OVER_LISTINGS, OVER_STAGES } from '@/core/selling';
import type { Instant } from '@/core/time';
import { copyOut } from './copyOut';
import { selectMarketplaces } from './marketplaces';
import { oneOf } from './oneOf';
import type { Database } from './pool';
import { selectPastSales } from './sales';

const joined = (bytes: string, order: string) => `string_agg(${bytes}, ''::bytea order by ${order})`;
const YEAR_SECONDS = 31_557_600;

/**
 * How long each name has been on offer: from when it came into the ledger with an asking price, or was given one, until that was taken away, the name
 * was sold, or it left. The history of the price says it; what was before the name came is not known.
 */
const OFFERED = (now: string) => `
  ends as materialized (
    select n.id, n.ending, n.tags, n.asking_minor, n.asking_currency, n.gone_at is not null as is_gone, n.added_at,
      least(${now}, coalesce(min(s.agreed_at), n.gone_at, ${now})) as until
    from names n left join sales s on s.name_id = n.id and s.stage = 'done'
    group by n.id),
  edits as materialized (
    select c.name_id, b.at, c.before ->> 'asking_minor' is not null as was, c.after ->> 'asking_minor' is not null as became,
      row_number() over w as nth, lead(b.at) over w as next_at
    from changes c join batches b on b.id = c.batch_id where c.before ? 'asking_minor'
    window w as (partition by c.name_id order by c.id)),
  spells as (
    select name_id, at as from_at, coalesce(next_at, 'infinity') as to_at from edits where became
    union all select name_id, '-infinity', at from edits where nth = 1 and was
    union all select id, '-infinity', 'infinity' from ends e where asking_minor is not null and not exists (select from edits where name_id = e.id)),
  offered as materialized (
    select e.id, e.ending, e.tags, e.asking_minor, e.asking_currency, e.is_gone,
      sum(extract(epoch from least(p.to_at, e.until) - greatest(p.from_at, e.added_at)))::float8 / ${YEAR_SECONDS} as years
    from spells p join ends e on e.id = p.name_id
    where least(p.to_at, e.until) > greatest(p.from_at, e.added_at)
    group by e.id, e.ending, e.tags, e.asking_minor, e.asking_currency, e.is_gone)`;

/** What a name asks for by its best listing: a live one first. */
const LISTED = `
  listed as materialized (
    select distinct on (name_id) name_id, minimum_minor, currency, marketplace_id,
      case when status in ('sending', 'unproved', 'in review') then review_until end as seen_from
    from listings where status not ${oneOf(OVER_LISTINGS)} and status not in ('draft', 'refused')
    order by name_id, status = 'live' desc, id)`;

const query = (now: string) => `
  with ${OFFERED(now)}, ${LISTED},
  currencies as (select value, row_number() over (order by value) - 1 as code from (select distinct currency from listed) d(value)),
  wished as (
    select name_id, sum(wishes)::int as threads from (
      select name_id, count(*) as wishes from offer_threads where made_at > ${now} - interval '1 year' and made_at <= ${now} group by name_id
      union all
      select a.name_id, count(distinct b.bidder) from bids b join auctions a on a.id = b.auction_id
      where b.at > ${now} - interval '1 year' and b.at <= ${now} group by a.name_id) w
    group by name_id),
  visited as (
    select name_id, sum(visits)::int as visits from visits where day > (${now} - interval '${VISIT_DAYS} days')::date and day <= (${now})::date
    group by name_id),
  under_way as (select distinct name_id from sales where stage not ${oneOf(OVER_STAGES)})
  select
    (select ${joined('int4send(id)', 'id')} from offered where not is_gone),
    (select ${joined('float8send(years)', 'id')} from offered where not is_gone),
    (select ${joined('int4send(name_id)', 'name_id')} from listed),
    (select ${joined("float8send(coalesce(minimum_minor::float8, 'NaN'))", 'name_id')} from listed),
    (select ${joined('int2send(code::int2)', 'name_id')} from listed join currencies on value = currency),
    (select ${joined("float8send(coalesce(extract(epoch from seen_from)::float8 * 1000, 'NaN'))", 'name_id')} from listed),
    (select ${joined('int4send(coalesce(marketplace_id, 0))', 'name_id')} from listed),
    (select coalesce(json_agg(value order by code), '[]')::text from currencies),
    (select ${joined('int4send(name_id)', 'name_id')} from wished),
    (select ${joined('int4send(threads)', 'name_id')} from wished),
    (select ${joined('int4send(name_id)', 'name_id')} from visited),
    (select ${joined('int4send(visits)', 'name_id')} from visited),
    (select ${joined('int4send(name_id)', 'name_id')} from under_way),
    (select coalesce(json_agg(json_build_object('ending', ending, 'tags', tags, 'years', years, 'asking',
       case when asking_minor is not null then json_build_object('minor', asking_minor, 'currency', asking_currency) end)), '[]')::text from offered where is_gone),
    (select coalesce(json_agg(json_build_object('ascii', n.ascii, 'ending', n.ending, 'tags', n.tags,
       'price', json_build_object('minor', s.price_minor, 'currency', s.currency),
       'askedMinor', coalesce(case when l.currency = s.currency then coalesce(l.asking_minor, l.buy_now_minor) end, case when n.asking_currency = s.currency then n.asking_minor end),
       'day', (s.agreed_at at time zone 'UTC')::date) order by s.agreed_at, s.id), '[]')::text
     from sales s join names n on n.id = s.name_id left join listings l on l.id = s.listing_id where s.stage = 'done')`;

/** What is known of own names on offer up to an instant. */
export async function selectOfferFacts(db: Database, now: Instant): Promise<OfferFacts> {
  const [fields, marketplaces, past] = await Promise.all([
    copyOut(db, query(`to_timestamp(${Number(now) / 1000})`)),
    selectMarketplaces(db),
    selectPastSales(db),
  ]);
  const since = { nameId: fields.int32(), years: fields.float64() };
  const listed = {
    nameId: fields.int32(),
    minimumMinor: fields.float64(),
    currency: Uint8Array.from(fields.uint16()),
    seenFrom: fields.float64(),
  };
  const at = new Map(marketplaces.map(({ id }, i) => [id, i]));
  const marketplace = fields.int32().map((id) => at.get(id) ?? -1);
  return {
    since,
    listed: { ...listed, marketplace },
    currencies: fields.json<string[]>(),
    offers: { nameId: fields.int32(), count: fields.int32() },
    visits: { nameId: fields.int32(), count: fields.int32() },
    selling: fields.int32(),
    gone: fields.json<OfferFacts['gone']>(),
    sales: fields.json<OfferFacts['sales']>(),
    marketplaces: marketplaces.map((row): MarketplaceTerms & { readonly label: string } => ({
      label: row.label,
      currencies: row.currencies,
      wholeUnits: row.wholeUnits,
      auctionDays: row.auctionDays,
      reviewHours: row.reviewHours,
      payoutSet: row.payoutSet,
      percent: row.percent,
      floorMinor: row.floorMinor,
      steps: row.steps,
      saleFeeMinor: row.saleFeeMinor,
      listingFeeMinor: row.listingFeeMinor,
      feesCurrency: row.feesCurrency,
    })),
    past,
  };
}
