import pLimit from 'p-limit';
import { Client } from 'pg';
import { type Database, DEADLINES } from './pool';

/** The one connection on which a pool's process holds its locks, and the names of those it holds. */
interface Holder {
  readonly client: Promise<Client>;
  /** Asks on the connection, one question after the other. */
  ask(statement: string, name: string): Promise<boolean>;
  readonly held: Set<string>;
  idle: NodeJS.Timeout | undefined;
  /** Whoever comes next gets another connection. */
  forget(): void;
}

/** Without a lock the connection is closed after so long. */
const IDLE_MS = 5000;

const holders = new WeakMap<Database, Holder>();

function holderOf(database: Database): Holder {
  const known = holders.get(database);
  if (known) return known;
  const { connectionString } = database.options;
  const client = new Client({
    ...(connectionString === undefined ? {} : { connectionString }),
    ...DEADLINES,
    application_name: 'name-ledger-locks',
    query_timeout: 10_000,
  });
  const oneByOne = pLimit(1);
  const holder: Holder = {
    client: client.connect().then(() => client),
    ask: (statement, name) =>
      oneByOne(async () => {
        await holder.client;
        const { rows } = await client.query<{ mine: boolean }>(statement, [name]);
        return rows[0]?.mine === true;
      }),
    held: new Set(),
    idle: undefined,
    forget: () => {
      if (holders.get(database) === holder) holders.delete(database);
    },
  };
  // A connection that breaks lets its locks go; the states of what is worked on keep it from being done twice.
  client.on('error', holder.forget);
  client.on('end', holder.forget);
  holder.client.catch(holder.forget);
  holders.set(database, holder);
  return holder;
}

/**
 * Runs `work` while nobody else does under the same name; answers `null` when somebody does. Every lock of a process is held on one
 * connection that nothing else needs: so no number of locks waits for another, nor for a connection of the pool. They end with
 * it, so a killed process leaves none behind.
 */
export async function whileAlone<T>(database: Database, name: string, work: () => Promise<T>): Promise<T | null> {
  const holder = holderOf(database);
  // PostgreSQL would give the same connection the same lock twice.
  if (holder.held.has(name)) return null;
  clearTimeout(holder.idle);
  holder.held.add(name);
  try {
    if (!(await holder.ask('select pg_try_advisory_lock(hashtextextended($1, 0)) as mine', name))) return null;
    try {
      return await work();
    } finally {
      // A lock that cannot be given back ends with its connection.
      await holder.ask('select pg_advisory_unlock(hashtextextended($1, 0)) as mine', name).catch(() => {
        holder.forget();
        void holder.client.then((client) => client.end()).catch(() => undefined);
      });
    }
  } finally {
    holder.held.delete(name);
    if (holder.held.size === 0) closeWhenIdle(holder);
  }
}

function closeWhenIdle(holder: Holder): void {
  holder.idle = setTimeout(() => {
    holder.forget();
    void holder.client.then((client) => client.end()).catch(() => undefined);
  }, IDLE_MS).unref();
}

/**
 * Runs `work` once nobody else does under the same name: unlike `whileAlone` it waits for its turn, however long that is. The lock is
 * held on a connection of its own, and ends with it.
 */
export async function inTurn<T>(databaseUrl: string, name: string, work: () => Promise<T>): Promise<T> {
  const client = new Client({ connectionString: databaseUrl, application_name: 'name-ledger-turns' });
  await client.connect();
  try {
    await client.query('select pg_advisory_lock(hashtextextended($1, 0))', [name]);
    return await work();
  } finally {
    await client.end();
  }
}
