-- Connectors of a product's boards and what is put onto them: pin by pin, judged in every run of it.

create table meet_row (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  product_id uuid not null,
  -- name of the board it is on, where the product has several
  board text,
  ref text not null,
  other text not null,
  -- pins of both sides, how they are numbered, what cannot happen and by what
  spec jsonb not null,
  position integer not null default 0,
  version integer not null default 1,
  constraint meet_row_product_fkey foreign key (workshop_id, product_id) references product (workshop_id, id) on delete cascade
);
create index meet_row_of_product on meet_row (workshop_id, product_id);
select own_table('meet_row', 'id');

-- Links of a product's boards: how each may be set, what that does, and how it goes out.
create table link_row (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  product_id uuid not null,
  board text,
  ref text not null,
  spec jsonb not null,
  position integer not null default 0,
  version integer not null default 1,
  constraint link_row_product_fkey foreign key (workshop_id, product_id) references product (workshop_id, id) on delete cascade
);
create index link_row_of_product on link_row (workshop_id, product_id);
select own_table('link_row', 'id');
