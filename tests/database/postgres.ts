import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Client } from 'pg';
import { migrate } from '@/database/migrate';
import { startPostgres } from '../../bin/support/postgres';

/** A server for one run of tests, with a migrated database to copy from. */
export interface TestServer {
  readonly url: string;
  stop(): Promise<void>;
}

export const TEMPLATE = 'ledger_template';

/** The address of another database of the same server. */
export function databaseAt(url: string, name: string): string {
  const other = new URL(url);
  other.pathname = `/${name}`;
  return other.toString();
}

export async function runAdmin(url: string, sql: string): Promise<void> {
  const client = new Client({ connectionString: url });
  await client.connect();
  try {
    await client.query(sql);
  } finally {
    await client.end();
  }
}

/** Starts a private PostgreSQL for tests, or uses the one of `DATABASE_URL`. */
export async function startTestServer(): Promise<TestServer> {
  const own = process.env.DATABASE_URL;
  const directory = mkdtempSync(join(tmpdir(), 'name-ledger-test-'));
  const server = own ? { url: own, stop: async () => undefined } : await startPostgres(directory, { durable: false });
  await runAdmin(server.url, `drop database if exists ${TEMPLATE}`);
  await runAdmin(server.url, `create database ${TEMPLATE}`);
  await migrate(databaseAt(server.url, TEMPLATE));
  return {
    url: server.url,
    stop: async () => {
      await server.stop();
      rmSync(directory, { recursive: true, force: true });
    },
  };
}
