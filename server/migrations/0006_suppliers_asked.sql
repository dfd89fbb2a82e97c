-- What an order costs at a supplier beside its goods and shipping, and how far the source can be trusted.
alter table supplier
  add column small_order_below numeric(15, 6),
  add column small_order_fee numeric(15, 6),
  add column minimum_order numeric(15, 6),
  add column handling numeric(15, 6),
  add column duty_rate numeric(6, 4) not null default 0 constraint supplier_duty_check check (duty_rate between 0 and 1),
  add column source_class text not null default 'authorised'
    constraint supplier_class_check check (source_class in ('authorised', 'broker', 'private', 'unknown')),
  add column includes_tax boolean not null default false,
  add constraint supplier_small_order_check check ((small_order_below is null) = (small_order_fee is null));

alter table offer add column lead_days integer constraint offer_lead_check check (lead_days between 0 and 1000);
alter table offer add column restriction text not null default '';

-- One question to one supplier for one run: waiting, being asked, answered, or given up after some tries.
create table feed_ask (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null references run on delete cascade,
  supplier_id uuid not null references supplier on delete cascade,
  account_id uuid references account on delete set null,
  person text not null,
  -- the open page it came from: what it asked for is no surprise to it
  page uuid,
  state text not null constraint feed_ask_state_check check (state in ('waiting', 'asking', 'answered', 'failed')),
  tries integer not null default 0,
  reason text not null default '',
  offers integer not null default 0,
  not_listed uuid[] not null default '{}',
  -- what it says otherwise than the time before, and when that was
  changes jsonb not null default '[]',
  before timestamptz,
  answered_at timestamptz,
  since timestamptz not null default clock_timestamp(),
  constraint feed_ask_key unique (run_id, supplier_id)
);
create index feed_ask_workshop on feed_ask (workshop_id);
alter table feed_ask enable row level security;
alter table feed_ask force row level security;
create policy own_workshop on feed_ask using (workshop_id = current_workshop()) with check (workshop_id = current_workshop());
grant select, insert, update, delete on feed_ask to kobbin_app;

-- The durable list behind the queue: questions that wait, and from when on. Ids only, so no policy.
create table feed_due (
  ask_id uuid primary key references feed_ask on delete cascade,
  workshop_id uuid not null references workshop on delete cascade,
  next_at timestamptz not null default clock_timestamp()
);
create index feed_due_next on feed_due (next_at);
grant select, insert, update, delete on feed_due to kobbin_app;
