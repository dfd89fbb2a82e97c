-- Bare boards of a delivery tried with a meter before anything is soldered to them.

alter table receipt add constraint receipt_key unique (workshop_id, id);

create table bare_test (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null,
  -- which of the run's boards, as its order names it, and the delivery it is from while that is written down
  item text not null,
  receipt_id uuid,
  -- which of them: "3", "the one with the scratch"
  label text not null,
  on_day date not null,
  person text not null,
  tried integer not null constraint bare_test_tried_check check (tried between 1 and 100000),
  -- statements that did not hold
  faults jsonb not null default '[]',
  note text not null default '',
  at timestamptz not null default clock_timestamp(),
  version integer not null default 1,
  constraint bare_test_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade,
  constraint bare_test_receipt_fkey foreign key (workshop_id, receipt_id) references receipt (workshop_id, id) on delete set null (receipt_id)
);
create index bare_test_of_run on bare_test (workshop_id, run_id);
select own_table('bare_test', 'id');
