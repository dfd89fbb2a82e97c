-- What a part draws from its supply, mA: as it stands there, and at the most.
alter table part add column rest_ma double precision;
alter table part add column most_ma double precision;

-- How a shop numbers what it builds, and which of its releases a run is.
alter table workshop add column serial_rule text not null default '';
alter table run add column batch integer constraint run_batch_check check (batch between 1 and 32767);
-- what its numbers are made of, beside its document: a number that is typed is looked for in all of them
alter table release add column product text not null default '';
alter table release add column serial_rule text not null default '';
create unique index run_batch_of_workshop on run (workshop_id, batch);

-- One try of one item of the test plan on one of the boards that are started. Rows are added, never changed: the first try counts.
create table test_try (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null,
  unit integer not null constraint test_try_unit_check check (unit between 1 and 100000),
  -- the item of the released plan, and what it was called
  item text not null,
  name text not null,
  on_day date not null,
  -- what was read, as decimal text in the unit of the limits with the digits it was read with; null where it was answered by
  -- yes or no, or nothing could be read
  value text constraint test_try_value_check check (value ~ '^-?[0-9]{1,15}([.][0-9]{1,20})?$'),
  -- it only says that it is more, or less
  bound text constraint test_try_bound_check check (bound in ('>', '<')),
  -- unit and limits of that day
  limits jsonb not null default '{}',
  verdict text not null constraint test_try_verdict_check check (verdict in ('pass', 'fail', 'error')),
  words text not null default '',
  person text not null,
  at timestamptz not null default clock_timestamp(),
  version integer not null default 1,
  constraint test_try_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade
);
create index test_try_of_run on test_try (workshop_id, run_id);
select own_table('test_try', 'id');

-- Something that was found wrong on a board, and whether it was mended.
create table defect (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null,
  unit integer not null constraint defect_unit_check check (unit between 1 and 100000),
  -- a part or a pin as it is called at the bench; empty for the board itself
  place text not null default '',
  code text not null,
  -- number of the step at which it was found
  step integer constraint defect_step_check check (step between 1 and 1000),
  on_day date not null,
  minutes double precision constraint defect_minutes_check check (minutes >= 0),
  is_mended boolean not null default false,
  note text not null default '',
  person text not null,
  at timestamptz not null default clock_timestamp(),
  version integer not null default 1,
  constraint defect_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade
);
create index defect_of_run on defect (workshop_id, run_id);
select own_table('defect', 'id');
