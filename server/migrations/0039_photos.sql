-- a photo names the fault it shows, of its own shop
alter table defect add constraint defect_key unique (workshop_id, id);

-- Photos of a run: of what came of an order, of a board that is built, of a fault on it. Their bytes lie among the shop's files,
-- by hash, upright, bounded, and without what a camera writes beside the picture.
create table photo (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null,
  -- the order and its item, where it shows what came
  order_key text,
  item text,
  -- which of the boards that are started, where it shows one, and the fault it shows
  unit integer constraint photo_unit_check check (unit between 1 and 100000),
  defect_id uuid,
  sha256 text not null,
  width_px integer not null constraint photo_width_check check (width_px between 1 and 2000),
  height_px integer not null constraint photo_height_check check (height_px between 1 and 2000),
  on_day date not null,
  note text not null default '',
  person text not null,
  at timestamptz not null default clock_timestamp(),
  version integer not null default 1,
  constraint photo_of_one_check check ((order_key is null) <> (unit is null) and (order_key is null) = (item is null)
    and (defect_id is null or unit is not null)),
  constraint photo_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade,
  constraint photo_defect_fkey foreign key (workshop_id, defect_id) references defect (workshop_id, id)
    on delete set null (defect_id),
  constraint photo_file_fkey foreign key (workshop_id, sha256) references blob (workshop_id, sha256)
);
create index photo_of_run on photo (workshop_id, run_id);
create index photo_of_defect on photo (workshop_id, defect_id) where defect_id is not null;
create index photo_file on photo (workshop_id, sha256);
select own_table('photo', 'id');
