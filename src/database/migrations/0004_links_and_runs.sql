-- Links to registrars, the messages that come over them, and renewals that are carried out over them.

alter table accounts
  add column link_host text,
  add column link_port int check (link_port between 1 and 65535),
  add column link_login text,
  -- Encrypted with the key of the installation; never shown again.
  add column link_secret bytea,
  add column link_read_at timestamptz,
  add column link_polled_at timestamptz,
  -- What went wrong at the last attempt, in words; null when it went well.
  add column link_problem text,
  add column tax_percent numeric not null default 0 check (tax_percent between 0 and 100),
  add check ((link_host is null) = (link_secret is null) and (link_host is null) = (link_port is null));

-- A message of a registrar: stored before it is acknowledged, and never taken twice.
create table registrar_messages (
  account_id int not null references accounts on delete cascade,
  message_id text not null,
  received_at timestamptz not null,
  told_at timestamptz,
  kind text,
  name text,
  text text not null,
  raw text not null,
  batch_id int references batches,
  primary key (account_id, message_id)
);
create index registrar_messages_received on registrar_messages (received_at);

-- What a renewal's item goes through when its account has a link.
alter table renewal_items
  add column state text not null default 'planned'
    check (state in ('planned', 'waiting', 'sending', 'done', 'refused', 'doubt')),
  add column order_id text unique,
  add column attempts int not null default 0,
  add column sent_at timestamptz,
  add column live_minor bigint,
  add column fee_cap_minor bigint,
  add column receipt text,
  add column problem text,
  add column item_batch_id int references batches;
-- One unsettled change for each name, whatever the run.
create unique index renewal_items_unsettled on renewal_items (name_id) where state in ('waiting', 'sending', 'doubt');
create index renewal_items_open on renewal_items (renewal_id) where state in ('waiting', 'sending');

-- What was asked of a registrar for one name and is not confirmed: lock and privacy. Auto-renew stands in `names`.
alter table names
  add column asked_lock boolean,
  add column asked_privacy boolean;
