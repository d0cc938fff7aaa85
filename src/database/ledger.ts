import type { LedgerColumns, LedgerRules } from '@/core/ledger';
import { selectAccounts } from './accounts';
import { selectPolicies, selectRegistryFees } from './policies';
import type { Queryable } from './pool';
import { selectPrices } from './prices';
import { selectSettings } from './settings';

/** The number that rises with every change. */
export async function selectRevision(db: Queryable): Promise<number> {
  const { rows } = await db.query<{ n: number }>('select n from revision');
  return rows[0]?.n ?? 0;
}

/** Marks the ledger as changed. Its row lock also puts writers in line. */
export async function bumpRevision(db: Queryable): Promise<void> {
  await db.query('update revision set n = n + 1');
}

const ms = (column: string) => `(extract(epoch from ${column}) * 1000)::int8`;
const sparse = (value: string, when: string) =>
  `coalesce(jsonb_object_agg(n.place, ${value}) filter (where ${when}), '{}'::jsonb)`;

const COLUMNS = `
  with totals as (
    select name_id, jsonb_agg(jsonb_build_object('minor', minor, 'currency', currency) order by currency) as spent
    from (select name_id, currency, sum(minor) as minor from entries where kind <> 'sale' group by name_id, currency) by_currency
    group by name_id
  ), n as (
    select names.*, totals.spent, row_number() over (order by names.ascii) - 1 as place
    from names left join totals on totals.name_id = names.id
    where names.gone_at is null and ($1::int[] is null or names.id = any($1))
    order by names.ascii
  )
  select json_build_object(
    'id', coalesce(json_agg(id order by place), '[]'),
    'ascii', coalesce(json_agg(ascii order by place), '[]'),
    'ending', coalesce(json_agg(ending order by place), '[]'),
    'accountId', coalesce(json_agg(account_id order by place), '[]'),
    'registered', coalesce(json_agg(${ms('registered')} order by place), '[]'),
    'registeredDay', coalesce(json_agg(registered_day order by place), '[]'),
    'termEnd', coalesce(json_agg(${ms('term_end')} order by place), '[]'),
    'termEndDay', coalesce(json_agg(term_end_day order by place), '[]'),
    'setting', coalesce(json_agg(setting order by place), '[]'),
    'standing', coalesce(json_agg(standing order by place), '[]'),
    'settingSince', coalesce(json_agg(${ms('setting_since')} order by place), '[]'),
    'purpose', coalesce(json_agg(purpose order by place), '[]'),
    'neverLost', coalesce(json_agg(never_lost order by place), '[]'),
    'lock', coalesce(json_agg(lock order by place), '[]'),
    'privacy', coalesce(json_agg(privacy order by place), '[]'),
    'asking', coalesce(json_agg(asking_minor order by place), '[]'),
    'askingCurrency', coalesce(json_agg(asking_currency order by place), '[]'),
    'checkedAt', coalesce(json_agg(${ms('checked_at')} order by place), '[]'),
    'sparse', json_build_object(
      'unicode', ${sparse('"unicode"', '"unicode" <> ascii')},
      'observed', ${sparse(`jsonb_build_object('phase', observed, 'at', ${ms('observed_at')})`, 'observed is not null')},
      'asked', ${sparse('asked', 'asked is not null')},
      'tags', ${sparse('to_jsonb(tags)', "tags <> '{}'")},
      'notes', ${sparse('notes', "notes <> ''")},
      'spent', ${sparse('spent', 'spent is not null')}
    )
  )::text as columns from n`;

/** The JSON text of `LedgerColumns`, made by the database, so that it can be handed on unread. Only some names when `nameIds` is set. */
export async function selectLedgerColumnsJson(
  db: Queryable,
  nameIds: readonly number[] | null = null,
): Promise<string> {
  const { rows } = await db.query<{ columns: string }>(COLUMNS, [nameIds]);
  return rows[0]?.columns ?? '';
}

export async function selectLedgerColumns(
  db: Queryable,
  nameIds: readonly number[] | null = null,
): Promise<LedgerColumns> {
  return JSON.parse(await selectLedgerColumnsJson(db, nameIds)) as LedgerColumns;
}

/** Accounts, policies, fees and prices as the computation wants them. */
export async function selectLedgerRules(db: Queryable): Promise<LedgerRules> {
  const settings = await selectSettings(db);
  return {
    accounts: await selectAccounts(db),
    policies: await selectPolicies(db),
    fees: await selectRegistryFees(db),
    prices: await selectPrices(db),
    homeCurrency: settings.homeCurrency,
    zone: settings.zone,
  };
}
