-- Lists of hundreds of thousands of names are read and written in seconds.

-- What was read of a list is made again from its text: it needs no write-ahead log, and after a crash it is read anew. Rows of one list
-- lie together, so that a summary of their blocks finds them.
drop index import_rows_import;
alter table import_rows set unlogged;
create index import_rows_import on import_rows using brin (import_id) with (autosummarize = on);

-- Nothing asks for names by the end of their term here; names of one act lie together.
drop index names_term_end;
drop index names_added_batch;
create index names_added_batch on names using brin (added_batch) with (autosummarize = on);
