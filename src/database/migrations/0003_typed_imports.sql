-- What a list says is compared and written as columns, not as JSON taken apart row by row; and a name knows the act that
-- added it, so that ten thousand new names need no ten thousand lines of history.

drop table import_rows;
update imports set status = 'failed', problem = 'interrupted' where status in ('reading', 'asking', 'ready', 'writing');

-- Without a foreign key: rows come by the ten thousand and are only ever written together with their import.
create table import_rows (
  import_id uuid not null,
  line int not null,
  -- The cells as JSON, for rows that are refused.
  input text,
  ascii text,
  outcome text not null,
  code text,
  message text,
  taken boolean not null default true,
  "unicode" text,
  ending text,
  account text,
  registered timestamptz,
  registered_day boolean,
  term_end timestamptz,
  term_end_day boolean,
  setting text,
  lock boolean,
  privacy boolean,
  name_servers text[],
  tags text[],
  purpose text,
  never_lost boolean,
  notes text,
  asking_minor bigint,
  asking_currency char(3),
  paid_minor bigint,
  paid_currency char(3),
  paid_on date,
  renewal_minor bigint,
  renewal_currency char(3),
  -- What would change on a name that is there already.
  before jsonb,
  after jsonb
);
create index import_rows_import on import_rows (import_id, line);

-- Without a foreign key for the same reason: a name and its batch are written in one transaction.
alter table names add column added_batch int, add column added_evidence text;
update names n set added_batch = c.batch_id, added_evidence = c.evidence from changes c where c.name_id = n.id and c.before is null;
delete from changes where before is null;
alter table names alter column added_batch set not null;
alter table changes alter column before set not null;
create index names_added_batch on names (added_batch);
