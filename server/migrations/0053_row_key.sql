-- What was recorded of one row is found by its key as text: under row-level security only comparisons that tell nothing of a row
-- may use an index, and that of jsonb is none of them, so every such question read all of the shop's record of the table.
alter table change_row add column row_key text generated always as (key::text) stored;
drop index change_row_key;
create index change_row_key on change_row (workshop_id, tbl, row_key, version);
