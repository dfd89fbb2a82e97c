-- Bare boards that were measured and looked at when they came.

create table board_measured (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null,
  -- which of the run's boards, as its order names it
  item text not null,
  -- the delivery it is from, while that is written down
  receipt_id uuid,
  -- which of them: "3", "the one with the scratch"
  label text not null,
  on_day date not null,
  person text not null,
  -- size → what the calliper showed, mm; what was looked at → whether it is as ordered
  readings jsonb not null default '{}',
  looks jsonb not null default '{}',
  note text not null default '',
  at timestamptz not null default clock_timestamp(),
  version integer not null default 1,
  constraint board_measured_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade,
  constraint board_measured_receipt_fkey foreign key (workshop_id, receipt_id) references receipt (workshop_id, id) on delete set null (receipt_id)
);
create index board_measured_of_run on board_measured (workshop_id, run_id);
select own_table('board_measured', 'id');

-- A claim: what came otherwise than ordered, what was written to whom, what became of it.
create table claim (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null,
  -- the order it is about, and its item where it is about one
  order_key text not null,
  item text not null default '',
  pieces integer not null constraint claim_pieces_check check (pieces between 0 and 100000000),
  because text not null,
  letter text not null default '',
  state text not null default 'open' constraint claim_state_check check (state in ('open', 'sent', 'settled', 'refused')),
  answer text not null default '',
  -- what came of it, in the order's currency
  credit numeric,
  opened_on date not null,
  person text not null,
  at timestamptz not null default clock_timestamp(),
  version integer not null default 1,
  constraint claim_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade
);
create index claim_of_run on claim (workshop_id, run_id);
select own_table('claim', 'id');
