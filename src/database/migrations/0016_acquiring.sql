-- Names that one would like to have: ideas and what was found of them, what is registered, asked for, and waited for.

-- Letters beyond a-z, 0-9 and the hyphen that an ending's registry takes (RFC 5891 section 4.3); null where that is not known.
alter table policies add column letters text;
update policies set letters = 'áàăâåäãąāæćĉčċçďđéèĕêěëėęēğĝġģĥħíìĭîïĩįīıĵķĺľļłńňñņŋóòŏôöőõøōœĸŕřŗśŝšşßťţŧúùŭûůüűũųūŵýŷÿźžżðþ' where ending = 'de';
update policies set letters = '' where ending in ('uk', 'nl');

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
