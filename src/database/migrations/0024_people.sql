-- Who may do what. As long as nobody of these has a way to sign in, the ledger is open to whoever sits at its machine.
create table people (
  id int primary key generated always as identity,
  -- A person signs in; a program shows its token.
  kind text not null check (kind in ('person', 'program')),
  name text not null check (name = btrim(name) and name <> ''),
  role text not null check (role in ('owner', 'trader', 'bookkeeper', 'viewer')),
  -- What may be spent in a calendar month without a second person, in minor units of the home currency; null: no limit.
  monthly_limit_minor bigint check (monthly_limit_minor >= 0),
  -- The areas in which a program may act; null: all that its role may.
  scope text[],
  added_at timestamptz not null,
  added_by text,
  ended_at timestamptz,
  -- argon2id (RFC 9106) of the pass phrase; the secret of its codes (RFC 6238), sealed, and the last step that was used.
  pass_phrase text,
  code_secret bytea,
  code_step bigint,
  -- SHA-256 of a program's token.
  token_hash bytea unique,
  token_ends_at timestamptz,
  token_used_at timestamptz,
  check (kind = 'program' or (scope is null and token_hash is null))
);
-- A name that stands in the history is nobody else's later.
create unique index people_name on people (lower(name));

create table passkeys (
  id int primary key generated always as identity,
  person_id int not null references people,
  credential_id text not null unique,
  public_key bytea not null,
  counter bigint not null,
  transports text[] not null,
  label text not null,
  added_at timestamptz not null,
  used_at timestamptz
);
create index passkeys_person on passkeys (person_id);

create table recovery_codes (
  person_id int not null references people,
  code_hash bytea not null,
  used_at timestamptz,
  primary key (person_id, code_hash)
);

create table invitations (
  person_id int primary key references people,
  token_hash bytea not null unique,
  ends_at timestamptz not null
);

create table sessions (
  id int primary key generated always as identity,
  person_id int not null references people,
  token_hash bytea not null unique,
  way text not null check (way in ('passkey', 'pass phrase', 'recovery code')),
  began_at timestamptz not null,
  seen_at timestamptz not null,
  address text not null,
  agent text not null
);
create index sessions_person on sessions (person_id);

-- What a browser was given to sign, once.
create table challenges (
  token_hash bytea primary key,
  challenge text not null,
  person_id int references people,
  ends_at timestamptz not null
);

-- Attempts to sign in, by account and by address (the shape that rate-limiter-flexible keeps).
create table attempts (
  key varchar(255) primary key,
  points integer not null default 0,
  expire bigint
);

-- What a person may still spend this month follows from these.
create table person_spending (
  id bigint primary key generated always as identity,
  person_id int not null references people,
  at timestamptz not null,
  amount_minor bigint not null check (amount_minor >= 0),
  command text not null
);
create index person_spending_month on person_spending (person_id, at);

-- What waits for a second person. What it was asked with is sealed.
create table confirmations (
  id int primary key generated always as identity,
  command text not null,
  arguments bytea not null,
  -- The same, asked for once more while it waits, waits once.
  arguments_hash bytea not null,
  what text not null,
  why text not null,
  amount_minor bigint,
  asked_by int not null references people,
  asked_at timestamptz not null,
  state text not null default 'waiting' check (state in ('waiting', 'confirming', 'done', 'refused', 'declined', 'withdrawn')),
  settled_by int references people,
  settled_at timestamptz,
  answer text
);
create unique index confirmations_waiting on confirmations (command, asked_by, arguments_hash) where state = 'waiting';

-- Who did what: each line holds the hash of the one before it, and none is ever changed.
create table audit (
  id bigint primary key,
  at timestamptz not null,
  who text not null,
  action text not null,
  detail jsonb not null,
  before_hash bytea not null,
  hash bytea not null unique
);
create function refuse_audit_change() returns trigger language plpgsql as $$
begin
  raise exception 'lines of % are never changed', tg_table_name;
end $$;
create trigger audit_stays before update or delete on audit for each row execute function refuse_audit_change();
create trigger audit_stays_whole before truncate on audit for each statement execute function refuse_audit_change();

-- Who is at work in this transaction, by name: as it was then, whatever he is called later.
create function acting_person() returns text language sql stable as $$
  select nullif(current_setting('name_ledger.person', true), '')
$$;
alter table batches add column person text;
alter table entries add column person text;
alter table renewals add column person text;
alter table registrations add column person text;
alter table release_orders add column person text;
alter table transfers add column person text;
alter table figures add column person text;
alter table sale_steps add column person text;
alter table mail_names add column person text;
alter table forecasts add column person text;
alter table approach_lines add column person text;
alter table imports add column person text;
-- Defaults of their own statement: what is there already was done by nobody who is known.
alter table batches alter column person set default acting_person();
alter table entries alter column person set default acting_person();
alter table renewals alter column person set default acting_person();
alter table registrations alter column person set default acting_person();
alter table release_orders alter column person set default acting_person();
alter table transfers alter column person set default acting_person();
alter table figures alter column person set default acting_person();
alter table sale_steps alter column person set default acting_person();
alter table forecasts alter column person set default acting_person();
alter table approach_lines alter column person set default acting_person();
alter table imports alter column person set default acting_person();
