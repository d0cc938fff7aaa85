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

/** Whoever has a server for others too has it order texts as his language does, count in his zone, and write days his way. */
const UNLIKE_OURS = "template template0 encoding 'UTF8' locale 'C.UTF-8' locale_provider icu icu_locale 'da'";
const THEIR_WAY = `alter role current_user set timezone = 'Asia/Kolkata'; alter role current_user set datestyle = 'German';
  alter role current_user set intervalstyle = 'iso_8601'`;

/** Starts a private PostgreSQL for tests, or uses the one of `DATABASE_URL`. `isUnlikeOurs`: as somebody else may have set it up. */
export async function startTestServer(isUnlikeOurs = false): Promise<TestServer> {
  const own = process.env.DATABASE_URL;
  const directory = mkdtempSync(join(tmpdir(), 'name-ledger-test-'));
  const server = own ? { url: own, stop: async () => undefined } : await startPostgres(directory, { durable: false });
  await runAdmin(server.url, `drop database if exists ${TEMPLATE}`);
  const isOtherwise = isUnlikeOurs && own === undefined;
  await runAdmin(server.url, `create database ${TEMPLATE} ${isOtherwise ? UNLIKE_OURS : ''}`);
  if (isOtherwise) await runAdmin(server.url, THEIR_WAY);
  await migrate(databaseAt(server.url, TEMPLATE));
  return {
    url: server.url,
    stop: async () => {
      await server.stop();
      rmSync(directory, { recursive: true, force: true });
    },
  };
}
