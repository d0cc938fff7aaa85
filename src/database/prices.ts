import type { PriceRise } from '@/core/ledger';
import { conditionWords, type Price, readCondition } from '@/core/pricing';
import type { Queryable, Transaction } from './pool';

const FIELDS = `
  p.account_id as "accountId", p.name_id as "nameId", p.ending, p.action, p.currency, p.year_minor as "yearMinor",
  p.term_totals as "termTotals", p.first_year_minor as "firstYearMinor", p.first_year_condition as "firstYearCondition",
  p.fee_included as "feeIncluded", p.from_day as "from", p.origin, p.item, p.included, p.source`;

/** A row as it is stored: a condition stands there as it is written. */
type Stored<P extends Price> = Omit<P, 'firstYearCondition'> & { readonly firstYearCondition: string | null };

const priceOf = <P extends Price>(row: Stored<P>) =>
  ({ ...row, firstYearCondition: row.firstYearCondition === null ? null : readCondition(row.firstYearCondition) }) as P;

const stored = (price: Price): Stored<Price> => ({
  ...price,
  firstYearCondition: price.firstYearCondition && conditionWords(price.firstYearCondition),
});

/** A price with the number of its row and, for a premium price, the name it belongs to. */
export type PriceRow = Price & {
  readonly id: number;
  readonly ascii: string | null;
  /** Where an inferred price comes from, in words; `null` for one that somebody gave. */
  readonly taughtBy: string | null;
};

export async function selectPrices(db: Queryable): Promise<Price[]> {
  return (await db.query<Stored<Price>>(`select ${FIELDS} from prices p order by p.id`)).rows.map(priceOf);
}

/** What the office expects of prices over the years. */
export async function selectRises(db: Queryable): Promise<PriceRise[]> {
  return (await db.query<PriceRise>('select account_id as "accountId", ending, yearly from price_rises order by 1, 2'))
    .rows;
}

/** Says what is expected of an account's prices of an ending; `null` leaves it to the list's own history. */
export async function setRise(
  tx: Transaction,
  { accountId, ending }: Omit<PriceRise, 'yearly'>,
  yearly: number | null,
): Promise<void> {
  await tx.query('delete from price_rises where account_id = $1 and ending = $2', [accountId, ending]);
  if (yearly !== null) await tx.query('insert into price_rises values ($1, $2, $3)', [accountId, ending, yearly]);
}

/** The prices of one account, or of all, as Setup lists them. */
export async function selectPriceRows(db: Queryable, accountId: number | null = null): Promise<PriceRow[]> {
  const { rows } = await db.query<Stored<PriceRow>>(
    `select p.id, n.ascii, ${FIELDS}, case when p.origin = 'inferred' then coalesce(
         (select 'what renewing ' || t."unicode" || ' cost' from entries e join names t on t.id = e.name_id where e.id = p.taught_by_entry),
         (select b.summary from batches b where b.id = p.taught_by_batch), 'an earlier charge or list') end as "taughtBy"
     from prices p left join names n on n.id = p.name_id
     where $1::int is null or p.account_id = $1
     order by p.account_id, p.ending, p.action, n.ascii nulls first, p.from_day desc`,
    [accountId],
  );
  return rows.map((row) => priceOf<PriceRow>(row));
}

/**
 * Writes prices; a row for the same account, name, ending, action and day is replaced. An inferred price never replaces
 * one that somebody gave.
 */
export async function upsertPrices(db: Queryable, prices: readonly Price[]): Promise<void> {
  await db.query(
    `insert into prices (account_id, name_id, ending, action, currency, year_minor, term_totals, first_year_minor,
         first_year_condition, fee_included, from_day, origin, item, included, source)
       select "accountId", "nameId", ending, action, currency, "yearMinor", "termTotals", "firstYearMinor", "firstYearCondition",
         "feeIncluded", "from", origin, item, included, source
       from jsonb_to_recordset($1::jsonb) as p("accountId" int, "nameId" int, ending text, action text, currency text,
         "yearMinor" int8, "termTotals" jsonb, "firstYearMinor" int8, "firstYearCondition" text, "feeIncluded" boolean, "from" date, origin text,
         item text, included text, source text)
     on conflict (account_id, name_id, ending, action, item, from_day) do update set currency = excluded.currency,
       year_minor = excluded.year_minor, term_totals = excluded.term_totals, first_year_minor = excluded.first_year_minor,
       first_year_condition = excluded.first_year_condition, fee_included = excluded.fee_included, origin = excluded.origin,
       included = excluded.included, source = excluded.source,
       taught_by_entry = null, taught_by_batch = null
     where excluded.origin <> 'inferred' or prices.origin = 'inferred'`,
    [JSON.stringify(prices.map(stored))],
  );
}

/**
 * Learns renewal prices from the entries of a batch for some names: for the account and ending of each name that has no renewal
 * price yet, marked as inferred, with the entry that taught it. An account that adds tax or a late fee teaches nothing: what it
 * charged may be explained by them. The registry fee is part of it.
 */
export async function inferPrices(tx: Transaction, batchId: number, nameIds: readonly number[]): Promise<void> {
  await tx.query(
    `insert into prices (account_id, ending, action, currency, year_minor, fee_included, from_day, origin, taught_by_entry)
     select distinct on (n.account_id, n.ending) n.account_id, n.ending, 'renew', e.currency, e.minor, true, e.on_day, 'inferred', e.id
     from entries e join names n on n.id = e.name_id join accounts a on a.id = n.account_id
     where e.batch_id = $1 and e.name_id = any($2) and e.kind = 'renewal' and e.minor > 0 and a.tax_percent = 0 and a.late_fee_minor = 0
       and not exists (
         select from prices p where p.account_id = n.account_id and p.ending = n.ending and p.action = 'renew' and (p.name_id is null or p.name_id = n.id))
     order by n.account_id, n.ending, e.on_day desc
     on conflict (account_id, name_id, ending, action, item, from_day) do nothing`,
    [batchId, nameIds],
  );
}

/** Forgets inferred prices whose entry was taken back, or that a list taught which was taken back. */
export async function forgetTaughtPrices(tx: Transaction): Promise<void> {
  await tx.query(
    `delete from prices p where p.origin = 'inferred' and (
       exists (select from entries c where c.corrects = p.taught_by_entry)
       or exists (select from batches b where b.id = p.taught_by_batch and b.undone_by is not null))`,
  );
}

export async function deletePrice(db: Queryable, id: number): Promise<void> {
  await db.query('delete from prices where id = $1', [id]);
}
