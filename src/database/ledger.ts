import type { LedgerColumns, LedgerRules } from '@/core/ledger';
import { selectAccounts } from './accounts';
import { selectPolicies, selectRegistryFees } from './policies';
import type { Queryable } from './pool';
import { selectPrices, selectRises } from './prices';
import { selectRates } from './rates';
import { selectSettings } from './settings';

/** The number that rises with every change. */
export async function selectRevision(db: Queryable): Promise<number> {
  const { rows } = await db.query<{ n: number }>('select n from revision');
  return rows[0]?.n ?? 0;
}

/**
 * Tells the planner what the ledger holds. After many rows have come at once it would plan for the few there were before, and read
 * the ledger in a time that grows with the square of its names, until PostgreSQL looks by itself a minute or more later.
 */
export async function analyzeLedger(tx: Queryable): Promise<void> {
  await tx.query('analyze names, entries');
}

/** The number that rises with every change, and how far the office's clock has been moved: both may have come from another process. */
export async function selectState(
  db: Queryable,
): Promise<{ readonly revision: number; readonly clockOffsetMs: number }> {
  const { rows } = await db.query<{ revision: number; clockOffsetMs: number }>(
    `select n as revision, coalesce((select (value #>> '{}')::bigint from settings where key = 'clockOffsetMs'), 0) as "clockOffsetMs"
     from revision`,
  );
  return rows[0] ?? { revision: 0, clockOffsetMs: 0 };
}

/** Marks the ledger as changed. Its row lock also puts writers in line. */
export async function bumpRevision(db: Queryable): Promise<void> {
  await db.query('update revision set n = n + 1');
}

const ms = (column: string) => `(date_part('epoch', ${column}) * 1000)::int8`;
const sparse = (value: string, when: string) =>
  `coalesce(jsonb_object_agg(n.place, ${value}) filter (where ${when}), '{}'::jsonb)`;

// Aggregates take the rows as the last subquery orders them: an order of their own would sort once for each column.
const COLUMNS = `
  with totals as materialized (
    select name_id, jsonb_agg(jsonb_build_object('minor', minor, 'currency', currency) order by currency) as spent
    from (select name_id, currency, sum(minor) as minor from spending group by name_id, currency) by_currency
    group by name_id
  ), n as (
    select names.*, totals.spent, row_number() over (order by names.ascii) - 1 as place
    from names left join totals on totals.name_id = names.id
    where names.gone_at is null and ($1::int[] is null or names.id = any($1))
    order by names.ascii
  )
  select json_build_object(
    'id', coalesce(json_agg(id), '[]'),
    'ascii', coalesce(json_agg(ascii), '[]'),
    'ending', coalesce(json_agg(ending), '[]'),
    'accountId', coalesce(json_agg(account_id), '[]'),
    'registered', coalesce(json_agg(${ms('registered')}), '[]'),
    'registeredDay', coalesce(json_agg(registered_day), '[]'),
    'termEnd', coalesce(json_agg(${ms('term_end')}), '[]'),
    'termEndDay', coalesce(json_agg(term_end_day), '[]'),
    'setting', coalesce(json_agg(setting), '[]'),
    'standing', coalesce(json_agg(standing), '[]'),
    'settingSince', coalesce(json_agg(${ms('setting_since')}), '[]'),
    'purpose', coalesce(json_agg(purpose), '[]'),
    'neverLost', coalesce(json_agg(never_lost), '[]'),
    'lock', coalesce(json_agg(lock), '[]'),
    'privacy', coalesce(json_agg(privacy), '[]'),
    'asking', coalesce(json_agg(asking_minor), '[]'),
    'askingCurrency', coalesce(json_agg(asking_currency), '[]'),
    'checkedAt', coalesce(json_agg(${ms('checked_at')}), '[]'),
    'sparse', json_build_object(
      'unicode', ${sparse('"unicode"', '"unicode" <> ascii')},
      'observed', ${sparse(`jsonb_build_object('phase', observed, 'at', ${ms('observed_at')})`, 'observed is not null')},
      'requested', ${sparse('requested', 'requested is not null')},
      'requestedLock', ${sparse("case when requested_lock then 'on' else 'off' end", 'requested_lock is not null')},
      'requestedPrivacy', ${sparse("case when requested_privacy then 'on' else 'off' end", 'requested_privacy is not null')},
      'stalledBy', ${sparse('setting_evidence', "setting = 'stalled' and setting_evidence is not null")},
      'rescue', ${sparse('rescue_verdict', 'rescue_verdict is not null and rescue_for = term_end')},
      'bestOffer', ${sparse("jsonb_build_object('minor', best_offer_minor, 'currency', best_offer_currency)", 'best_offer_minor is not null')},
      'saleChance', ${sparse('sale_chance', 'sale_chance is not null')},
      'confirmMailBy', ${sparse(ms('confirm_mail_by'), 'confirm_mail_by is not null')},
      'transferred', ${sparse(`jsonb_build_object('at', ${ms('transferred')}, 'day', transferred_day)`, 'transferred is not null')},
      'holderChanged', ${sparse(`jsonb_build_object('at', ${ms('holder_changed')}, 'day', holder_changed_day, 'waived', holder_lock_waived)`, 'holder_changed is not null')},
      'gracePaid', ${sparse(ms('grace_paid'), 'grace_paid is not null')},
      'statuses', ${sparse('to_jsonb(statuses)', "statuses <> '{}'")},
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
  // Prepared once for each connection: planning it takes longer than reading a few hundred names.
  const { rows } = await db.query<{ columns: string }>({ name: 'ledger-columns', text: COLUMNS, values: [nameIds] });
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
  const [settings, accounts, policies, fees, prices, rates, rises] = await Promise.all([
    selectSettings(db),
    selectAccounts(db),
    selectPolicies(db),
    selectRegistryFees(db),
    selectPrices(db),
    selectRates(db),
    selectRises(db),
  ]);
  return {
    accounts,
    policies,
    fees,
    prices,
    rates,
    rises,
    homeCurrency: settings.homeCurrency,
    zone: settings.zone,
    odds: settings.saleOdds,
  };
}
