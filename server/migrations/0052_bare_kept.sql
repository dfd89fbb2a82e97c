-- Bare boards that came and are put by: for what, how many, where they lie.
create table bare_kept (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null,
  -- which of the run's boards, as its order names it
  item text not null,
  -- of what is set apart, else of what may be used
  is_apart boolean not null default false,
  purpose text not null constraint bare_kept_purpose_check
    check (purpose in ('reference', 'nest', 'tray', 'practice', 'spare', 'gift', 'sale')),
  pieces integer not null constraint bare_kept_pieces_check check (pieces between 1 and 100000),
  place text not null default '',
  on_day date not null,
  person text not null,
  at timestamptz not null default clock_timestamp(),
  version integer not null default 1,
  constraint bare_kept_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade
);
create index bare_kept_of_run on bare_kept (workshop_id, run_id);
select own_table('bare_kept', 'id');

-- The agreed spot a photo shows, of the board of a lot that is kept back; nothing says nothing of it.
alter table photo add column spot text constraint photo_spot_check check (spot is null or (length(spot) between 1 and 80 and order_key is not null));
