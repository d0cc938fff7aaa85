import { type ClientBase, escapeLiteral, Pool, type PoolClient, type PoolConfig, types } from 'pg';
import { actingName } from './acting';

/** What a statement is run on: the pool for a single query, a client within a transaction. */
export type Database = Pool;
export type Transaction = PoolClient & { readonly inTransaction: true };
export type Queryable = Pool | PoolClient;

// Whole numbers and days come as plain numbers and texts; nothing in the ledger passes 2^53.
types.setTypeParser(types.builtins.INT8, Number);
types.setTypeParser(types.builtins.NUMERIC, Number);
types.setTypeParser(types.builtins.DATE, (text) => text);
types.setTypeParser(types.builtins.TIMESTAMPTZ, (text) =>
  Date.parse(text.replace(' ', 'T').replace(/([+-]\d\d)$/, '$1:00')),
);

/** How long anything may take before it is given up, in milliseconds: waiting for a connection, one statement, an idle transaction. */
export const DEADLINES = {
  connectionTimeoutMillis: 10_000,
  statement_timeout: 60_000,
  lock_timeout: 30_000,
  idle_in_transaction_session_timeout: 60_000,
  // Ours, for a server that is halted and cannot keep its own.
  query_timeout: 75_000,
  keepAlive: true,
} as const;

/** However a server counts and writes instants and days for others, here it does as they are read: in UTC, by ISO 8601. */
async function ourWay(client: ClientBase): Promise<void> {
  await client.query("set timezone = 'UTC'; set datestyle = 'ISO'");
}

/** Opens a pool. `onError` hears of connections that break, idle or in use, which would otherwise end the process. */
export function openDatabase(url: string, onError: (error: Error) => void, more: PoolConfig = {}): Database {
  const pool = new Pool({
    connectionString: url,
    max: 10,
    application_name: 'name-ledger',
    onConnect: ourWay,
    ...DEADLINES,
    ...more,
  });
  pool.on('error', onError);
  pool.on('connect', (client) => client.on('error', onError));
  return pool;
}

/** Begins a transaction; what it writes stands under the name of who is at work (`acting_person()` in the database). */
function begin(): string {
  const name = actingName();
  return name === undefined ? 'begin' : `begin; select set_config('name_ledger.person', ${escapeLiteral(name)}, true)`;
}

/** Runs `work` in one transaction: all of it is written, or nothing. */
export async function transaction<T>(database: Database, work: (tx: Transaction) => Promise<T>): Promise<T> {
  const client = await database.connect();
  let isSound = true;
  try {
    await client.query(begin());
    const result = await work(client as Transaction);
    await client.query('commit');
    return result;
  } catch (error) {
    await client.query('rollback').catch(() => {
      isSound = false;
    });
    throw error;
  } finally {
    // A connection that cannot even roll back is thrown away: nobody knows what it would do next.
    client.release(!isSound);
  }
}

/** Asks several questions of the database as it was at one moment. */
export async function snapshot<T>(database: Database, ask: (client: PoolClient) => Promise<T>): Promise<T> {
  const client = await database.connect();
  let isSound = false;
  try {
    await client.query('begin isolation level repeatable read, read only');
    const answer = await ask(client);
    await client.query('commit');
    isSound = true;
    return answer;
  } finally {
    // One that is in the middle of an answer cannot be used again.
    client.release(!isSound);
  }
}

/** Gives the statements of this transaction longer: for what moves a whole ledger at once. */
export async function allowMinutes(tx: Transaction, minutes: number): Promise<void> {
  await tx.query(`set local statement_timeout = '${Math.ceil(minutes)}min'`);
}

/** Gives each sort and join of this transaction memory for a whole ledger: what does not fit into the usual few megabytes goes by way of the disk. */
export async function allowMemory(tx: Transaction): Promise<void> {
  await tx.query("set local work_mem = '128MB'");
}
