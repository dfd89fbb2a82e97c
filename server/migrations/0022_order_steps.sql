-- What becomes of an order at a house between "released" and "here", as it is written down or as the house says it.

create table order_step (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null,
  -- which of the orders that the released document plans, and whom it is at
  order_key text not null,
  label text not null,
  state text not null constraint order_step_state_check
    check (state in ('sent', 'asked', 'answered', 'accepted', 'paid', 'made', 'shipped', 'withdrawn')),
  on_day date not null,
  words text not null default '',
  person text not null default '',
  -- the house's own key of what it said; empty where somebody wrote it down
  source text not null default '',
  at timestamptz not null default clock_timestamp(),
  version integer not null default 1,
  constraint order_step_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade
);
create index order_step_of_run on order_step (workshop_id, run_id);
-- the house says each thing once
create unique index order_step_said on order_step (workshop_id, run_id, order_key, source) where source <> '';
select own_table('order_step', 'id');

-- The talk with a house about an order: waiting, being asked, answered, or given up after some tries.
create table order_ask (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null,
  order_key text not null,
  house_id uuid not null,
  account_id uuid references account on delete set null,
  person text not null,
  page uuid,
  state text not null constraint order_ask_state_check check (state in ('waiting', 'asking', 'answered', 'failed')),
  tries integer not null default 0,
  reason text not null default '',
  -- what the house calls it; empty until it has the files
  number text not null default '',
  since timestamptz not null default clock_timestamp(),
  constraint order_ask_key unique (workshop_id, run_id, order_key),
  constraint order_ask_id_key unique (workshop_id, id),
  constraint order_ask_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade,
  constraint order_ask_house_fkey foreign key (workshop_id, house_id) references house (workshop_id, id) on delete cascade
);
alter table order_ask enable row level security;
alter table order_ask force row level security;
create policy own_workshop on order_ask using (workshop_id = current_workshop()) with check (workshop_id = current_workshop());
grant select, insert, update, delete on order_ask to kobbin_app;

-- The durable list behind the queue. Ids only, so no policy.
create table order_due (
  ask_id uuid primary key,
  workshop_id uuid not null references workshop on delete cascade,
  next_at timestamptz not null default clock_timestamp(),
  constraint order_due_ask_fkey foreign key (workshop_id, ask_id) references order_ask (workshop_id, id) on delete cascade
);
create index order_due_next on order_due (next_at);
grant select, insert, update, delete on order_due to kobbin_app;
