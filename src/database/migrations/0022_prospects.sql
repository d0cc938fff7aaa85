-- When an asking price was set or taken away: how long each name has been on offer follows from it.
create index changes_asking on changes (name_id) where before ? 'asking_minor';

-- Assumptions of selling that were given a name, to be taken up again.
create table assumption_sets (
  id int primary key generated always as identity,
  label text not null unique,
  assumptions jsonb not null,
  made_at timestamptz not null
);

-- Forecasts that were kept, to be held against what happens: with them the same picture can be made again.
create table forecasts (
  id int primary key generated always as identity,
  label text not null,
  made_at timestamptz not null,
  made_by text not null default 'office',
  currency char(3) not null,
  months int not null check (months between 12 and 120),
  -- Whole numbers of 32 bits; so many paths were played.
  seed bigint not null,
  paths int not null check (paths > 0),
  strategy jsonb not null,
  assumptions jsonb not null,
  opening_minor bigint not null,
  -- The fan month by month, and what was certain to be paid.
  fan jsonb not null,
  costs float8[] not null,
  -- By group: what its rate of sale was held to be. By name: its group and its factor.
  rates jsonb not null,
  name_ids int[] not null,
  name_groups int[] not null,
  factors float8[] not null
);
create index forecasts_made on forecasts (made_at desc, id desc);
