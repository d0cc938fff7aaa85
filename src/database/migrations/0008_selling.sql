-- Selling: venues, listings, offers, auctions, sales, and what they are compared with.

create table venues (
  id int generated always as identity primary key,
  label text not null check (label <> ''),
  -- Currencies that it sells in; empty for any.
  currencies text[] not null default '{}',
  -- The currency of its fees.
  fees_currency char(3) not null,
  percent numeric not null default 0 check (percent between 0 and 100),
  floor_minor bigint not null default 0 check (floor_minor >= 0),
  steps jsonb not null default '[]',
  sale_fee_minor bigint not null default 0 check (sale_fee_minor >= 0),
  listing_fee_minor bigint not null default 0 check (listing_fee_minor >= 0),
  membership_minor bigint not null default 0 check (membership_minor >= 0),
  whole_units boolean not null default true,
  auction_days int[] not null default '{}',
  review_hours int not null default 72 check (review_hours between 0 and 2000),
  payout_set boolean not null default false,
  -- Paid placements, [{label, minor}].
  placements jsonb not null default '[]',
  categories text[] not null default '{}',
  -- What each category beyond the first costs.
  category_minor bigint not null default 0 check (category_minor >= 0),
  -- A network of partners that show its listings too; null where it has none.
  network text,
  -- Names in this account, which is at the venue itself, need no proof.
  account_id int references accounts on delete set null,
  -- Columns of its list of listings, [{heading, field}]; null for our own.
  csv_columns jsonb,
  notes text not null default '',
  link_url text,
  link_secret bytea,
  -- The last event that was read.
  link_cursor bigint not null default 0,
  link_read_at timestamptz,
  link_problem text,
  check ((link_url is null) = (link_secret is null))
);
create unique index venues_label on venues (lower(label));

create table listings (
  id int generated always as identity primary key,
  name_id int not null references names on delete cascade,
  -- Null: the office sells it itself.
  venue_id int references venues,
  kind text not null check (kind in ('fixed price', 'open to offers', 'both', 'auction')),
  currency char(3) not null,
  minimum_minor bigint check (minimum_minor > 0),
  start_minor bigint check (start_minor > 0),
  reserve_minor bigint check (reserve_minor > 0),
  asking_minor bigint check (asking_minor > 0),
  buy_now_minor bigint check (buy_now_minor > 0),
  -- Why each price is what it is, by its name.
  reasons jsonb not null default '{}',
  auction_days int not null default 14 check (auction_days between 1 and 30),
  reserve_shown boolean not null default false,
  with_site boolean not null default false,
  categories text[] not null default '{}',
  pitch text not null default '',
  description text not null default '',
  adult boolean not null default false,
  network boolean not null default false,
  placement text,
  status text not null default 'draft' check (status in
    ('draft', 'sending', 'unproved', 'in review', 'live', 'refused', 'withdrawing', 'withdrawn', 'sold', 'ended')),
  proof_host text,
  proof_text text,
  proof_by text check (proof_by in ('txt', 'mail', 'account', 'by hand')),
  -- The registrar link was asked to set the proof's record.
  proof_set_at timestamptz,
  -- The venue was last asked to look for it.
  proof_looked_at timestamptz,
  proved_at timestamptz,
  review_until timestamptz,
  seen_live_at timestamptz,
  problem text,
  made_at timestamptz not null,
  sent_at timestamptz
);
create unique index listings_current on listings (name_id, coalesce(venue_id, 0)) where status not in ('withdrawn', 'sold', 'ended');
-- A name is in one auction at a time.
create unique index listings_one_auction on listings (name_id)
  where kind = 'auction' and status in ('sending', 'unproved', 'in review', 'live');
create index listings_name on listings (name_id);
create index listings_venue on listings (venue_id, status);

create table offer_threads (
  id int generated always as identity primary key,
  name_id int not null references names on delete cascade,
  venue_id int references venues,
  -- The venue's own id of the thread.
  ref text,
  buyer text not null check (buyer <> ''),
  contact text not null default '',
  currency char(3) not null,
  state text not null default 'open' check (state in ('open', 'waiting', 'accepted', 'declined', 'lapsed', 'withdrawn')),
  made_at timestamptz not null,
  note text not null default ''
);
create unique index offer_threads_ref on offer_threads (venue_id, ref) where ref is not null;
create index offer_threads_name on offer_threads (name_id);

create table figures (
  id int generated always as identity primary key,
  thread_id int not null references offer_threads on delete cascade,
  by text not null check (by in ('buyer', 'owner')),
  minor bigint not null check (minor > 0),
  at timestamptz not null,
  lapses_at timestamptz,
  state text not null default 'live' check (state in ('live', 'voided', 'accepted', 'declined', 'lapsed')),
  ref text,
  by_rule boolean not null default false,
  -- An answer that the venue has still to be told.
  to_tell text check (to_tell in ('counter', 'decline')),
  note text not null default ''
);
-- One live figure in a thread, and one that was accepted.
create unique index figures_live on figures (thread_id) where state = 'live';
create unique index figures_accepted on figures (thread_id) where state = 'accepted';

create table auctions (
  id int generated always as identity primary key,
  listing_id int not null unique references listings on delete cascade,
  name_id int not null references names on delete cascade,
  -- Held at a venue over its link, or by the office itself.
  at_venue boolean not null,
  currency char(3) not null,
  opens_at timestamptz not null,
  closes_at timestamptz not null,
  start_minor bigint not null,
  reserve_minor bigint,
  buy_now_minor bigint,
  increments jsonb not null,
  cancelled boolean not null default false,
  bought_by text,
  bought_at timestamptz,
  -- What the venue shows of its own auction.
  price_minor bigint,
  leader text,
  reserve_met boolean not null default false,
  -- Set once, when it has closed.
  outcome jsonb,
  closed_at timestamptz
);
create index auctions_name on auctions (name_id);
create index auctions_open on auctions (closes_at) where outcome is null;

create table bids (
  id int generated always as identity primary key,
  auction_id int not null references auctions on delete cascade,
  bidder text not null check (bidder <> ''),
  -- Not shown by a venue.
  max_minor bigint,
  -- The price that stood after it.
  price_minor bigint not null,
  at timestamptz not null,
  ref text
);
create index bids_auction on bids (auction_id, id);
create unique index bids_ref on bids (auction_id, ref) where ref is not null;

create table sales (
  id int generated always as identity primary key,
  name_id int not null references names on delete cascade,
  venue_id int references venues,
  listing_id int references listings,
  -- An offer is accepted once, an auction sold once, a purchase at a venue taken once.
  figure_id int unique references figures,
  auction_id int unique references auctions,
  ref text,
  how text not null check (how in ('offer', 'bid', 'buy now')),
  buyer text not null,
  price_minor bigint not null check (price_minor > 0),
  currency char(3) not null,
  stage text not null default 'agreed' check (stage in
    ('agreed', 'money held', 'buyer known', 'handed over', 'arrived', 'done', 'not paid', 'refused', 'dispute')),
  agreed_at timestamptz not null,
  stage_since timestamptz not null,
  due_at timestamptz,
  handover text check (handover in ('push', 'transfer')),
  -- The buyer's account at the same registrar, or the registrar that the name is to go to.
  buyer_account text,
  auth_code text,
  -- What the registrar was asked to do, and has not answered yet.
  handing_over boolean not null default false,
  commission_minor bigint,
  fees_minor bigint,
  -- The batch in which it was booked: once.
  booked_batch int unique references batches,
  -- The venue has still to be told: that it is agreed, that it is not, or that the name was handed over.
  to_tell text check (to_tell in ('agreed', 'refused', 'handed over')),
  -- The name came back into the ledger later, and may be sold again.
  superseded boolean not null default false,
  note text not null default ''
);
-- A name is never sold twice, wherever it is offered.
create unique index sales_one_of_a_name on sales (name_id) where stage not in ('not paid', 'refused') and not superseded;
create unique index sales_ref on sales (venue_id, ref) where ref is not null;

create function sold_name_returns() returns trigger language plpgsql as $$
begin
  update sales set superseded = true where name_id = new.id and stage = 'done';
  return new;
end $$;
create trigger names_return after update of gone_at on names for each row
  when (old.gone_at is not null and new.gone_at is null) execute function sold_name_returns();

create index sales_name on sales (name_id);

-- The way of a sale from stage to stage.
create table sale_steps (
  id int generated always as identity primary key,
  sale_id int not null references sales on delete cascade,
  at timestamptz not null,
  stage text not null,
  origin text not null check (origin in ('by hand', 'venue', 'registrar', 'record', 'rule')),
  note text not null default ''
);
create index sale_steps_sale on sale_steps (sale_id, id);

-- Events of a venue that have been taken down: each once.
create table venue_events (
  venue_id int not null references venues on delete cascade,
  event_id bigint not null,
  at timestamptz not null,
  event jsonb not null,
  primary key (venue_id, event_id)
);

-- Sales of others that were told.
create table comparables (
  id int generated always as identity primary key,
  ascii text not null,
  minor bigint not null check (minor > 0),
  currency char(3) not null,
  on_day date not null,
  venue text not null default '',
  unique (ascii, on_day, minor, currency)
);

create table rates (
  from_day date not null,
  currency char(3) not null,
  into_currency char(3) not null check (into_currency <> currency),
  factor numeric not null check (factor > 0),
  primary key (from_day, currency, into_currency)
);
