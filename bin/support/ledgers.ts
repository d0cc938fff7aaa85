import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import pg from 'pg';
import { migrate } from '../../src/database/migrate';
import { type Database, openDatabase } from '../../src/database/pool';
import type { LedgerName } from '../../src/usecases/ledgers/choice';
import { paths } from './home';

/** Which ledger was open last in this home: each has a database of its own, and only one is open. */
export function ledgerOpenLast(): LedgerName {
  return existsSync(paths.open) && readFileSync(paths.open, 'utf8').trim() === 'demo' ? 'demo' : 'own';
}

export function noteOpenLedger(ledger: LedgerName): void {
  writeFileSync(paths.open, ledger);
}

const beside = (databaseUrl: string, database: string) => {
  const url = new URL(databaseUrl);
  url.pathname = `/${database}`;
  return url.toString();
};

/** The address of the demo's database, beside the office's own. */
export const demoUrl = (databaseUrl: string) => beside(databaseUrl, 'demo');

async function asking<T>(databaseUrl: string, act: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    return await act(client);
  } finally {
    await client.end();
  }
}

/** Makes a database beside the ledger's unless it is there; answers its address, and whether it is new. `fresh` discards it first. */
export function databaseBeside(
  databaseUrl: string,
  database: 'demo' | 'practice',
  fresh = false,
): Promise<{ readonly url: string; readonly isNew: boolean }> {
  return asking(databaseUrl, async (client) => {
    if (fresh) await client.query(`drop database if exists ${database} with (force)`);
    const { rows } = await client.query('select 1 from pg_database where datname = $1', [database]);
    if (rows.length === 0) await client.query(`create database ${database}`);
    return { url: beside(databaseUrl, database), isNew: rows.length === 0 };
  });
}

/** Throws the demo away, with its practice world. */
export function dropDemo(databaseUrl: string): Promise<void> {
  return asking(databaseUrl, async (client) => {
    for (const database of ['demo', 'practice']) await client.query(`drop database if exists ${database} with (force)`);
  });
}

const MADE = "comment on database demo is 'made'";

/** Says of the demo that it is whole: one that was cut off while it was made is none, and is made anew. */
export function noteDemoMade(databaseUrl: string): Promise<void> {
  return asking(databaseUrl, async (client) => void (await client.query(MADE)));
}

/** Whether there is a whole demo, open or left. */
export function hasDemo(databaseUrl: string): Promise<boolean> {
  return asking(databaseUrl, async (client) => {
    const { rows } = await client.query(
      "select 1 from pg_database where datname = 'demo' and shobj_description(oid, 'pg_database') = 'made'",
    );
    return rows.length > 0;
  });
}

/**
 * In a home of before, the demo stood where the office's own ledger belongs, with a mark beside it. It is moved to its own database, and
 * stays open.
 */
export async function moveEarlierDemo(databaseUrl: string): Promise<void> {
  if (!existsSync(paths.earlierDemo)) return;
  const own = new URL(databaseUrl).pathname.slice(1);
  await asking(beside(databaseUrl, 'template1'), async (client) => {
    const { rows } = await client.query("select 1 from pg_database where datname = 'demo'");
    if (rows.length > 0) return;
    await client.query(`alter database ${own} rename to demo`);
    await client.query(`create database ${own}`);
    await client.query(MADE);
  });
  noteOpenLedger('demo');
  rmSync(paths.earlierDemo);
}

/** A database with its tables as this program wants them. */
export async function migrated(url: string): Promise<Database> {
  await migrate(url);
  return openDatabase(url, (error) => console.error(error.message));
}
