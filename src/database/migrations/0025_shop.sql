-- The shop window: what buyers send, who is not heard, who looked, and how a name is shown.

-- What a buyer has sent from a window. Until he confirms it by the link in his mail it reaches nobody.
create table letters (
  id int primary key generated always as identity,
  token_hash bytea not null unique,
  -- For the links of later mails; null where it came without its key.
  token_sealed bytea,
  kind text not null check (kind in ('offer', 'purchase', 'bid')),
  name_id int not null references names on delete cascade,
  auction_id int references auctions on delete cascade,
  buyer text not null check (length(buyer) between 1 and 120),
  mail text not null check (length(mail) between 3 and 254),
  language text not null,
  -- What is offered, or the most that is bid.
  minor bigint not null check (minor > 0),
  currency char(3) not null,
  message text not null default '' check (length(message) <= 400),
  asked_at timestamptz not null,
  confirmed_at timestamptz,
  thread_id int references offer_threads on delete cascade,
  -- Of a bid: the most that has been bid, the deposit that the rest wants, what is held of it, and since when it is back.
  placed_minor bigint,
  deposit_minor bigint not null default 0 check (deposit_minor >= 0),
  held_minor bigint not null default 0 check (held_minor >= 0),
  returned_at timestamptz,
  -- Why the last bid was not taken, by its code.
  refused text,
  -- The last news that was mailed, and whether more may come.
  told text,
  over boolean not null default false,
  mail_problem text,
  -- How often the server has refused the mail that is due, and when it is tried again.
  mail_tries int not null default 0,
  mail_again_at timestamptz,
  check ((kind = 'bid') = (auction_id is not null))
);
create index letters_open on letters (id) where not over;
create index letters_thread on letters (thread_id);
create index letters_auction on letters (auction_id);
create index letters_name on letters (name_id);

-- Addresses that were mailed a link: whoever never confirmed one is not written to again.
create table letters_mailed (
  mail_hash bytea primary key,
  at timestamptz not null
);

-- Of these, and of every address under these hosts (`@host`), nothing is heard.
create table blocked_senders (
  sender text primary key check (sender = lower(sender)),
  at timestamptz not null,
  person text default acting_person()
);

-- How often the window of a name was opened on a day, without anything of who did.
create table visits (
  name_id int not null references names on delete cascade,
  day date not null,
  visits int not null check (visits > 0),
  primary key (name_id, day)
);
create index visits_day on visits (day);

-- Whether a name leads to its window, as DNS showed it last.
create table window_looks (
  name_id int primary key references names on delete cascade,
  looked_at timestamptz not null,
  shows boolean not null,
  found text[] not null default '{}',
  problem text
);

-- Certificates by which windows are shown over TLS, from a server that speaks ACME (RFC 8555).
create table certificates (
  id int primary key generated always as identity,
  host text not null unique check (host = lower(host)),
  chain text,
  key_sealed bytea,
  not_after timestamptz,
  tried_at timestamptz,
  problem text
);
-- The office's account at each such server.
create table certificate_accounts (
  id int primary key generated always as identity,
  directory text not null unique,
  key_sealed bytea not null
);
-- What such a server asks for to see that a host is ours.
create table certificate_challenges (
  token text primary key,
  answer text not null,
  at timestamptz not null
);

alter table sale_steps drop constraint sale_steps_origin_check;
alter table sale_steps add constraint sale_steps_origin_check
  check (origin in ('by hand', 'marketplace', 'registrar', 'record', 'rule', 'buyer'));
