-- What the boards of a product must go into, onto or beside: one row each, judged in every run of it.

create table fit_row (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  product_id uuid not null,
  label text not null,
  -- name of the board it is about, where the product has several
  board text,
  spec jsonb not null,
  -- greatest play that is wanted, mm
  play_mm double precision,
  position integer not null default 0,
  version integer not null default 1,
  constraint fit_row_product_fkey foreign key (workshop_id, product_id) references product (workshop_id, id) on delete cascade
);
create index fit_row_of_product on fit_row (workshop_id, product_id);
select own_table('fit_row', 'id');
