-- Mails of registrars and marketplaces, kept as they came: what they say is evidence.
create table mails (
  id int primary key generated always as identity,
  message_id text not null unique,
  source text not null check (source in ('dropped', 'pasted', 'mailbox', 'received')),
  came_at timestamptz not null,
  sent_at timestamptz,
  sender text not null,
  sender_name text not null,
  subject text not null,
  body text not null,
  raw bytea not null,
  -- What the server that took it in found of its signatures.
  signatures text[] not null default '{}',
  kind text not null,
  account_id int references accounts on delete set null,
  is_sure boolean not null
);
create index mails_came on mails (came_at desc, id desc);

-- The names of the ledger that a mail speaks of, what it says of each, and what became of what follows from it.
create table mail_names (
  mail_id int not null references mails on delete cascade,
  name_id int not null references names on delete cascade,
  date timestamptz,
  date_day boolean,
  minor bigint,
  currency char(3),
  state text not null check (state in ('nothing', 'open', 'taken', 'left')),
  batch_id int references batches,
  primary key (mail_id, name_id)
);
create index mail_names_name on mail_names (name_id);
create index mail_names_open on mail_names (mail_id) where state = 'open';

-- A transfer that nobody here asked for may be told by mail.
alter table foreign_transfers drop constraint foreign_transfers_seen_by_check;
alter table foreign_transfers add constraint foreign_transfers_seen_by_check check (seen_by in ('message', 'record', 'mail'));

create trigger tell_mail after insert on mails for each row
  execute function note_event('mail', 'id', 'came_at', 'kind', 'sender', 'subject');
