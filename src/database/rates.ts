import type { Rate } from '@/core/money';
import type { Queryable } from './pool';

/** Every rate, the latest first. */
export async function selectRates(db: Queryable): Promise<Rate[]> {
  const { rows } = await db.query<Rate>(
    'select from_day as "from", currency, into_currency as "into", factor from rates order by from_day desc, currency, into_currency',
  );
  return rows;
}

/** Writes rates down; what was known of the same day and pair is replaced. */
export async function upsertRates(db: Queryable, rates: readonly Rate[]): Promise<void> {
  await db.query(
    `insert into rates (from_day, currency, into_currency, factor)
     select r."from", r.currency, r."into", r.factor
     from jsonb_to_recordset($1::jsonb) as r("from" date, currency text, "into" text, factor numeric)
     on conflict (from_day, currency, into_currency) do update set factor = excluded.factor`,
    [JSON.stringify(rates)],
  );
}

/** The currencies in which anything is priced, held, asked or booked. */
export async function selectCurrenciesInUse(db: Queryable): Promise<string[]> {
  const { rows } = await db.query<{ currency: string }>(
    `select currency from accounts union select currency from prices union select currency from entries
     union select asking_currency from names where asking_currency is not null union select currency from offer_threads
     union select currency from listings`,
  );
  return rows.map(({ currency }) => currency);
}
