-- What keeps the program safe and going: how its parts, jobs and partners fare, tokens that end, codes that are sealed.

-- Files of some earlier migrations were still changed after a first version of them had been applied somewhere. What the
-- later version added is made good here, so that every ledger has the same tables.
alter table names
  drop column if exists asked_problem,
  add column if not exists asked_lock boolean,
  add column if not exists asked_privacy boolean,
  add column if not exists best_offer_minor bigint check (best_offer_minor >= 0),
  add column if not exists best_offer_currency char(3);
alter table listings add column if not exists proof_looked_at timestamptz;
create index if not exists listings_name on listings (name_id);
create index if not exists auctions_name on auctions (name_id);
create index if not exists sales_name on sales (name_id);

-- Which version of each migration was applied, so that a changed file is noticed.
create table migration_checksums (
  name text primary key,
  sha256 text not null
);

-- A part of the program, and when it last said that it is well. By the clock of the database, not of the office.
create table parts (
  name text primary key,
  started_at timestamptz not null,
  seen_at timestamptz not null
);

-- What happens by itself: when it last went well, and why it did not.
create table job_results (
  job text primary key,
  done_at timestamptz,
  failed_at timestamptz,
  -- In words; null when it went well last.
  problem text
);

-- A partner that does not answer is left alone for a while, longer each time; the others are not held up.
create table partner_pauses (
  kind text not null check (kind in ('account', 'venue')),
  partner_id int not null,
  failures int not null,
  not_before timestamptz not null,
  problem text not null,
  primary key (kind, partner_id)
);

-- Addresses that programs read without anyone there, like the calendar's: only the hash of what stands in them.
create table feed_tokens (
  id int generated always as identity primary key,
  purpose text not null check (purpose in ('calendar')),
  sha256 bytea not null unique,
  made_at timestamptz not null,
  expires_at timestamptz not null,
  read_at timestamptz,
  withdrawn_at timestamptz
);
create unique index feed_tokens_current on feed_tokens (purpose) where withdrawn_at is null;

-- Links in mails do not work for ever.
alter table reminders add column expires_at timestamptz;
update reminders set expires_at = last_at + interval '60 days';
-- A restored reminder gets a token of its own: those in mails of the past are not in a backup.
alter table reminders
  alter column expires_at set default now(),
  alter column expires_at set not null,
  alter column token set default gen_random_uuid();

-- The same key with another request is refused.
alter table renewals add column request_sha256 bytea;

-- The code of a transfer is sealed; one that stood here in the open is sealed when the program starts, and goes when the sale ends.
alter table sales add column auth_code_sealed bytea;
update sales set auth_code = null where stage in ('arrived', 'done', 'not paid', 'refused', 'dispute');

-- When an import last went on, by the clock of the database: one that was being read when its process ended is noticed by it.
alter table imports add column moved_at timestamptz not null default now();
create index imports_made on imports (made_at);
