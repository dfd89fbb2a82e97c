-- Steps of boards as far as they came at the bench: pieces that are on, in doubt or left for later, and what was lost.
create table sitting (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null,
  -- which of the boards that are started; 0 for what is done once for all of them
  unit integer not null constraint sitting_unit_check check (unit between 0 and 100000),
  -- number of the step in the order of work that was released
  step integer not null constraint sitting_step_check check (step between 1 and 1000),
  -- piece → done, doubt or skipped; line → pieces lost
  marks jsonb not null default '{}',
  lost jsonb not null default '{}',
  -- device → own minutes at it
  minutes jsonb not null default '{}',
  is_done boolean not null default false,
  person text not null default '',
  at timestamptz not null default clock_timestamp(),
  version integer not null default 1,
  -- two who sit at one board write into one row
  constraint sitting_key unique (workshop_id, run_id, unit, step),
  constraint sitting_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade
);
select own_table('sitting', 'id');
