import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { runner } from 'node-pg-migrate';

const MIGRATIONS = join(dirname(fileURLToPath(import.meta.url)), 'migrations');

/** Brings the database up to the newest migration, each in a transaction, under an advisory lock. Answers what was applied. */
export async function migrate(databaseUrl: string): Promise<string[]> {
  const applied = await runner({
    databaseUrl,
    dir: MIGRATIONS,
    direction: 'up',
    migrationsTable: 'migrations',
    checkOrder: true,
    advisoryLockMode: 'wait',
    log: () => undefined,
  });
  return applied.map((migration) => migration.name);
}
