-- What a price list says beyond one year: conditions of a first price in any words, extras by name, what is included, and where it was seen.
alter table prices drop constraint prices_first_year_condition_check;
alter table prices drop constraint prices_action_check;
alter table prices add constraint prices_action_check check (action in ('register', 'renew', 'transfer', 'restore', 'privacy', 'extra'));
alter table prices
  add column item text not null default '' check ((item <> '') = (action = 'extra')),
  add column included text not null default '',
  add column source text not null default '';
alter table prices drop constraint prices_account_id_name_id_ending_action_from_day_key;
alter table prices add constraint prices_row unique nulls not distinct (account_id, name_id, ending, action, item, from_day);

-- By how much a year the office expects an account's prices of an ending to rise; without a row the list's own history says it.
create table price_rises (
  account_id int not null references accounts on delete cascade,
  ending text not null,
  yearly double precision not null check (yearly between -0.9 and 10),
  primary key (account_id, ending)
);
