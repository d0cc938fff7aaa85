-- Up to which of its numbers the ledger's changes have been told: whoever asks is answered of that state or a later one. It follows the
-- number itself. Only a change of so many names that they are not told apart stays behind it until they have been read once.
alter table revision add column told bigint not null default 0;
update revision set told = n;

create function tell_change() returns trigger language plpgsql as $$
begin
  new.told := new.n;
  return new;
end $$;
create trigger revision_told before update of n on revision for each row execute function tell_change();

create or replace function note_changed_names(ids int[]) returns void language sql as $$
  insert into changed_names (revision, name_id)
    select n, id from revision, unnest(case when cardinality(ids) > 5000 then '{0}' else ids end) as id;
  update revision set told = n - 1 where cardinality(ids) > 5000 and told = n;
  delete from changed_names where revision < (select n - 1000 from revision);
$$;
