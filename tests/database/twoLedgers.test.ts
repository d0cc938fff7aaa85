import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { afterAll, beforeAll, beforeEach, expect, inject, test, vi } from 'vitest';
import { databaseAt, runAdmin } from './postgres';

/** The office's own ledger and the demo beside it, as the start command keeps them. */
const home = mkdtempSync(join(tmpdir(), 'name-ledger-two-'));
chmodSync(home, 0o755);
vi.stubEnv('NAME_LEDGER_HOME', home);
const own = `own_${process.pid}`;
const admin = inject('postgresUrl');
const url = databaseAt(admin, own);

type Ledgers = typeof import('../../bin/support/ledgers');
let ledgers: Ledgers;
beforeAll(async () => {
  ledgers = await import('../../bin/support/ledgers');
});
const forget = async () => {
  for (const name of [own, 'demo', 'practice']) await runAdmin(admin, `drop database if exists ${name} with (force)`);
  rmSync(join(home, 'open'), { force: true });
};
beforeEach(async () => {
  await forget();
  await runAdmin(admin, `create database ${own}`);
});
afterAll(async () => {
  await forget();
  rmSync(home, { recursive: true, force: true });
});

const ask = async (at: string, sql: string) => {
  const client = new pg.Client({ connectionString: at });
  await client.connect();
  try {
    return (await client.query(sql)).rows;
  } finally {
    await client.end();
  }
};

test('the first time the office’s own ledger is open; what is noted is open the next time', () => {
  expect(ledgers.ledgerOpenLast()).toBe('own');
  ledgers.noteOpenLedger('demo');
  expect(ledgers.ledgerOpenLast()).toBe('demo');
  ledgers.noteOpenLedger('own');
  expect(ledgers.ledgerOpenLast()).toBe('own');
  writeFileSync(join(home, 'open'), 'something else');
  expect(ledgers.ledgerOpenLast()).toBe('own');
});

test('the demo is made once, kept while it is left, and gone when it is thrown away; the own ledger stays', async () => {
  await ask(url, 'create table kept (n int)');
  expect(await ledgers.hasDemo(url)).toBe(false);
  const first = await ledgers.databaseBeside(url, 'demo');
  expect(first).toEqual({ url: ledgers.demoUrl(url), isNew: true });
  await ask(first.url, 'create table tried (n int)');
  // Cut off while it is made it is none: the start command makes it anew.
  expect(await ledgers.hasDemo(url)).toBe(false);
  await ledgers.noteDemoMade(url);
  expect(await ledgers.hasDemo(url)).toBe(true);
  expect(await ledgers.databaseBeside(url, 'demo')).toMatchObject({ isNew: false });
  expect(await ask(first.url, "select to_regclass('tried') is not null as there")).toEqual([{ there: true }]);
  await ledgers.databaseBeside(url, 'practice');
  await ledgers.dropDemo(url);
  expect(await ledgers.hasDemo(url)).toBe(false);
  expect(await ask(url, "select to_regclass('kept') is not null as there")).toEqual([{ there: true }]);
  // Made anew, it holds nothing of the one before.
  const again = await ledgers.databaseBeside(url, 'demo');
  expect(again.isNew).toBe(true);
  expect(await ask(again.url, "select to_regclass('tried') is not null as there")).toEqual([{ there: false }]);
});

test('a demo of before stands where the own ledger belongs: it is moved, stays open, and is moved once', async () => {
  await ask(url, 'create table of_the_demo (n int)');
  await ledgers.moveEarlierDemo(url);
  expect(await ledgers.hasDemo(url), 'without its mark nothing is moved').toBe(false);
  writeFileSync(join(home, 'demo'), '');
  await ledgers.moveEarlierDemo(url);
  expect(existsSync(join(home, 'demo'))).toBe(false);
  expect(readFileSync(join(home, 'open'), 'utf8')).toBe('demo');
  expect(await ask(ledgers.demoUrl(url), "select to_regclass('of_the_demo') is not null as there")).toEqual([
    { there: true },
  ]);
  expect(await ledgers.hasDemo(url), 'it was whole where it stood').toBe(true);
  expect(await ask(url, "select to_regclass('of_the_demo') is not null as there")).toEqual([{ there: false }]);
});
