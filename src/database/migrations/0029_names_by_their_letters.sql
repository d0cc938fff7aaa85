-- Names are ASCII, and whoever searches an ordered list of them compares letter by letter. A server of another language orders them by its
-- own rules ("aa" behind "z" in Danish, "ch" behind "h" in Czech): then names that are there are not found. It is also the quicker order.
alter table names alter column ascii type text collate "C";
alter table import_rows alter column ascii type text collate "C";
