-- What happened, for programs that follow along. `place` is given to what has been written, in the order in which that is seen: who has
-- read up to a place misses nothing, however long an earlier transaction takes.
create table events (
  id bigint primary key generated always as identity,
  place bigint unique,
  at timestamptz not null,
  kind text not null,
  -- Which one of its kind: a run's id, a transfer's number.
  subject text not null,
  name_id int,
  told jsonb not null default '{}'
);
create index events_unplaced on events (id) where place is null;
create index events_at on events (at);

-- The last place that was given, and the last of those whose events have been forgotten.
create table event_places (last bigint not null, forgotten bigint not null);
insert into event_places values (0, 0);

-- Programs that are told of each event. The secret signs what is sent; it is sealed like those of links.
create table webhooks (
  id int primary key generated always as identity,
  label text not null,
  url text not null,
  secret bytea not null,
  -- Kinds of events that are told; none for all.
  kinds text[] not null default '{}',
  made_at timestamptz not null,
  -- The place of the last event that was taken.
  after_place bigint not null,
  -- How often the one after it was sent, since when, and when it is sent next.
  attempts int not null default 0,
  failing_since timestamptz,
  next_at timestamptz,
  problem text,
  paused boolean not null default false,
  told_at timestamptz
);

-- The ledger's clock: ahead of the machine's where the practice world has let days pass.
create function ledger_now() returns timestamptz language sql stable as $$
  select now() + coalesce((select (value #>> '{}')::float8 from settings where key = 'clockOffsetMs'), 0) * interval '1 millisecond'
$$;

-- Writes the event of a row: its kind, the column of its subject, that of its instant ('' for now), and the columns that are told.
create function note_event() returns trigger language plpgsql as $$
declare
  r jsonb := to_jsonb(new);
  args text[] := tg_argv;
  about int := (r ->> 'name_id')::int;
  -- What hangs on a row that is about a name says which.
  parent jsonb := '{}';
begin
  if current_setting('name_ledger.quiet', true) = 'on' then
    return null;
  end if;
  case tg_table_name
    when 'figures' then
      select jsonb_build_object('currency', t.currency, 'buyer', t.buyer), t.name_id into parent, about
      from offer_threads t where t.id = new.thread_id;
    when 'bids' then
      select jsonb_build_object('currency', a.currency), a.name_id into parent, about from auctions a where a.id = new.auction_id;
    when 'sale_steps' then
      select jsonb_build_object('currency', s.currency, 'price_minor', s.price_minor, 'buyer', s.buyer), s.name_id
      into parent, about from sales s where s.id = new.sale_id;
    when 'renewal_items' then
      select jsonb_build_object('action', action) into parent from renewals where id = new.renewal_id;
    else null;
  end case;
  insert into events (at, kind, subject, name_id, told)
  values (
    coalesce((r ->> args[2])::timestamptz, ledger_now()), args[0], r ->> args[1], about,
    coalesce(parent, '{}') || coalesce((select jsonb_object_agg(key, value) from jsonb_each(r) where key = any (args[3:])), '{}')
  );
  return null;
end $$;

create trigger tell_history after insert on batches for each row
  execute function note_event('history', 'id', 'at', 'kind', 'summary', 'made_by', 'undoes');

create trigger tell_run_begun after insert on renewals for each row
  execute function note_event('run', 'id', 'made_at', 'action', 'status');
create trigger tell_run after update of status on renewals for each row when (old.status is distinct from new.status)
  execute function note_event('run', 'id', '', 'action', 'status');
create trigger tell_run_item after update of state on renewal_items for each row when (old.state is distinct from new.state)
  execute function note_event('run item', 'renewal_id', '', 'state', 'problem', 'charged_minor', 'currency', 'new_end', 'receipt');

create trigger tell_transfer_begun after insert on transfers for each row
  execute function note_event('transfer', 'id', 'since', 'stage', 'exit', 'problem');
create trigger tell_transfer after update of stage, exit on transfers for each row
  when (old.stage is distinct from new.stage or old.exit is distinct from new.exit)
  execute function note_event('transfer', 'id', 'since', 'stage', 'exit', 'problem', 'charged_minor', 'currency');
create trigger tell_foreign_begun after insert on foreign_transfers for each row
  execute function note_event('foreign transfer', 'id', 'seen_at', 'state', 'requested_by', 'acts_by');
create trigger tell_foreign after update of state on foreign_transfers for each row when (old.state is distinct from new.state)
  execute function note_event('foreign transfer', 'id', '', 'state', 'problem');

create trigger tell_registration_begun after insert on registrations for each row
  execute function note_event('registration', 'id', 'since', 'ascii', 'state');
create trigger tell_registration after update of state on registrations for each row when (old.state is distinct from new.state)
  execute function note_event('registration', 'id', 'since', 'ascii', 'state', 'problem', 'charged_minor', 'currency', 'new_end');
create trigger tell_release_begun after insert on release_orders for each row
  execute function note_event('release order', 'id', 'made_at', 'ascii', 'state');
create trigger tell_release after update of state on release_orders for each row when (old.state is distinct from new.state)
  execute function note_event('release order', 'id', 'since', 'ascii', 'state', 'problem');

create trigger tell_listing_begun after insert on listings for each row
  execute function note_event('listing', 'id', 'made_at', 'status', 'kind');
create trigger tell_listing after update of status on listings for each row when (old.status is distinct from new.status)
  execute function note_event('listing', 'id', '', 'status', 'kind', 'problem');
create trigger tell_figure after insert on figures for each row
  execute function note_event('offer', 'thread_id', 'at', 'by', 'minor', 'state', 'lapses_at', 'by_rule');
create trigger tell_figure_state after update of state on figures for each row when (old.state is distinct from new.state)
  execute function note_event('offer', 'thread_id', '', 'by', 'minor', 'state');
create trigger tell_bid after insert on bids for each row
  execute function note_event('bid', 'auction_id', 'at', 'bidder', 'price_minor');
create trigger tell_auction after update of outcome, cancelled on auctions for each row
  when (old.outcome is distinct from new.outcome or old.cancelled is distinct from new.cancelled)
  execute function note_event('auction', 'id', 'closed_at', 'outcome', 'cancelled', 'price_minor', 'currency', 'leader');
create trigger tell_sale after insert on sale_steps for each row
  execute function note_event('sale', 'sale_id', 'at', 'stage', 'origin', 'note');

create trigger tell_watch after update of change on watches for each row
  when (new.change <> '' and (old.change is distinct from new.change or old.changed_at is distinct from new.changed_at))
  execute function note_event('watch', 'ascii', 'changed_at', 'change', 'is_free', 'earliest', 'latest');
create trigger tell_message after insert on registrar_messages for each row
  execute function note_event('registrar message', 'account_id', 'received_at', 'kind', 'name', 'text');
