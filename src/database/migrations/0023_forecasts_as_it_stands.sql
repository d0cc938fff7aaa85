-- A kept forecast is always of the portfolio as it stands. One that was kept of another course says so in its label.
update forecasts set label = label || ' (' || (strategy ->> 'kind') || ')' where strategy ->> 'kind' <> 'as it stands';
alter table forecasts drop column strategy;
