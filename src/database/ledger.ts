import type { LedgerRules } from '@/core/ledger';
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
