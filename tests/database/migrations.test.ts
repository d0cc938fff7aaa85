import { readFileSync } from 'node:fs';
import { Client } from 'pg';
import { afterEach, expect, inject, test } from 'vitest';
import { columnsOf, migrate, SCHEMA_FILE } from '@/database/migrate';
import { databaseAt, runAdmin, TEMPLATE } from './postgres';

let made = 0;
const names: string[] = [];
afterEach(async () => {
  for (const name of names.splice(0)) await runAdmin(inject('postgresUrl'), `drop database ${name} with (force)`);
});

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

test('a database that a first version of a migration made is made good', async () => {
  const url = await fresh();
  // As the first versions of 0004, 0006 and 0008 left it, before anything of safety was there.
  await runAdmin(
    url,
    `delete from migrations where name >= '0009'; drop table migration_checksums, parts, job_results, partner_pauses, feed_tokens;
     alter table reminders drop column expires_at; alter table renewals drop column request_sha256; alter table sales drop column auth_code_sealed;
     drop index imports_made; alter table imports drop column moved_at; alter table names drop column best_offer_minor, drop column best_offer_currency, drop column asked_lock,
       drop column asked_privacy, add column asked_problem text;
     alter table listings drop column proof_looked_at; drop index listings_name, auctions_name, sales_name;
     alter table renewals drop column pay_by; alter table renewal_items drop column quoted_tax_minor, drop column live_currency;
     alter table prices drop column taught_by_entry, drop column taught_by_batch; drop trigger entries_append_only on entries;
     create trigger entries_append_only before update on entries for each row execute function refuse_change();
     drop view spending; alter table names drop column told_end, drop column told_at;
     alter table entries drop column sale_id; drop function know_sales_by_column(); alter table listings drop column ended_by_sale;
     alter table venues drop column extension_minutes, drop column buy_now_ends;
     alter table auctions drop column extension_minutes, drop column buy_now_ends, drop column whole_units, drop column next_minor;`,
  );
  expect(await migrate(url)).toEqual(['0009_safety', '0010_seams']);
  expect(await migrate(url)).toEqual([]);
});

test('a database that lacks what no migration brings is refused, with what it lacks and a way out', async () => {
  const url = await fresh();
  await runAdmin(url, 'alter table sales drop column buyer_account');
  await expect(migrate(url)).rejects.toThrow(/lacks sales\.buyer_account text.*Save a backup/);
});
