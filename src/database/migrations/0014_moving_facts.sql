-- What decides whether a name may be transferred, as facts of the name, each with what it is known by.
alter table names
  add column transferred timestamptz,
  add column transferred_day boolean not null default false,
  add column transferred_evidence text,
  add column holder_changed timestamptz,
  add column holder_changed_day boolean not null default false,
  add column holder_changed_evidence text,
  add column holder_lock_waived boolean not null default false,
  add column grace_paid timestamptz,
  add column statuses text[] not null default '{}';

-- Days after a change of holder in which registrars refuse a transfer, unless that is waived. Null: as long as after a transfer.
alter table policies add column holder_lock_days int check (holder_lock_days between 0 and 400);

-- When a year was last paid for that the registry had let stand: the automatic charges that registrars have told of.
update names set grace_paid = told.at from (
  select n.id, max(coalesce(m.told_at, m.received_at)) as at from registrar_messages m join names n on n.ascii = m.name and n.account_id = m.account_id
  where m.kind = 'charged' group by n.id) told where told.id = names.id;

-- What the records seen so far say: statuses of the last look, the last transfer, and when it was registered where nobody had said.
with newest as (
  select ascii, max(last_at) as at from records group by ascii
), seen as (
  select n.ascii, array_agg(distinct status) as statuses from newest n
  join records r on r.ascii = n.ascii and r.last_at > n.at - interval '1 day', jsonb_array_elements_text(r.record -> 'statuses') as status
  group by n.ascii
)
update names set statuses = seen.statuses from seen where seen.ascii = names.ascii;

with seen as (
  select r.ascii, max((event ->> 'at')::float8) as at from records r, jsonb_array_elements(r.record -> 'events') as event
  where event ->> 'action' = 'transfer' group by r.ascii
)
update names set transferred = to_timestamp(seen.at / 1000.0), transferred_evidence = 'the registration record'
from seen where seen.ascii = names.ascii;

with seen as (
  select distinct on (ascii) ascii, (record ->> 'registered')::float8 as at from records
  where record ->> 'registered' is not null order by ascii, last_at desc
)
update names set registered = to_timestamp(seen.at / 1000.0) from seen where seen.ascii = names.ascii and names.registered is null;
