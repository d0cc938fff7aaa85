import { Client } from 'pg';
import type { Database } from './pool';

/** So many locks are held by one process at once; who comes later waits for a place, holding nothing meanwhile. */
const MOST_HELD = 8;

let held = 0;
const queue: (() => void)[] = [];

async function place(): Promise<() => void> {
  while (held >= MOST_HELD) await new Promise<void>((go) => queue.push(go));
  held += 1;
  return () => {
    held -= 1;
    queue.shift()?.();
  };
}

/**
 * Runs `work` while nobody else does under the same name; answers `null` when somebody does. The lock is held on a connection
 * of its own, never one of the pool that the work itself needs: otherwise as many locks as connections would wait for each
 * other for good. It ends with its connection, so a killed process leaves none behind.
 */
export async function whileAlone<T>(database: Database, name: string, work: () => Promise<T>): Promise<T | null> {
  const leave = await place();
  try {
    const { connectionString } = database.options;
    const client = new Client({
      ...(connectionString === undefined ? {} : { connectionString }),
      application_name: 'name-ledger-lock',
      connectionTimeoutMillis: 10_000,
      query_timeout: 10_000,
      keepAlive: true,
    });
    // A connection that breaks lets the lock go; the states of what is worked on keep it from being done twice.
    client.on('error', () => undefined);
    await client.connect();
    try {
      const { rows } = await client.query<{ mine: boolean }>(
        'select pg_try_advisory_lock(hashtextextended($1, 0)) as mine',
        [name],
      );
      return rows[0]?.mine ? await work() : null;
    } finally {
      await client.end().catch(() => undefined);
    }
  } finally {
    leave();
  }
}
