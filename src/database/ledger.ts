import type { LedgerRules } from '@/core/ledger';
import { selectLedgerAccounts } from './accounts';
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

/**
 * Which ledger it is, the number that rises with every change, and how far the office's clock has been moved: the last two may have come
 * from another process.
 */
export async function selectState(
  db: Queryable,
): Promise<{ readonly ledger: string; readonly revision: number; readonly clockOffsetMs: number }> {
  const { rows } = await db.query<{ ledger: string; revision: number; clockOffsetMs: number }>(
    `select ledger, n as revision, coalesce((select (value #>> '{}')::bigint from settings where key = 'clockOffsetMs'), 0) as "clockOffsetMs"
     from revision`,
  );
  return rows[0] ?? { ledger: '', revision: 0, clockOffsetMs: 0 };
}

/** Marks the ledger as changed. Its row lock also puts writers in line. */
export async function bumpRevision(db: Queryable): Promise<void> {
  await db.query('update revision set n = n + 1');
}

/**
 * The names that changes have touched since the ledger's number was `since`, that one included; `null` when that is not known any more, or
 * all of them may have been. See `changed_names`.
 */
export async function selectChangedNames(db: Queryable, since: number): Promise<number[] | null> {
  const { rows } = await db.query<{ known: boolean; ids: number[] }>(
    `select $1 between n - 1000 and n and not exists (select from changed_names where revision >= $1 and name_id = 0) as known,
       array(select distinct name_id from changed_names where revision >= $1) as ids from revision`,
    [since],
  );
  return rows[0]?.known ? rows[0].ids : null;
}

/** Accounts, policies, fees and prices as the computation wants them. */
export async function selectLedgerRules(db: Queryable): Promise<LedgerRules> {
  const [settings, accounts, policies, fees, prices, rates, rises] = await Promise.all([
    selectSettings(db),
    selectLedgerAccounts(db),
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
    assumptions: settings.saleOdds,
  };
}
