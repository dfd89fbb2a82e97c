-- Houses that can be asked for a price, what they ask back, and what was answered.
alter table house add column feed_key text;
alter table quotation
  add column question text not null default '',
  add column answer text not null default '';

-- One question to one house for one run: waiting, being asked, answered, or given up after some tries.
create table house_ask (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null,
  house_id uuid not null,
  account_id uuid references account on delete set null,
  person text not null,
  page uuid,
  -- boards that are started, as the page had it: what is ordered follows from it at each house
  start integer not null constraint house_ask_start_check check (start > 0),
  state text not null constraint house_ask_state_check check (state in ('waiting', 'asking', 'answered', 'failed')),
  tries integer not null default 0,
  reason text not null default '',
  since timestamptz not null default clock_timestamp(),
  constraint house_ask_key unique (run_id, house_id),
  constraint house_ask_id_key unique (workshop_id, id),
  constraint house_ask_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade,
  constraint house_ask_house_fkey foreign key (workshop_id, house_id) references house (workshop_id, id) on delete cascade
);
create index house_ask_workshop on house_ask (workshop_id);
alter table house_ask enable row level security;
alter table house_ask force row level security;
create policy own_workshop on house_ask using (workshop_id = current_workshop()) with check (workshop_id = current_workshop());
grant select, insert, update, delete on house_ask to kobbin_app;

-- The durable list behind the queue. Ids only, so no policy.
create table house_due (
  ask_id uuid primary key,
  workshop_id uuid not null references workshop on delete cascade,
  next_at timestamptz not null default clock_timestamp(),
  constraint house_due_ask_fkey foreign key (workshop_id, ask_id) references house_ask (workshop_id, id) on delete cascade
);
create index house_due_next on house_due (next_at);
grant select, insert, update, delete on house_due to kobbin_app;
