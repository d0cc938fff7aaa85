import { readdirSync, readFileSync } from 'node:fs';
import { inject } from 'vitest';
import { databaseAt, runAdmin, TEMPLATE } from './postgres';

let made = 0;
const names: string[] = [];

/** Drops the databases that were made here. */
export async function dropMade(): Promise<void> {
  for (const name of names.splice(0)) await runAdmin(inject('postgresUrl'), `drop database ${name} with (force)`);
}

const MIGRATIONS = 'src/database/migrations';

/** A migrated database of its own. */
export async function fresh(): Promise<string> {
  made += 1;
  const name = `migrated_${process.pid}_${made}`;
  await runAdmin(inject('postgresUrl'), `create database ${name} template ${TEMPLATE}`);
  names.push(name);
  return databaseAt(inject('postgresUrl'), name);
}

/** A database in which only the first migrations were applied, as the program of those days left it. */
export async function asOf(last: string, since = ''): Promise<string> {
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

/** Rows in the words of before the words of the trade: one of each kind that holds such a word. */
export const EARLIER_ROWS = `
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
