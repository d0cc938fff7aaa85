import { readFileSync } from 'node:fs';
import { Client } from 'pg';
import { afterEach, expect, test } from 'vitest';
import { columnsOf, migrate, SCHEMA_FILE } from '@/database/migrate';
import { asOf, dropMade, EARLIER_ROWS, fresh } from './earlier';
import { runAdmin } from './postgres';

afterEach(dropMade);

async function rowsIn(url: string, sql: string): Promise<unknown[]> {
  const client = new Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query(sql)).rows;
  } finally {
    await client.end();
  }
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

test('a database that a first version of a migration made is made good', async () => {
  // As the first versions of 0004, 0006 and 0008 left it.
  const url = await asOf(
    '0008',
    `alter table names drop column best_offer_minor, drop column best_offer_currency, drop column asked_lock,
       drop column asked_privacy, add column asked_problem text;
     alter table listings drop column proof_looked_at; drop index listings_name, auctions_name, sales_name;`,
  );
  expect(await migrate(url)).toEqual([
    '0009_safety',
    '0010_seams',
    '0011_trade_words',
    '0012_message_kinds',
    '0013_prices_over_years',
    '0014_moving_facts',
    '0015_transfers',
    '0016_acquiring',
    '0017_changed_names',
    '0018_light_imports',
    '0019_keyed_requests',
    '0020_events',
    '0021_mails',
    '0022_prospects',
    '0023_forecasts_as_it_stands',
    '0024_people',
    '0025_shop',
    '0026_told_changes',
    '0027_names_in_accounts',
    '0028_imports_as_they_came',
    '0029_names_by_their_letters',
    '0030_light_lists',
  ]);
  expect(await migrate(url)).toEqual([]);
});

test('what stood in a ledger in the words of before stands there in those of today, its history too', async () => {
  const url = await asOf('0010');
  await runAdmin(url, EARLIER_ROWS);
  expect(await migrate(url)).toEqual([
    '0011_trade_words',
    '0012_message_kinds',
    '0013_prices_over_years',
    '0014_moving_facts',
    '0015_transfers',
    '0016_acquiring',
    '0017_changed_names',
    '0018_light_imports',
    '0019_keyed_requests',
    '0020_events',
    '0021_mails',
    '0022_prospects',
    '0023_forecasts_as_it_stands',
    '0024_people',
    '0025_shop',
    '0026_told_changes',
    '0027_names_in_accounts',
    '0028_imports_as_they_came',
    '0029_names_by_their_letters',
    '0030_light_lists',
  ]);
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

test('a forecast that was kept of another course than as it stands says so in its label', async () => {
  const url = await asOf('0022');
  await runAdmin(
    url,
    `insert into forecasts (label, made_at, currency, months, seed, paths, strategy, assumptions, opening_minor, fan, costs, rates, name_ids, name_groups, factors)
     select label, now(), 'USD', 12, 7, 100, jsonb_build_object('kind', kind), '{}', 0, '{}', '{}', '[]', '{}', '{}', '{}'
       from (values ('Herring season', 'as it stands'), ('All of them', 'keep all')) as kept (label, kind)`,
  );
  await migrate(url);
  expect(await rowsIn(url, 'select label from forecasts order by id')).toEqual([
    { label: 'Herring season' },
    { label: 'All of them (keep all)' },
  ]);
});

test('a database that lacks what no migration brings is refused, with what it lacks and a way out', async () => {
  const url = await fresh();
  await runAdmin(url, 'alter table sales drop column buyer_account');
  await expect(migrate(url)).rejects.toThrow(/lacks sales\.buyer_account text.*Save a backup/);
});
