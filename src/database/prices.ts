import type { Price } from '@/core/pricing';
import type { Day } from '@/core/time';
import type { Queryable, Transaction } from './pool';

const FIELDS = `
  p.account_id as "accountId", p.name_id as "nameId", p.ending, p.action, p.currency, p.year_minor as "yearMinor",
  p.term_totals as "termTotals", p.first_year_minor as "firstYearMinor", p.first_year_condition as "firstYearCondition",
  p.fee_included as "feeIncluded", p.from_day as "from", p.origin`;

/** A price with the number of its row and, for a premium price, the name it belongs to. */
export type PriceRow = Price & { readonly id: number; readonly ascii: string | null };

export async function selectPrices(db: Queryable): Promise<Price[]> {
  return (await db.query<Price>(`select ${FIELDS} from prices p order by p.id`)).rows;
}

/** The prices of one account, or of all, as Setup lists them. */
export async function selectPriceRows(db: Queryable, accountId: number | null = null): Promise<PriceRow[]> {
  const { rows } = await db.query<PriceRow>(
    `select p.id, n.ascii, ${FIELDS} from prices p left join names n on n.id = p.name_id
     where $1::int is null or p.account_id = $1
     order by p.account_id, p.ending, p.action, n.ascii nulls first, p.from_day desc`,
    [accountId],
  );
  return rows;
}

/**
 * Writes prices; a row for the same account, name, ending, action and day is replaced. An inferred price never replaces
 * one that somebody gave.
 */
export async function upsertPrices(db: Queryable, prices: readonly Price[]): Promise<void> {
  await db.query(
    `insert into prices (account_id, name_id, ending, action, currency, year_minor, term_totals, first_year_minor,
         first_year_condition, fee_included, from_day, origin)
       select "accountId", "nameId", ending, action, currency, "yearMinor", "termTotals", "firstYearMinor", "firstYearCondition",
         "feeIncluded", "from", origin
       from jsonb_to_recordset($1::jsonb) as p("accountId" int, "nameId" int, ending text, action text, currency text,
         "yearMinor" int8, "termTotals" jsonb, "firstYearMinor" int8, "firstYearCondition" text, "feeIncluded" boolean, "from" date, origin text)
     on conflict (account_id, name_id, ending, action, from_day) do update set currency = excluded.currency,
       year_minor = excluded.year_minor, term_totals = excluded.term_totals, first_year_minor = excluded.first_year_minor,
       first_year_condition = excluded.first_year_condition, fee_included = excluded.fee_included, origin = excluded.origin
     where excluded.origin <> 'inferred' or prices.origin = 'inferred'`,
    [JSON.stringify(prices)],
  );
}

/**
 * Learns renewal prices from what was charged: for the account and ending of each name that has no renewal price yet,
 * marked as inferred. What was charged for several years is divided evenly; the registry fee is part of it.
 */
export async function inferPrices(
  tx: Transaction,
  charged: readonly { nameId: number; years: number; minor: number; currency: string; on: Day }[],
): Promise<void> {
  await tx.query(
    `insert into prices (account_id, ending, action, currency, year_minor, fee_included, from_day, origin)
     select distinct on (n.account_id, n.ending) n.account_id, n.ending, 'renew', c.currency, round(c.minor::numeric / c.years), true, c."on", 'inferred'
     from jsonb_to_recordset($1::jsonb) as c("nameId" int, years int, minor int8, currency text, "on" date) join names n on n.id = c."nameId"
     where c.minor > 0 and not exists (
       select from prices p where p.account_id = n.account_id and p.ending = n.ending and p.action = 'renew' and (p.name_id is null or p.name_id = n.id))
     order by n.account_id, n.ending, c."on" desc
     on conflict (account_id, name_id, ending, action, from_day) do nothing`,
    [JSON.stringify(charged)],
  );
}

export async function deletePrice(db: Queryable, id: number): Promise<void> {
  await db.query('delete from prices where id = $1', [id]);
}
