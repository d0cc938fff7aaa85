import { Pool, type PoolClient } from 'pg';
import { type Database, DEADLINES } from './pool';

/** So many locks are held by one process at once; who comes later waits for a place, holding nothing meanwhile. */
const MOST_HELD = 8;
const LONGEST_WAIT_MS = 120_000;

/** Connections on which nothing but locks is held, beside those of each pool. */
const lockPools = new WeakMap<Database, Pool>();

function lockPool(database: Database): Pool {
  const known = lockPools.get(database);
  if (known) return known;
  const { connectionString } = database.options;
  const pool = new Pool({
    ...(connectionString === undefined ? {} : { connectionString }),
    ...DEADLINES,
    application_name: 'name-ledger-locks',
    max: MOST_HELD,
    connectionTimeoutMillis: LONGEST_WAIT_MS,
    // A lock is held while its work goes on, however long the connection is idle.
    idle_in_transaction_session_timeout: 0,
    query_timeout: 10_000,
    idleTimeoutMillis: 5000,
    allowExitOnIdle: true,
  });
  // A connection that breaks lets its lock go; the states of what is worked on keep it from being done twice.
  pool.on('error', () => undefined);
  pool.on('connect', (client) => client.on('error', () => undefined));
  lockPools.set(database, pool);
  return pool;
}

/**
 * Runs `work` while nobody else does under the same name; answers `null` when somebody does. The lock is held on a connection
 * of its own, never one of the pool that the work itself needs: otherwise as many locks as connections would wait for each
 * other for good. It ends with its connection, so a killed process leaves none behind.
 */
export async function whileAlone<T>(database: Database, name: string, work: () => Promise<T>): Promise<T | null> {
  const client = await lockPool(database).connect();
  let isFree = false;
  try {
    const { rows } = await client.query<{ mine: boolean }>(
      'select pg_try_advisory_lock(hashtextextended($1, 0)) as mine',
      [name],
    );
    if (!rows[0]?.mine) {
      isFree = true;
      return null;
    }
    try {
      return await work();
    } finally {
      isFree = await unlock(client, name);
    }
  } finally {
    // A connection that may still hold the lock is closed: with it the lock ends.
    client.release(!isFree);
  }
}

async function unlock(client: PoolClient, name: string): Promise<boolean> {
  try {
    await client.query('select pg_advisory_unlock(hashtextextended($1, 0))', [name]);
    return true;
  } catch {
    return false;
  }
}
