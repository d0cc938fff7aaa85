import { readdirSync, readFileSync } from 'node:fs';
import { Client } from 'pg';
import { afterEach, expect, inject, test } from 'vitest';
import { columnsOf, migrate, SCHEMA_FILE } from '@/database/migrate';
import { databaseAt, runAdmin, TEMPLATE } from './postgres';

let made = 0;
const names: string[] = [];
afterEach(async () => {
  for (const name of names.splice(0)) await runAdmin(inject('postgresUrl'), `drop database ${name} with (force)`);
});

const MIGRATIONS = 'src/database/migrations';

async function rowsIn(url: string, sql: string): Promise<unknown[]> {
  const client = new Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query(sql)).rows;
  } finally {
    await client.end();
  }
}

/** A migrated database of its own. */
async function fresh(): Promise<string> {
  made += 1;
  const name = `migrated_${process.pid}_${made}`;
  await runAdmin(inject('postgresUrl'), `create database ${name} template ${TEMPLATE}`);
  names.push(name);
  return databaseAt(inject('postgresUrl'), name);
}

test('the file of columns is what the migrations make', async () => {
  const client = new Client({ connectionString: await fresh() });
  await client.connect();
  expect(`${(await columnsOf(client)).join('\n')}\n`).toBe(readFileSync(SCHEMA_FILE, 'utf8'));
  await client.end();
});

test('a migration that was changed after it had been applied is refused, and says what to do', async () => {
  const url = await fresh();
  await runAdmin(url, "update migration_checksums set sha256 = 'x' where name = '0006_rescue'");
  await expect(migrate(url)).rejects.toThrow('Put back src/database/migrations/0006_rescue.sql');
});

test('a database of a newer version is refused', async () => {
  const url = await fresh();
  await runAdmin(url, "insert into migration_checksums values ('9999_later', 'x')");
  await expect(migrate(url)).rejects.toThrow('Start the newer version');
});

/** A database in which only the first migrations were applied, as the program of those days left it. */
async function asOf(last: string, since = ''): Promise<string> {
  made += 1;
  const name = `early_${process.pid}_${made}`;
  await runAdmin(inject('postgresUrl'), `create database ${name}`);
  names.push(name);
  const url = databaseAt(inject('postgresUrl'), name);
  const files = readdirSync(MIGRATIONS).filter((file) => file.endsWith('.sql') && file.slice(0, 4) <= last);
  await runAdmin(
    url,
    'create table migrations (id serial primary key, name varchar(255) not null, run_on timestamp not null)',
  );
  for (const file of files.sort()) {
    await runAdmin(url, readFileSync(`${MIGRATIONS}/${file}`, 'utf8'));
    await runAdmin(url, `insert into migrations (name, run_on) values ('${file.replace('.sql', '')}', now())`);
  }
  if (since !== '') await runAdmin(url, since);
  return url;
}

test('a database that a first version of a migration made is made good', async () => {
  // As the first versions of 0004, 0006 and 0008 left it.
  const url = await asOf(
    '0008',
    `alter table names drop column best_offer_minor, drop column best_offer_currency, drop column asked_lock,
       drop column asked_privacy, add column asked_problem text;
     alter table listings drop column proof_looked_at; drop index listings_name, auctions_name, sales_name;`,
  );
  expect(await migrate(url)).toEqual(['0009_safety', '0010_seams', '0011_trade_words', '0012_message_kinds']);
  expect(await migrate(url)).toEqual([]);
});

test('what stood in a ledger in the words of before stands there in those of today, its history too', async () => {
  const url = await asOf('0010');
  await runAdmin(url, EARLIER_ROWS);
  expect(await migrate(url)).toEqual(['0011_trade_words', '0012_message_kinds']);
  expect(
    await rowsIn(url, 'select ascii, purpose, observed, rescue_verdict, requested from names order by id'),
  ).toEqual([
    { ascii: 'tarbarrel.com', purpose: 'drop', observed: 'pending delete', rescue_verdict: 'drop', requested: 'off' },
    { ascii: 'seaholly.com', purpose: 'hold', observed: 'pending transfer', rescue_verdict: null, requested: null },
  ]);
  expect(await rowsIn(url, 'select kind from batches order by id')).toEqual([
    { kind: 'drop' },
    { kind: 'refund' },
    { kind: 'lock requested' },
  ]);
  expect(await rowsIn(url, 'select before, after from changes')).toEqual([
    {
      before: { purpose: 'hold', requested: null, requested_at: null, notes: 'let go' },
      after: { purpose: 'drop', requested: 'off', observed: 'pending restore', requested_lock: true },
    },
  ]);
  expect(await rowsIn(url, 'select kind from registrar_messages order by message_id')).toEqual([
    { kind: 'redemption-ended' },
    { kind: 'transfer-requested' },
    { kind: 'charged' },
    { kind: null },
  ]);
  expect(await rowsIn(url, 'select status from renewals')).toEqual([{ status: 'requested' }]);
  expect(await rowsIn(url, 'select query from views order by label')).toEqual([
    { query: 'phase=available,pending+transfer&purpose=drop&q=free' },
    { query: 'q=moving+restoring&phase=late%2Cavailable%2Cpending+delete&tag=let+go&sort=-deadline' },
    { query: '' },
  ]);
  expect(await rowsIn(url, 'select kind, attributes from listings')).toEqual([
    {
      kind: 'fixed price, offers too',
      attributes: {
        'For adults only (18+)': 'yes',
        'Shown at twelve partner halls too': 'yes',
        'Paid placement': 'first page',
      },
    },
  ]);
  expect(await rowsIn(url, 'select attributes from marketplaces')).toEqual([{ attributes: HALL_ATTRIBUTES }]);
  expect(await rowsIn(url, 'select payment_method from entries')).toEqual([{ payment_method: 'card' }]);
});

const HALL_ATTRIBUTES = [
  { label: 'For adults only (18+)', options: [{ label: 'yes', minor: 0 }] },
  { label: 'Shown at twelve partner halls too', options: [{ label: 'yes', minor: 0 }] },
  { label: 'Paid placement', options: [{ label: 'first page', minor: 4000 }] },
];

const EARLIER_ROWS = `
  insert into accounts (label, registrar, currency, lead_days, late_days, created_at) values ('Quay', 'Quay', 'USD', 5, 45, now());
  insert into batches (at, kind, summary) values (now(), 'let go', 'x'), (now(), 'give back', 'x'), (now(), 'lock asked', 'x');
  insert into names (ascii, "unicode", ending, account_id, purpose, observed, observed_at, rescue_verdict, rescue_for, asked, asked_at, added_at, added_batch)
    values ('tarbarrel.com', 'tarbarrel.com', 'com', 1, 'let go', 'deleting', now(), 'let go', now(), 'off', now(), now(), 1),
      ('seaholly.com', 'seaholly.com', 'com', 1, 'hold', 'moving', now(), null, null, null, null, now(), 1);
  insert into changes (batch_id, name_id, before, after) values (1, 1, '{"purpose": "hold", "asked": null, "asked_at": null, "notes": "let go"}',
    '{"purpose": "let go", "asked": "off", "observed": "restoring", "asked_lock": true}');
  insert into registrar_messages (account_id, message_id, received_at, kind, text, raw)
    values (1, '1', now(), 'purged', 'x', 'x'), (1, '2', now(), 'transfer-asked', 'x', 'x'), (1, '3', now(), 'charged', 'x', 'x'), (1, '4', now(), null, 'x', 'x');
  insert into entries (name_id, batch_id, on_day, kind, minor, currency, means) values (1, 1, '2026-01-01', 'renewal', 1100, 'USD', 'card');
  insert into renewals (id, status, made_at) values (gen_random_uuid(), 'asked', now());
  insert into views (label, query, columns) values ('a', 'phase=free,moving&purpose=let+go&q=free', '{}'),
    ('b', 'q=moving+restoring&phase=late%2Cfree%2Cdeleting&tag=let+go&sort=-step', '{}'), ('c', '', '{}');
  insert into venues (label, currencies, fees_currency, network, placements)
    values ('Hall', '{USD}', 'USD', 'twelve partner halls', '[{"label": "first page", "minor": 4000}]');
  insert into listings (name_id, venue_id, kind, currency, adult, network, placement, made_at)
    values (1, 1, 'both', 'USD', true, true, 'first page', now());
`;

test('a database that lacks what no migration brings is refused, with what it lacks and a way out', async () => {
  const url = await fresh();
  await runAdmin(url, 'alter table sales drop column buyer_account');
  await expect(migrate(url)).rejects.toThrow(/lacks sales\.buyer_account text.*Save a backup/);
});
