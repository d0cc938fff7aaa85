-- Which names each change of the ledger touched, so that whoever knows an earlier state asks only for those. Kept for the last changes
-- alone; 0 stands for all of them.
create table changed_names (
  revision bigint not null,
  name_id int not null
);
create index changed_names_revision on changed_names (revision);

-- Which ledger it is whose changes are counted: every one counts from one, and a number alone may be another's.
alter table revision add column ledger uuid not null default gen_random_uuid();

-- So many rows at once are all names: reading the ledger anew is quicker than telling them apart.
create function note_changed_names(ids int[]) returns void language sql as $$
  insert into changed_names (revision, name_id)
    select n, id from revision, unnest(case when cardinality(ids) > 5000 then '{0}' else ids end) as id;
  delete from changed_names where revision < (select n - 1000 from revision);
$$;

-- For the rows that a statement has written, no more of them than are told apart; the trigger says which column holds the name's id.
create function note_written() returns trigger language plpgsql as $$
declare
  ids int[];
begin
  execute format('select array(select %1$I from written where %1$I is not null limit 5001)', tg_argv[0]) into ids;
  perform note_changed_names(ids);
  return null;
end $$;
create trigger note_names_inserted after insert on names referencing new table as written
  for each statement execute function note_written('id');
create trigger note_names_updated after update on names referencing new table as written
  for each statement execute function note_written('id');
-- What was spent on a name is told with it.
create trigger note_entries_inserted after insert on entries referencing new table as written
  for each statement execute function note_written('name_id');
create trigger note_entries_updated after update on entries referencing new table as written
  for each statement execute function note_written('name_id');
create trigger note_entries_deleted after delete on entries referencing old table as written
  for each statement execute function note_written('name_id');

create function note_all_names() returns trigger language plpgsql as $$
begin
  perform note_changed_names('{0}');
  return null;
end $$;
create trigger note_names_deleted after delete on names for each statement execute function note_all_names();
create trigger note_names_truncated after truncate on names for each statement execute function note_all_names();
create trigger note_entries_truncated after truncate on entries for each statement execute function note_all_names();
