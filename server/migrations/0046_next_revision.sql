-- Whether a product wants a next revision: that none is needed is decided too, and until when that holds is seen by what came since.
create table revision_plan (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  product_id uuid not null,
  is_needed boolean not null,
  because text not null default '',
  -- when it begins: a day, a number of boards, what is to be used up first
  begins text not null default '',
  on_day date not null,
  person text not null,
  version integer not null default 1,
  constraint revision_plan_once unique (workshop_id, product_id),
  constraint revision_plan_product_fkey foreign key (workshop_id, product_id) references product (workshop_id, id) on delete cascade
);
select own_table('revision_plan', 'id');
