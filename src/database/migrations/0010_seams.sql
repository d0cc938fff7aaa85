-- What was read out of a text, or taken for known though nobody had said it, stands in columns of its own.

-- Tax that nobody spoke of is the account's own; 0 is a value.
alter table renewals alter column tax_percent drop not null, alter column tax_percent drop default;
update renewals set tax_percent = null where tax_percent = 0;

-- By which of its means each account of a run pays, by account; those that are not named pay in their usual order.
alter table renewals add column pay_by jsonb not null default '{}';

alter table renewal_items
  add column quoted_tax_minor bigint,
  -- The currency in which the registrar names its price.
  add column live_currency char(3),
  drop constraint renewal_items_state_check,
  add constraint renewal_items_state_check
    check (state in ('planned', 'waiting', 'sending', 'pending', 'reporting', 'report refused', 'done', 'refused', 'doubt'));
-- `pending`: the registrar has taken the order and will finish it later; its message settles it.
drop index renewal_items_unsettled;
create unique index renewal_items_unsettled on renewal_items (name_id)
  where state in ('waiting', 'sending', 'pending', 'reporting', 'report refused', 'doubt');
drop index renewal_items_open;
create index renewal_items_open on renewal_items (renewal_id) where state in ('waiting', 'sending', 'pending', 'reporting');

-- What taught an inferred price: it goes when that is taken back.
alter table prices
  add column taught_by_entry int references entries on delete cascade deferrable initially deferred,
  add column taught_by_batch int references batches on delete set null deferrable initially deferred;

-- The registrar or registry shows the name as registered, past the day on which it should have been deleted.
alter table names drop constraint names_observed_check;
alter table names add constraint names_observed_check
  check (observed in ('registered', 'redemption', 'restoring', 'deleting', 'moving'));

-- What the account's own answer said last of a name's end, and when: an answer about a name, not about the account.
alter table names add column told_end timestamptz, add column told_at timestamptz;

-- The sale that an entry belongs to, and whether a listing was ended because its name was promised elsewhere.
alter table entries add column sale_id int references sales on delete cascade deferrable initially deferred;
drop trigger entries_append_only on entries;
create trigger entries_append_only before update on entries for each row
  when (old.sale_id is not null or to_jsonb(old) - 'sale_id' is distinct from to_jsonb(new) - 'sale_id')
  execute function refuse_change();
alter table listings add column ended_by_sale boolean not null default false;

-- Files of earlier versions told both in words: what they bring is taken from there, once.
create function know_sales_by_column() returns void language sql as $$
  update entries e set sale_id = s.id from sales s
    where e.sale_id is null and e.name_id = s.name_id and e.reference = 'sale ' || s.id;
  update listings set ended_by_sale = true
    where not ended_by_sale and status in ('withdrawing', 'withdrawn') and problem = 'promised elsewhere';
$$;
select know_sales_by_column();

-- A venue's own rules of auctions: by how much a late bid moves the close, and until when a name can be bought at once.
alter table venues
  add column extension_minutes int not null default 5 check (extension_minutes between 0 and 1440),
  add column buy_now_ends text not null default 'reserve met' check (buy_now_ends in ('reserve met', 'first bid', 'close'));
alter table auctions
  add column extension_minutes int not null default 5 check (extension_minutes between 0 and 1440),
  add column buy_now_ends text not null default 'reserve met' check (buy_now_ends in ('reserve met', 'first bid', 'close')),
  add column whole_units boolean not null default true,
  -- The least that the next bid has to reach, where a venue says so.
  add column next_minor bigint;

-- What names have cost, entry by entry: everything but the price of a sale and what was kept of it. The one view for all who ask.
create view spending as
  select id, name_id, on_day, minor, currency from entries where kind <> 'sale' and sale_id is null;
