-- Several boards in a product: a line knows the board it is on. What an offer charges once; a shop's own losses.

alter table board add column position integer not null default 0;

alter table bom_line add column board_id uuid constraint bom_line_board_fkey references board on delete cascade;
create index bom_line_board on bom_line (board_id) where board_id is not null;
-- Until now there was one board a revision, once in each product: whatever the bill has counts as listed with it.
alter table bom_line no force row level security;
alter table board no force row level security;
alter table bom_line disable trigger record_row;
alter table bom_line disable trigger bump_version;
update bom_line as l
set board_id = b.id
from board as b
where b.revision_id = l.revision_id
  and not exists (select 1 from board as o where o.revision_id = b.revision_id and o.id <> b.id);
alter table bom_line enable trigger bump_version;
alter table bom_line enable trigger record_row;
alter table board force row level security;
alter table bom_line force row level security;

alter table offer add column fee numeric(15, 6) constraint offer_fee_check check (fee > 0);

-- Kind of package → losses by hand and by machine, only what is otherwise than usual.
alter table workshop add column attrition jsonb not null default '{}';
