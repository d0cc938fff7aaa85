-- The ledger speaks as the trade does: tables, columns and states bear the words that screens and programs use.

alter table means rename to payment_methods;
alter table entries rename column means to payment_method;
alter table renewal_items rename column means to payment_method;

alter table letting_go rename to drops;
alter index letting_go_current rename to drops_current;

alter table venues rename to marketplaces;
alter index venues_label rename to marketplaces_label;
alter table venue_events rename to marketplace_events;
alter table marketplace_events rename column venue_id to marketplace_id;
alter table listings rename column venue_id to marketplace_id;
alter index listings_venue rename to listings_marketplace;
alter table offer_threads rename column venue_id to marketplace_id;
alter table sales rename column venue_id to marketplace_id;
alter table comparables rename column venue to marketplace;
alter table auctions rename column at_venue to at_marketplace;
alter table partner_pauses drop constraint partner_pauses_kind_check;
update partner_pauses set kind = 'marketplace' where kind = 'venue';
alter table partner_pauses add constraint partner_pauses_kind_check check (kind in ('account', 'marketplace'));
alter table sale_steps drop constraint sale_steps_origin_check;
update sale_steps set origin = 'marketplace' where origin = 'venue';
alter table sale_steps add constraint sale_steps_origin_check
  check (origin in ('by hand', 'marketplace', 'registrar', 'record', 'rule'));

alter table policies rename column restoring_days to pending_restore_days;
alter table policies rename column deleting_days to pending_delete_days;

-- Requested of a registrar, and not confirmed.
alter table names rename column asked to requested;
alter table names rename column asked_at to requested_at;
alter table names rename column asked_lock to requested_lock;
alter table names rename column asked_privacy to requested_privacy;
alter table renewals drop constraint renewals_status_check;
update renewals set status = 'requested' where status = 'asked';
alter table renewals add constraint renewals_status_check check (status in ('planned', 'requested', 'confirmed', 'dropped'));

-- The phases of RFC 3915 and 5731 by their own names; a name that is not to be kept is dropped.
alter table names drop constraint names_observed_check, drop constraint names_purpose_check, drop constraint names_rescue_verdict_check;
update names set observed = case observed when 'restoring' then 'pending restore' when 'deleting' then 'pending delete'
  when 'moving' then 'pending transfer' else observed end where observed in ('restoring', 'deleting', 'moving');
update names set purpose = 'drop' where purpose = 'let go';
update names set rescue_verdict = 'drop' where rescue_verdict = 'let go';
update import_rows set purpose = 'drop' where purpose = 'let go';
alter table names
  add constraint names_observed_check
    check (observed in ('registered', 'redemption', 'pending restore', 'pending delete', 'pending transfer')),
  add constraint names_purpose_check check (purpose in ('in use', 'hold', 'for sale', 'drop')),
  add constraint names_rescue_verdict_check check (rescue_verdict in ('keep', 'drop'));
update batches set kind = case kind when 'let go' then 'drop' when 'give back' then 'refund' else replace(kind, ' asked', ' requested') end
  where kind in ('let go', 'give back') or kind like '% asked';
update settings set key = 'dropReasons' where key = 'letGoReasons';
update reminders set kind = 'deadline' where kind = 'price step';

-- History keeps values by their columns: those of a name that were renamed are renamed there, so that undo finds them.
create function in_trade_words(patch jsonb) returns jsonb language sql immutable as $$
  select coalesce(jsonb_object_agg(
    case key when 'asked' then 'requested' when 'asked_at' then 'requested_at' when 'asked_lock' then 'requested_lock'
      when 'asked_privacy' then 'requested_privacy' else key end,
    case
      when key in ('purpose', 'rescue_verdict') and value = '"let go"' then '"drop"'::jsonb
      when key = 'observed' and value = '"restoring"' then '"pending restore"'::jsonb
      when key = 'observed' and value = '"deleting"' then '"pending delete"'::jsonb
      when key = 'observed' and value = '"moving"' then '"pending transfer"'::jsonb
      else value end), '{}') from jsonb_each(patch);
$$;
alter table changes disable trigger changes_append_only;
update changes set before = in_trade_words(before), after = in_trade_words(after)
  where before ?| array['asked', 'asked_at', 'asked_lock', 'asked_privacy', 'observed', 'purpose', 'rescue_verdict']
    or after ?| array['asked', 'asked_at', 'asked_lock', 'asked_privacy', 'observed', 'purpose', 'rescue_verdict'];
alter table changes enable trigger changes_append_only;

-- A saved view is the query of a URL: only what names a phase, a purpose or an order is put in other words, never a text looked for.
create function view_in_trade_words(query text) returns text language sql immutable as $$
  select coalesce(string_agg(case
      when part like 'phase=%' then
        replace(replace(replace(replace(part, 'free', 'available'), 'restoring', 'pending+restore'), 'deleting', 'pending+delete'),
          'moving', 'pending+transfer')
      when part like 'purpose=%' then replace(replace(part, 'let+go', 'drop'), 'let%20go', 'drop')
      when part in ('sort=step', 'sort=-step') then replace(part, 'step', 'deadline')
      else part end, '&' order by place), '')
  from unnest(string_to_array(query, '&')) with ordinality as parts(part, place);
$$;
update views set query = view_in_trade_words(query);
drop function view_in_trade_words(text);
drop function in_trade_words(jsonb);

-- How long a registrar may take to confirm what it was requested to switch; null where nobody has said.
alter table accounts add column switch_hours int check (switch_hours between 0 and 720);

-- Who did it: a person of the office, or the program by itself.
alter table batches add column made_by text not null default 'office';

-- What was agreed stands with the run: it is quoted once, and carried out within it.
alter table renewals add column quote jsonb, add column quoted_at timestamptz, add column quoted_revision bigint;

-- Fixed price with room for offers, by what it is. How long an auction runs is the marketplace's own matter.
alter table listings drop constraint listings_kind_check, drop constraint listings_auction_days_check;
update listings set kind = 'fixed price, offers too' where kind = 'both';
alter table listings
  add constraint listings_kind_check check (kind in ('fixed price', 'open to offers', 'fixed price, offers too', 'auction')),
  add constraint listings_auction_days_check check (auction_days between 1 and 90);

-- What a marketplace asks beside the prices: a list of its own, each with what may be chosen and what that costs.
alter table marketplaces add column attributes jsonb not null default '[]';
alter table listings add column attributes jsonb not null default '{}';
update marketplaces set attributes =
  '[{"label": "For adults only (18+)", "options": [{"label": "yes", "minor": 0}]}]'::jsonb
  || case when network is null then '[]' else jsonb_build_array(jsonb_build_object(
       'label', 'Shown at ' || network || ' too', 'options', '[{"label": "yes", "minor": 0}]'::jsonb)) end
  || case when jsonb_array_length(placements) = 0 then '[]' else jsonb_build_array(jsonb_build_object(
       'label', 'Paid placement', 'options', placements)) end;
update listings l set attributes =
  case when l.adult then '{"For adults only (18+)": "yes"}'::jsonb else '{}' end
  || case when l.network and m.network is not null then jsonb_build_object('Shown at ' || m.network || ' too', 'yes') else '{}' end
  || case when l.placement is null then '{}' else jsonb_build_object('Paid placement', l.placement) end
  from marketplaces m where m.id = l.marketplace_id;
alter table marketplaces drop column network, drop column placements;
alter table listings drop column adult, drop column network, drop column placement;
