-- Names on their way from one account to another: one row for each, its stage written before the next is begun.
-- The registrar takes a name only once its zone is there.
alter table accounts add column wants_zone boolean not null default false;

create table transfer_runs (
  id uuid primary key,
  idempotency_key text unique,
  made_at timestamptz not null
);

create table transfers (
  id int generated always as identity primary key,
  run_id uuid not null references transfer_runs on delete cascade,
  name_id int not null references names,
  -- Null where the name came by push inside its registrar: from a holder, or from a marketplace.
  from_account int references accounts,
  came_from text not null default '',
  -- Null where the name goes to a buyer: the sale says to whom.
  to_account int references accounts check (to_account <> from_account),
  sale_id int references sales,
  -- Not before this day.
  not_before timestamptz not null,
  stage text not null default 'planned' check (stage in ('planned', 'checked', 'zone copied', 'funded', 'auto-renew off', 'unlocked', 'code held',
    'requested', 'pending', 'approved', 'arrived', 'looked after', 'closed', 'going back', 'credit awaited', 'given up')),
  since timestamptz not null,
  exit text check (exit in ('refused', 'wrong code', 'rejected', 'cancelled', 'timed out', 'stopped')),
  problem text,
  -- How the name stood before, to be the same again.
  old_end timestamptz not null,
  setting_before text not null,
  lock_before boolean,
  privacy_before boolean,
  name_servers text[] not null default '{}',
  zone text,
  zone_after text,
  -- How its site answered before; null where it was not asked.
  site text,
  zone_note text not null default '',
  -- What it may cost, in the new account's currency; null where no price was known and none has been agreed to.
  quoted_minor bigint,
  cap_minor bigint,
  currency char(3) not null,
  asked_minor bigint,
  code_sealed bytea,
  order_id text unique,
  last_transfer jsonb,
  acts_by timestamptz,
  charged_minor bigint,
  receipt text,
  credited_minor bigint,
  -- What the old registrar offers for staying, a year, in the old account's currency; undecided until somebody has said what of it.
  counter_minor bigint,
  counter_declined boolean not null default false,
  credited_at timestamptz,
  check ((to_account is null) = (sale_id is not null)),
  check (from_account is not null or to_account is not null)
);

-- A name goes one way at a time.
create unique index transfers_open on transfers (name_id) where stage not in ('closed', 'given up');
create index transfers_stage on transfers (stage) where stage not in ('closed', 'given up');
create index transfers_run on transfers (run_id);
create index transfers_sale on transfers (sale_id);

-- Sold names whose code had been set already go on as what they are: transfers. The code stays sealed as it was, for its sale.
with run as (
  insert into transfer_runs (id, made_at) select gen_random_uuid(), now()
  where exists (select from sales where auth_code_sealed is not null and stage in ('buyer known', 'handed over')) returning id
)
insert into transfers (run_id, name_id, from_account, sale_id, not_before, stage, since, old_end, setting_before, lock_before, privacy_before,
  name_servers, currency, code_sealed)
select run.id, n.id, n.account_id, s.id, s.stage_since, case s.stage when 'handed over' then 'code held' else 'unlocked' end, s.stage_since,
  n.term_end, n.setting, n.lock, n.privacy, n.name_servers, a.currency, s.auth_code_sealed
from run, sales s join names n on n.id = s.name_id join accounts a on a.id = n.account_id
where s.auth_code_sealed is not null and s.stage in ('buyer known', 'handed over') and n.term_end is not null;
update sales set auth_code_sealed = null where id in (select sale_id from transfers);

-- Transfers that nobody here asked for: told by a message or seen in a record, until they are rejected or found to be in order.
create table foreign_transfers (
  id int generated always as identity primary key,
  name_id int not null references names,
  account_id int not null references accounts,
  seen_at timestamptz not null,
  seen_by text not null check (seen_by in ('message', 'record')),
  requested_by text,
  acts_by timestamptz,
  state text not null default 'open' check (state in ('open', 'rejecting', 'rejected', 'gone', 'in order', 'over')),
  problem text,
  mailed_at timestamptz,
  settled_at timestamptz
);
create unique index foreign_transfers_open on foreign_transfers (name_id) where state in ('open', 'rejecting');
