-- The ledger: rules, accounts, prices, names, money, and the history of all that changed.

create table settings (
  key text primary key,
  value jsonb not null
);

-- Rises with every committed change, so that a reader can tell whether what it holds is still true.
create table revision (n bigint not null);
insert into revision values (1);

create table policies (
  ending text primary key,
  late_days int not null check (late_days between 0 and 400),
  redemption_days int not null check (redemption_days between 0 and 400),
  restoring_days int not null check (restoring_days between 0 and 60),
  deleting_days int not null check (deleting_days between 0 and 60),
  refundable_days int not null check (refundable_days between 0 and 60),
  terms jsonb not null,
  transfer_years int not null check (transfer_years between 0 and 10),
  transfer_lock_days int not null check (transfer_lock_days between 0 and 400),
  ceiling_years int not null check (ceiling_years between 1 and 100),
  yearly_fee boolean not null,
  source text not null check (source in ('standard', 'contract', 'common practice', 'memory')),
  source_note text not null default '',
  source_date date not null,
  verified boolean not null default false
);

create table registry_fees (
  from_day date not null,
  currency char(3) not null,
  minor int not null check (minor >= 0),
  source text not null,
  primary key (from_day, currency)
);

create table accounts (
  id int generated always as identity primary key,
  label text not null check (label <> ''),
  registrar text not null default '',
  currency char(3) not null,
  lead_days int not null check (lead_days between 0 and 90),
  late_days int not null check (late_days between 0 and 400),
  late_fee_minor bigint not null default 0 check (late_fee_minor >= 0),
  auction_day int check (auction_day between 0 and 400),
  years_per_charge int not null default 1 check (years_per_charge between 1 and 10),
  retry_days int[] not null default '{}',
  refunds boolean not null default false,
  balance_minor bigint,
  balance_at timestamptz,
  -- False while the rules above are the usual ones, taken because nobody has said better.
  rules_known boolean not null default false,
  notes text not null default '',
  created_at timestamptz not null
);
create unique index accounts_label on accounts (lower(label));

create table means (
  account_id int not null references accounts on delete cascade,
  position int not null,
  kind text not null check (kind in ('balance', 'card', 'wallet', 'bank')),
  label text not null,
  ends_month text check (ends_month ~ '^\d{4}-(0[1-9]|1[0-2])$'),
  primary key (account_id, position)
);

create table names (
  id int generated always as identity primary key,
  ascii text not null unique check (ascii ~ '^[a-z0-9.-]+$' and length(ascii) between 3 and 253),
  "unicode" text not null,
  ending text not null,
  account_id int not null references accounts,
  registered timestamptz,
  registered_day boolean not null default false,
  term_end timestamptz,
  term_end_day boolean not null default false,
  setting text not null default 'unknown' check (setting in ('on', 'off', 'stalled', 'unknown')),
  standing text not null default 'believed' check (standing in ('believed', 'confirmed')),
  setting_since timestamptz,
  setting_evidence text,
  asked text check (asked in ('on', 'off')),
  asked_at timestamptz,
  observed text check (observed in ('redemption', 'restoring', 'deleting', 'moving')),
  observed_at timestamptz,
  purpose text not null default 'hold' check (purpose in ('in use', 'hold', 'for sale', 'let go')),
  never_lost boolean not null default false,
  lock boolean,
  privacy boolean,
  name_servers text[] not null default '{}',
  tags text[] not null default '{}',
  notes text not null default '',
  asking_minor bigint check (asking_minor >= 0),
  asking_currency char(3),
  checked_at timestamptz,
  added_at timestamptz not null,
  -- Set when an account no longer lists the name: it stays in the books and leaves the working views.
  gone_at timestamptz,
  check ((asking_minor is null) = (asking_currency is null)),
  check ((observed is null) = (observed_at is null)),
  check ((asked is null) = (asked_at is null))
);
create index names_account on names (account_id);
create index names_term_end on names (term_end);

create table prices (
  id int generated always as identity primary key,
  account_id int not null references accounts on delete cascade,
  name_id int references names on delete cascade,
  ending text not null,
  action text not null check (action in ('register', 'renew', 'transfer', 'restore', 'privacy')),
  currency char(3) not null,
  year_minor bigint not null check (year_minor >= 0),
  term_totals jsonb,
  first_year_minor bigint check (first_year_minor >= 0),
  first_year_condition text check (first_year_condition in ('any term', 'one year only', 'three years only', 'new customers')),
  fee_included boolean not null default false,
  from_day date not null,
  origin text not null check (origin in ('list', 'by hand', 'inferred')),
  unique nulls not distinct (account_id, name_id, ending, action, from_day)
);

-- One act of the user or the program. What it changed stands in `changes`.
create table batches (
  id int generated always as identity primary key,
  at timestamptz not null,
  kind text not null,
  summary text not null,
  undoes int references batches,
  undone_by int references batches
);

create table changes (
  id bigint generated always as identity primary key,
  batch_id int not null references batches,
  name_id int not null references names on delete cascade,
  before jsonb,
  after jsonb not null,
  evidence text
);
create index changes_name on changes (name_id);
create index changes_batch on changes (batch_id);

-- Money spent (positive) or received (negative) on a name. Never changed: a correction is a counter-entry.
create table entries (
  id int generated always as identity primary key,
  name_id int not null references names on delete cascade,
  batch_id int not null references batches,
  on_day date not null,
  kind text not null check (kind in ('bought', 'registration', 'renewal', 'late fee', 'restore', 'transfer', 'privacy', 'listing fee', 'commission', 'sale', 'refund', 'other')),
  minor bigint not null,
  currency char(3) not null,
  means text not null default '',
  reference text not null default '',
  note text not null default '',
  quoted_minor bigint,
  corrects int unique references entries
);
create index entries_name on entries (name_id);

create function refuse_change() returns trigger language plpgsql as $$
begin
  raise exception '% is append-only', tg_table_name;
end $$;
create trigger entries_append_only before update on entries for each row execute function refuse_change();
create trigger changes_append_only before update on changes for each row execute function refuse_change();

create table views (
  id int generated always as identity primary key,
  label text not null unique check (label <> ''),
  query text not null,
  columns text[] not null default '{}'
);

-- Renewals carried out at the registrar's own site: planned, told what to do (asked), then confirmed with what happened.
create table renewals (
  id uuid primary key,
  -- The same key is never carried out twice.
  idempotency_key text unique,
  status text not null check (status in ('planned', 'asked', 'confirmed', 'dropped')),
  made_at timestamptz not null,
  promotion jsonb,
  tax_percent numeric not null default 0 check (tax_percent between 0 and 100),
  batch_id int references batches,
  confirmed_at timestamptz
);

create table renewal_items (
  renewal_id uuid not null references renewals on delete cascade,
  name_id int not null references names on delete cascade,
  years int not null,
  old_end timestamptz not null,
  new_end timestamptz,
  quoted_minor bigint,
  currency char(3),
  charged_minor bigint,
  charged_on date,
  means text,
  reference text,
  done boolean,
  primary key (renewal_id, name_id)
);

create table imports (
  id uuid primary key,
  made_at timestamptz not null,
  source text not null,
  content bytea not null,
  options jsonb not null,
  status text not null check (status in ('reading', 'asking', 'ready', 'writing', 'done', 'failed', 'dropped')),
  rows_done int not null default 0,
  rows_total int not null default 0,
  problem text,
  batch_id int references batches
);

-- Without a foreign key: rows come by the ten thousand and are only ever written together with their import.
create table import_rows (
  import_id uuid not null,
  line int not null,
  input text not null,
  ascii text,
  outcome text not null,
  code text,
  message text,
  -- What the row says beyond the columns of `names`; those stand in `after`.
  data jsonb,
  before jsonb,
  after jsonb,
  taken boolean not null default true
);
create index import_rows_import on import_rows (import_id, outcome, line);

create table import_mappings (
  account_id int references accounts on delete cascade,
  headings text not null,
  mapping jsonb not null,
  unique nulls not distinct (account_id, headings)
);
