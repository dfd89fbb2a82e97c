-- One go at loading an image into one of the boards that are started. Which image it was is what was released; rows are added, never
-- changed, but for the day on which a board was wiped of what stays with the shop.
create table image_load (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null,
  unit integer not null constraint image_load_unit_check check (unit between 1 and 100000),
  -- the image of the released plan, and what it was
  image text not null,
  name text not null,
  version_text text not null default '',
  place text not null,
  sha256 text constraint image_load_hash_check check (sha256 ~ '^[0-9a-f]{64}$'),
  is_right boolean not null,
  -- what the tool said
  said text not null default '',
  -- name of a value → what this board was given; nothing of what is wiped again
  given jsonb not null default '{}',
  wiped_on date,
  -- of several that are loaded at once
  socket integer constraint image_load_socket_check check (socket between 1 and 100),
  on_day date not null,
  person text not null,
  at timestamptz not null default clock_timestamp(),
  version integer not null default 1,
  constraint image_load_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade
);
create index image_load_of_run on image_load (workshop_id, run_id);
select own_table('image_load', 'id');
