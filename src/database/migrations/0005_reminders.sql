-- Reminders by mail: what was told of which price step, and whether somebody has seen it.

create table reminders (
  name_id int not null references names on delete cascade,
  -- The step it is about: another date of it is another reminder.
  step_at timestamptz not null,
  kind text not null,
  -- The lead, in days, at which it was last told; 0 for at once.
  stage int not null,
  times int not null default 1,
  first_at timestamptz not null,
  last_at timestamptz not null,
  acknowledged_at timestamptz,
  token uuid not null unique,
  primary key (name_id, step_at, kind)
);

-- Until when the holder of a name has to confirm the mail address; the name stops working after it.
alter table names add column confirm_mail_by timestamptz;
