-- Restores as runs, what was decided about names in danger, and names that are let go.

alter table renewals
  add column action text not null default 'renew' check (action in ('renew', 'restore')),
  -- What the owner certifies in the restore reports (RFC 3915 section 4.2.5): the reason, and what else is to be said.
  add column report jsonb,
  add column certified_at timestamptz,
  add check (action = 'renew' or report is not null);

-- A restore is paid first (`reporting`: the report is to be sent), and done when its report has been taken.
alter table renewal_items drop constraint renewal_items_state_check;
alter table renewal_items add constraint renewal_items_state_check
  check (state in ('planned', 'waiting', 'sending', 'reporting', 'report refused', 'done', 'refused', 'doubt'));
drop index renewal_items_unsettled;
create unique index renewal_items_unsettled on renewal_items (name_id)
  where state in ('waiting', 'sending', 'reporting', 'report refused', 'doubt');
drop index renewal_items_open;
create index renewal_items_open on renewal_items (renewal_id) where state in ('waiting', 'sending', 'reporting');

alter table names
  -- What the owner decided against the verdict, for the term that ends then.
  add column rescue_verdict text check (rescue_verdict in ('keep', 'let go')),
  add column rescue_for timestamptz,
  -- How likely the owner thinks a sale is; null for the office's usual chance.
  add column sale_chance numeric check (sale_chance between 0 and 1),
  -- The best offer that somebody has made for it.
  add column best_offer_minor bigint check (best_offer_minor >= 0),
  add column best_offer_currency char(3),
  -- The registrar has taken a switch and will carry it out later.
  add column switch_pending_since timestamptz,
  add check ((rescue_verdict is null) = (rescue_for is null)),
  add check ((best_offer_minor is null) = (best_offer_currency is null));

-- Names that are let go on purpose: why, what was kept of them, and how they were before, so that there is a way back.
create table letting_go (
  id int generated always as identity primary key,
  name_id int not null references names on delete cascade,
  begun_at timestamptz not null,
  reason text not null,
  zone text,
  checked text[] not null default '{}',
  purpose_before text not null,
  setting_before text not null,
  taken_back_at timestamptz,
  released_at timestamptz
);
create unique index letting_go_current on letting_go (name_id) where taken_back_at is null and released_at is null;
