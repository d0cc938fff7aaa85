import { execFileSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seedDemo } from '@practice/scenario/seed';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { migrate } from '@/database/migrate';
import { type Database, openDatabase } from '@/database/pool';
import { Shop } from '@/shop/answer';
import type { Deps } from '@/usecases/deps';
import { editNames } from '@/usecases/names/edit';
import { reading } from '@/usecases/reading';
import { saveListings } from '@/usecases/selling/listings';
import { account, type PostgresServer, programs, startPostgres, stopServer } from '../../bin/support/postgres';
import { ledgerOn, TODAY } from '../database/ledger';
import { LISTING, must } from '../database/marketplace';

/** A PostgreSQL and a streaming copy of it, as an office would set them up. */
let home: string;
let primary: PostgresServer;
let copy: PostgresServer;
let reads: Database;
let ledger: Deps;
beforeAll(async () => {
  home = mkdtempSync(join(tmpdir(), 'name-ledger-copy-'));
  const who = account();
  execFileSync('chmod', ['755', home]);
  primary = await startPostgres(join(home, 'primary'), { durable: true });
  await migrate(primary.url);
  const url = new URL(primary.url);
  const data = join(home, 'copy', 'data');
  mkdirSync(join(home, 'copy'), { mode: 0o700 });
  cpSync(join(home, 'primary', 'password'), join(home, 'copy', 'password'));
  if (who.uid !== undefined) execFileSync('chown', ['-R', `${who.uid}:${who.gid}`, join(home, 'copy')]);
  execFileSync(
    join(programs(), 'pg_basebackup'),
    ['-D', data, '-R', '-X', 'stream', '-c', 'fast', '-h', '127.0.0.1', '-p', url.port, '-U', 'app'],
    {
      ...who,
      cwd: home,
      env: { ...process.env, PGPASSWORD: url.password, HOME: home },
      stdio: ['ignore', 'ignore', 'pipe'],
    },
  );
  copy = await startPostgres(join(home, 'copy'), { durable: true });
  reads = openDatabase(copy.url, () => undefined);
  ledger = { ...ledgerOn(primary.url), reads };
  await seedDemo(ledger.database, TODAY);
}, 120_000);
afterAll(async () => {
  await reads.end();
  await ledger.database.end();
  await stopServer(copy.child);
  await stopServer(primary.child);
  rmSync(home, { recursive: true, force: true });
});

const isFromCopy = async (more = {}) => (await reading(ledger, more)).database === reads;
const holdCopy = () => reads.query('select pg_wal_replay_pause()');
const letCopy = () => reads.query('select pg_wal_replay_resume()');
const idOf = async (ascii: string) =>
  (await ledger.database.query<{ id: number }>('select id from names where ascii = $1', [ascii])).rows[0]?.id as number;

test('what is read comes from the copy, and whoever reads after a change reads that change', async () => {
  const id = await idOf('moorgauge.io');
  for (let n = 0; n < 50; n += 1) {
    must(await editNames(ledger, { nameIds: [id], edit: { notes: `note ${n}` } }));
    const { database } = await reading(ledger);
    const { rows } = await database.query<{ notes: string }>('select notes from names where id = $1', [id]);
    expect(rows[0]?.notes).toBe(`note ${n}`);
  }
  await expect.poll(() => isFromCopy(), { timeout: 5000 }).toBe(true);
});

test('while the copy is behind the primary is read, and the copy again once it has caught up', async () => {
  const id = await idOf('moorgauge.io');
  await holdCopy();
  try {
    must(await editNames(ledger, { nameIds: [id], edit: { notes: 'written while the copy stood still' } }));
    expect(await isFromCopy()).toBe(false);
    const { rows } = await reads.query<{ notes: string }>('select notes from names where id = $1', [id]);
    expect(rows[0]?.notes).not.toBe('written while the copy stood still');
  } finally {
    await letCopy();
  }
  await expect.poll(() => isFromCopy(), { timeout: 5000 }).toBe(true);
});

test('nothing is ever written to the copy: it refuses', async () => {
  await expect(reads.query('update revision set n = n + 1')).rejects.toThrow(/read-only/);
});

test('windows are shown from the copy while the primary is down; nothing is taken then, and it is said', async () => {
  must(await saveListings(ledger, { send: true, listings: [{ ...LISTING, nameId: await idOf('moorgauge.io') }] }));
  await expect.poll(() => isFromCopy(), { timeout: 5000 }).toBe(true);
  await stopServer(primary.child);
  const shop = new Shop(ledger);
  const window = await shop.answer({ method: 'GET', url: '/n/moorgauge.io', host: '', acceptLanguage: 'en' });
  expect(window.status).toBe(200);
  expect(window.body).toContain('Its price is US$600.');
  expect(await isFromCopy()).toBe(false);
  expect(await isFromCopy({ orAsItIs: true })).toBe(true);
}, 60_000);

test('a database that is no copy is never read from', async () => {
  const other = openDatabase(copy.url, () => undefined);
  await other.query('select pg_promote()');
  const wrong = { ...ledger, database: other, reads: other };
  await expect
    .poll(async () => (await other.query('select pg_is_in_recovery() as is')).rows[0].is, { timeout: 20_000 })
    .toBe(false);
  expect((await reading(wrong)).database).toBe(other);
  expect(await reading(wrong)).toBe(wrong);
  await other.end();
}, 60_000);
