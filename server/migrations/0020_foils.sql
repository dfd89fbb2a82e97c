-- Foils a shop has: cut from the paste layer of a board, used again while that layer agrees.

create table foil (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  product_id uuid not null,
  name text not null,
  -- name of the board whose paste layer it was cut from
  board text not null,
  foil_mm double precision not null,
  form text not null,
  -- by side: x, y, lesser and greater side of each opening, from the board's lower left corner, mm
  openings jsonb not null,
  -- parts whose openings were left out of it
  without jsonb not null,
  price numeric not null,
  currency text not null,
  made_on date not null,
  cleaned_on date,
  prints integer not null default 0,
  place text not null default '',
  state text not null default 'ready',
  note text not null default '',
  version integer not null default 1,
  constraint foil_product_fkey foreign key (workshop_id, product_id) references product (workshop_id, id) on delete cascade
);
create index foil_of_product on foil (workshop_id, product_id);
select own_table('foil', 'id');
