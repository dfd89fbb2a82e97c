-- Marks, pictures, files and designs on a product that may be somebody's, and what entitles to them.
create table right_row (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  product_id uuid not null,
  kind text not null constraint right_row_kind_check check (kind in ('logo', 'approval', 'picture', 'file', 'design', 'question')),
  what text not null,
  place text not null default '',
  owner text not null default '',
  state text not null constraint right_row_state_check check (state in ('own', 'granted', 'refused', 'unknown')),
  evidence text not null default '',
  facts jsonb not null default '{}',
  position integer not null default 0,
  version integer not null default 1,
  constraint right_row_product_fkey foreign key (workshop_id, product_id) references product (workshop_id, id) on delete cascade
);
create index right_row_of_product on right_row (workshop_id, product_id);
select own_table('right_row', 'id');
