-- Names that one would like to have: ideas and what was found of them, what is registered, asked for, and waited for.

-- Letters beyond a-z, 0-9 and the hyphen that an ending's registry takes (RFC 5891 section 4.3), where the office has said so.
alter table policies add column letters text;

create table idea_sets (
  id int generated always as identity primary key,
  label text not null,
  ideas text not null,
  patterns text[] not null,
  endings text[] not null,
  held_years int not null default 5 check (held_years between 1 and 10),
  made_at timestamptz not null,
  -- What was there before the last check: what has changed since is marked.
  compared_at timestamptz,
  paused boolean not null default false
);

-- What was answered last of a name, whoever asked.
create table availability (
  ascii text primary key,
  ending text not null,
  kind text not null check (kind in ('available', 'premium', 'perhaps', 'reserved', 'taken', 'unknown')),
  asked_by text check (asked_by in ('link', 'rdap', 'whois', 'dns')),
  why text not null default '',
  -- The server's own words where it does not sell the name.
  said text,
  -- The link that answered, and what it asks for so many years at first and later.
  account_id int references accounts on delete set null,
  years int,
  register_minor bigint,
  renew_minor bigint,
  currency char(3),
  -- Of a taken name, by its record.
  term_end timestamptz,
  earliest timestamptz,
  latest timestamptz,
  asked_at timestamptz not null,
  -- What it was before it last changed.
  before_kind text check (before_kind in ('available', 'premium', 'perhaps', 'reserved', 'taken', 'unknown')),
  changed_at timestamptz
);

-- Names still to be asked for, in their order.
create table availability_queue (
  set_id int not null references idea_sets on delete cascade,
  ascii text not null,
  ending text not null,
  place int not null,
  -- Whether its record is asked for: no link sells it, or one has said that it may not be registered.
  wants_record boolean not null default false,
  tries int not null default 0,
  not_before timestamptz not null,
  primary key (set_id, ascii)
);
create index availability_queue_next on availability_queue (not_before, place);
create index availability_queue_name on availability_queue (ascii);

-- Whether a taken name is in use, as of the day it was looked at.
create table uses_seen (
  ascii text primary key,
  looked_at timestamptz not null,
  has_name_servers boolean,
  site text,
  takes_mail boolean
);

-- Names that somebody lists as about to come free.
create table coming_free (
  ascii text primary key,
  "unicode" text not null,
  ending text not null,
  on_day date,
  source text not null,
  noted_at timestamptz not null
);

-- Names on the shortlist, each once, with why they are wanted.
create table wanted_names (
  id int generated always as identity primary key,
  ascii text not null unique,
  "unicode" text not null,
  ending text not null,
  -- What was typed first: the review shows where the name differs from it.
  typed text not null,
  purpose text not null default '',
  note text not null default '',
  added_at timestamptz not null
);

-- In whose name an account registers, and where its mail goes; null where nobody has said.
alter table accounts add column holder text, add column holder_mail text;

-- Mail addresses of holders that an account has confirmed: what is registered with them need not be confirmed again.
create table holder_addresses (
  account_id int not null references accounts on delete cascade,
  address text not null,
  confirmed_at timestamptz,
  evidence text not null default '',
  asked_at timestamptz,
  sent_again_at timestamptz,
  primary key (account_id, address)
);

-- Names that are being registered: one row for each, like an item of a run of renewals.
create table registrations (
  id int generated always as identity primary key,
  run_id uuid not null,
  idempotency_key text,
  ascii text not null,
  "unicode" text not null,
  ending text not null,
  typed text not null,
  purpose text not null default '',
  note text not null default '',
  account_id int not null references accounts,
  years int not null check (years between 1 and 10),
  auto_renew boolean not null,
  privacy boolean not null,
  name_servers text[] not null default '{}',
  holder_mail text,
  -- By hand where the account has no link: a person does it there, and says what came of it.
  by_hand boolean not null,
  state text not null check (state in ('waiting', 'sending', 'pending', 'done', 'refused', 'doubt')),
  since timestamptz not null,
  order_id text not null unique,
  attempts int not null default 0,
  -- When it may have been sent first: what is ours without a receipt is told by that.
  first_sent_at timestamptz,
  quoted_minor bigint,
  cap_minor bigint,
  currency char(3) not null,
  -- What each renewal costs, where the name has a price of its own.
  own_renewal_minor bigint,
  pay_by text,
  charged_minor bigint,
  receipt text,
  registered_at timestamptz,
  new_end timestamptz,
  name_id int references names,
  problem text
);
-- A name is registered once at a time.
create unique index registrations_unsettled on registrations (ascii) where state in ('waiting', 'sending', 'pending', 'doubt');
create unique index registrations_key on registrations (idempotency_key, ascii) where idempotency_key is not null;
create index registrations_run on registrations (run_id);

-- Names of others that are to be registered the moment they are released.
create table release_orders (
  id int generated always as identity primary key,
  ascii text not null,
  "unicode" text not null,
  ending text not null,
  -- In the order in which they are tried.
  account_ids int[] not null,
  years int not null check (years between 1 and 10),
  -- The most the first term and each later one may cost, in the office's currency.
  most_first_minor bigint not null check (most_first_minor > 0),
  most_renewal_minor bigint not null check (most_renewal_minor > 0),
  currency char(3) not null,
  from_at timestamptz not null,
  until_at timestamptz not null check (until_at > from_at),
  note text not null default '',
  made_at timestamptz not null,
  state text not null default 'waiting' check (state in ('waiting', 'trying', 'got', 'lost', 'over', 'stopped')),
  since timestamptz not null,
  -- The registration that is under way for it: settled before the next account is tried.
  registration_id int references registrations,
  problem text
);
create unique index release_orders_open on release_orders (ascii) where state in ('waiting', 'trying');

create table release_tries (
  id int generated always as identity primary key,
  order_id int not null references release_orders on delete cascade,
  account_id int not null references accounts,
  at timestamptz not null,
  outcome text not null
);
create index release_tries_order on release_tries (order_id, at);
create index release_tries_account on release_tries (account_id, at);

-- Names of others whose holder is asked: one thread for each, with everything that was said.
create table approaches (
  id int generated always as identity primary key,
  ascii text not null,
  "unicode" text not null,
  ending text not null,
  holder text not null default '',
  contact text not null default '',
  -- The most one would pay, in its currency.
  limit_minor bigint check (limit_minor > 0),
  currency char(3) not null,
  state text not null default 'open' check (state in ('open', 'agreed', 'paid', 'arrived', 'ended')),
  since timestamptz not null,
  answer_by timestamptz,
  agreed_minor bigint,
  fees_minor bigint not null default 0,
  -- Who holds the money until it has arrived, and how it comes.
  money_with text not null default '',
  arrives_by text check (arrives_by in ('push', 'transfer')),
  account_id int references accounts,
  paid_on date,
  reference text not null default '',
  name_id int references names,
  note text not null default ''
);
create unique index approaches_open on approaches (ascii) where state in ('open', 'agreed', 'paid');

create table approach_lines (
  id int generated always as identity primary key,
  approach_id int not null references approaches on delete cascade,
  at timestamptz not null,
  is_ours boolean not null,
  by_mail boolean not null,
  text text not null default '',
  figure_minor bigint,
  -- When a mail was handed over; null while nobody knows whether it was.
  sent_at timestamptz
);
create index approach_lines_approach on approach_lines (approach_id, at);
