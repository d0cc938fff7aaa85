import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { runner } from 'node-pg-migrate';
import { Client } from 'pg';

const HERE = dirname(fileURLToPath(import.meta.url));
const MIGRATIONS = join(HERE, 'migrations');

/** A database that this program cannot work with, and what to do about it. */
export class UnfitDatabase extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'UnfitDatabase';
  }
}

/**
 * Brings the database up to the newest migration, each in a transaction, under an advisory lock. Answers what was applied.
 * Throws `UnfitDatabase` when a migration was changed after it had been applied, or when tables lack what this version needs.
 */
export async function migrate(databaseUrl: string): Promise<string[]> {
  const client = new Client({ connectionString: databaseUrl, connectionTimeoutMillis: 10_000 });
  await client.connect();
  try {
    await refuseChanged(client);
    const applied = await runner({
      dbClient: client,
      dir: MIGRATIONS,
      direction: 'up',
      migrationsTable: 'migrations',
      checkOrder: true,
      advisoryLockMode: 'wait',
      log: () => undefined,
    });
    await refuseLacking(client);
    await client.query(
      'insert into migration_checksums (name, sha256) select * from unnest($1::text[], $2::text[]) on conflict do nothing',
      [[...checksums().keys()], [...checksums().values()]],
    );
    return applied.map((migration) => migration.name);
  } finally {
    await client.end();
  }
}

/** The SHA-256 of each migration as it stands here, by name. */
function checksums(): Map<string, string> {
  const files = readdirSync(MIGRATIONS).filter((file) => file.endsWith('.sql'));
  return new Map(
    files.sort().map((file) => {
      const hash = createHash('sha256').update(readFileSync(join(MIGRATIONS, file)));
      return [file.replace(/\.sql$/, ''), hash.digest('hex')];
    }),
  );
}

async function refuseChanged(client: Client): Promise<void> {
  const { rows } = await client.query<{ there: boolean }>(
    "select to_regclass('public.migration_checksums') is not null as there",
  );
  if (!rows[0]?.there) return;
  const kept = await client.query<{ name: string; sha256: string }>('select name, sha256 from migration_checksums');
  const now = checksums();
  for (const { name, sha256 } of kept.rows) {
    const here = now.get(name);
    if (here === undefined)
      throw new UnfitDatabase(
        `This database was made by a newer version of the program: it has the migration ${name}, which this one does not know. Start the newer version.`,
      );
    if (here !== sha256)
      throw new UnfitDatabase(
        `The file of migration ${name} is not the one that was applied to this database. Put back src/database/migrations/${name}.sql as it was installed; a change belongs into a migration of its own.`,
      );
  }
}

/** The columns that every ledger of this version has, as `table.column type`; a test holds the file against a new database. */
export const SCHEMA_FILE = join(HERE, 'schema.txt');

export async function columnsOf(client: Pick<Client, 'query'>): Promise<string[]> {
  const { rows } = await client.query<{ line: string }>(
    `select table_name || '.' || column_name || ' ' || udt_name as line from information_schema.columns
     where table_schema = 'public' and table_name <> 'migrations' order by 1`,
  );
  return rows.map((row) => row.line);
}

async function refuseLacking(client: Client): Promise<void> {
  const there = new Set(await columnsOf(client));
  const lacking = readFileSync(SCHEMA_FILE, 'utf8')
    .split('\n')
    .filter((line) => line !== '' && !there.has(line));
  if (lacking.length > 0)
    throw new UnfitDatabase(
      `This database lacks ${lacking.slice(0, 5).join(', ')}${lacking.length > 5 ? ` and ${lacking.length - 5} more` : ''}: it was made by a version in between that was never finished. Save a backup with the program that made it, start this one with an empty database, and restore it there.`,
    );
}
