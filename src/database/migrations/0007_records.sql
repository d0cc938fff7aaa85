-- Registration records, dated and kept; what waits to be checked; what was dismissed; names of others that are watched.

create table records (
  id bigint generated always as identity primary key,
  ascii text not null,
  source text not null check (source in ('registry', 'registrar', 'pasted')),
  protocol text not null check (protocol in ('rdap', 'whois')),
  -- First and last seen like this: an unchanged record adds no row.
  first_at timestamptz not null,
  last_at timestamptz not null,
  hash text not null,
  etag text,
  record jsonb not null,
  raw text not null
);
create index records_newest on records (ascii, source, last_at desc);

create table record_queue (
  ascii text primary key,
  asked_at timestamptz not null,
  not_before timestamptz not null,
  tries int not null default 0,
  problem text
);

create table record_dismissals (
  name_id int not null references names on delete cascade,
  fingerprint text not null,
  at timestamptz not null,
  primary key (name_id, fingerprint)
);

-- The holder that the office knows of, from the records it has agreed with.
alter table names add column holder text;

create table watches (
  ascii text primary key,
  "unicode" text not null,
  ending text not null,
  since timestamptz not null,
  note text not null default '',
  -- How it stood at the last check, and what changed then.
  checked_at timestamptz,
  is_free boolean not null default false,
  earliest timestamptz,
  latest timestamptz,
  standing text not null default '',
  changed_at timestamptz,
  change text not null default ''
);
