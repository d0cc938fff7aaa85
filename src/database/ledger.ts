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

/** The state of the ledger as it is now. */
export interface LedgerState {
  /** Which ledger it is. */
  readonly ledger: string;
  /** The number that rises with every change. */
  readonly revision: number;
  /** The number of the earliest state that whoever asks may be answered of: behind `revision` only while very many names are being read. */
  readonly told: number;
  /** How far the office's clock has been moved. Like the rest it may have come from another process. */
  readonly clockOffsetMs: number;
}

/** Which state the ledger is in, in one question. */
export async function selectState(db: Queryable): Promise<LedgerState> {
  const { rows } = await db.query<LedgerState>(
    `select ledger, n as revision, told, coalesce((select (value #>> '{}')::bigint from settings where key = 'clockOffsetMs'), 0) as "clockOffsetMs"
     from revision`,
  );
  return rows[0] ?? { ledger: '', revision: 0, told: 0, clockOffsetMs: 0 };
}

/** From now on nobody is answered of an earlier state than that of a number. */
export async function tellState(db: Queryable, revision: number): Promise<void> {
  await db.query('update revision set told = greatest(told, least($1, n))', [revision]);
}

/** Marks the ledger as changed. Its row lock also puts writers in line. */
export async function bumpRevision(db: Queryable): Promise<void> {
  await db.query('update revision set n = n + 1');
}

/**
 * The names that changes have touched since the ledger's number was `since`, that one included; `null` when that is not known any more, or
 * all of them may have been after it. (The number rises before anything is written, so whoever knows a state knows all that made it; to read
 * a few names of it again costs nothing, to read all of them would.) See `changed_names`.
 */
export async function selectChangedNames(db: Queryable, since: number): Promise<number[] | null> {
  const { rows } = await db.query<{ known: boolean; ids: number[] }>(
    `select $1 between n - 1000 and n and not exists (select from changed_names where revision > $1 and name_id = 0) as known,
       array(select distinct name_id from changed_names where revision >= $1 and name_id <> 0) as ids from revision`,
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
