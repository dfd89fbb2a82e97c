-- The model from the first day: workshop, product, revision, boards and loose parts; run, fork, choices.
-- Every table of a workshop carries workshop_id and a policy on it; the server works as kobbin_app, which owns nothing.

do $$
begin
  if not exists (select 1 from pg_roles where rolname = 'kobbin_app') then
    create role kobbin_app nologin;
  end if;
  execute format('grant kobbin_app to %I', current_user);
end $$;

create function current_workshop() returns uuid
language sql stable
as $$ select nullif(current_setting('app.workshop', true), '')::uuid $$;

create table workshop (
  id uuid primary key default gen_random_uuid(),
  name text not null constraint workshop_name_check check (length(name) between 1 and 120),
  currency text not null constraint workshop_currency_check check (currency ~ '^[A-Z]{3}$'),
  hourly_rate numeric(15, 6) not null constraint workshop_rate_check check (hourly_rate >= 0),
  tax_rate numeric(5, 4) not null default 0 constraint workshop_tax_check check (tax_rate between 0 and 1),
  hours_per_day numeric(4, 2) not null default 5,
  rates jsonb not null default '{}',
  is_demo boolean not null default false,
  created_at timestamptz not null default now()
);

create table account (
  id uuid primary key default gen_random_uuid(),
  email text not null constraint account_email_key unique,
  password_hash text,
  created_at timestamptz not null default now()
);

create table member (
  workshop_id uuid not null references workshop on delete cascade,
  account_id uuid not null references account on delete cascade,
  role text not null default 'owner' constraint member_role_check check (role in ('owner', 'bench')),
  primary key (workshop_id, account_id)
);

create table session (
  token_hash bytea primary key,
  account_id uuid not null references account on delete cascade,
  workshop_id uuid not null references workshop on delete cascade,
  created_at timestamptz not null default now(),
  expires_at timestamptz not null
);

-- Tries counted for rate limits, so that several servers count together.
create table attempt (
  key text not null,
  at timestamptz not null default now()
);
create index attempt_key_at on attempt (key, at);

create table blob (
  workshop_id uuid not null references workshop on delete cascade,
  sha256 text not null constraint blob_hash_check check (sha256 ~ '^[0-9a-f]{64}$'),
  bytes bytea not null,
  created_at timestamptz not null default now(),
  primary key (workshop_id, sha256)
);

create table product (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  name text not null constraint product_name_check check (length(name) between 1 and 120),
  created_at timestamptz not null default now(),
  constraint product_name_key unique (workshop_id, name)
);

create table revision (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  product_id uuid not null references product on delete cascade,
  label text not null constraint revision_label_check check (length(label) between 1 and 40),
  created_at timestamptz not null default now(),
  constraint revision_label_key unique (product_id, label)
);

create table board (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  revision_id uuid not null references revision on delete cascade,
  name text not null,
  per_product integer not null default 1 constraint board_count_check check (per_product > 0),
  corrections jsonb not null default '{}',
  measure jsonb not null,
  placements jsonb not null default '[]',
  measured_at timestamptz not null default now()
);

-- What was dropped, byte for byte, in the order it was dropped.
create table board_file (
  board_id uuid not null references board on delete cascade,
  workshop_id uuid not null references workshop on delete cascade,
  position integer not null,
  path text not null,
  sha256 text not null,
  primary key (board_id, position),
  foreign key (workshop_id, sha256) references blob (workshop_id, sha256)
);

create table bom_line (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  revision_id uuid not null references revision on delete cascade,
  position integer not null,
  refs text[] not null default '{}',
  qty numeric(12, 4) not null constraint bom_line_qty_check check (qty >= 0),
  value_text text not null default '',
  package text not null default '',
  mpn text not null default '',
  maker text not null default '',
  description text not null default '',
  dnp boolean not null default false,
  mount text not null constraint bom_line_mount_check check (mount in ('machine', 'hand', 'none'))
);
create index bom_line_revision on bom_line (revision_id, position);

create table correction (
  workshop_id uuid not null references workshop on delete cascade,
  kind text not null constraint correction_kind_check check (kind in ('role', 'column')),
  pattern text not null,
  value jsonb not null,
  updated_at timestamptz not null default now(),
  primary key (workshop_id, kind, pattern)
);

create table supplier (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  feed_key text,
  name text not null,
  currency text not null,
  shipping numeric(15, 6) not null,
  free_from numeric(15, 6),
  days_min integer not null,
  days_max integer not null,
  constraint supplier_name_key unique (workshop_id, name),
  constraint supplier_days_check check (days_min between 0 and days_max)
);

create table offer (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  line_id uuid not null references bom_line on delete cascade,
  supplier_id uuid not null references supplier on delete cascade,
  stock bigint not null constraint offer_stock_check check (stock >= 0),
  moq bigint not null constraint offer_moq_check check (moq >= 1),
  multiple bigint not null constraint offer_multiple_check check (multiple >= 1),
  packaging text not null default '',
  currency text not null,
  source text not null constraint offer_source_check check (source in ('feed', 'typed', 'pasted')),
  captured_on date not null,
  valid_until date
);
create index offer_line on offer (line_id);

create table offer_break (
  offer_id uuid not null references offer on delete cascade,
  workshop_id uuid not null references workshop on delete cascade,
  qty bigint not null constraint offer_break_qty_check check (qty >= 1),
  price numeric(15, 6) not null constraint offer_break_price_check check (price >= 0),
  primary key (offer_id, qty)
);

create table house (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  position integer not null default 0,
  profile jsonb not null,
  copied_from uuid references house on delete set null
);

create table run (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  revision_id uuid not null references revision on delete cascade,
  name text not null constraint run_name_check check (length(name) between 1 and 120),
  state text not null default 'open' constraint run_state_check check (state in ('open', 'released')),
  asked_at timestamptz,
  created_at timestamptz not null default now()
);

-- A run's choices; further forks of the same run stand beside the first.
create table fork (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null references run on delete cascade,
  name text not null default 'first',
  version integer not null default 1,
  good_boards integer not null constraint fork_good_check check (good_boards between 1 and 100000),
  confidence numeric(4, 3) not null default 0.9,
  house_id uuid references house on delete set null,
  options jsonb not null default '{}',
  assembly jsonb not null default '{}',
  choices jsonb not null default '{}',
  summary jsonb,
  updated_at timestamptz not null default now(),
  constraint fork_name_key unique (run_id, name)
);

create table quotation (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null references run on delete cascade,
  house_id uuid not null references house on delete cascade,
  kind text not null constraint quotation_kind_check check (kind in ('fab', 'assembly')),
  total numeric(15, 6) not null,
  currency text not null,
  days integer not null,
  captured_on date not null,
  valid_until date,
  constraint quotation_key unique (run_id, house_id, kind)
);

create table release (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null references run on delete cascade,
  document jsonb not null,
  manifest jsonb not null,
  sha256 text not null,
  released_at timestamptz not null default now(),
  foreign key (workshop_id, sha256) references blob (workshop_id, sha256)
);

do $$
declare t text;
begin
  foreach t in array array['blob', 'product', 'revision', 'board', 'board_file', 'bom_line', 'correction', 'supplier', 'offer', 'offer_break', 'house', 'run', 'fork', 'quotation', 'release']
  loop
    execute format('alter table %I enable row level security', t);
    execute format('alter table %I force row level security', t);
    execute format('create policy own_workshop on %I using (workshop_id = current_workshop()) with check (workshop_id = current_workshop())', t);
    execute format('grant select, insert, update, delete on %I to kobbin_app', t);
  end loop;
end $$;

alter table workshop enable row level security;
create policy own_workshop on workshop using (id = current_workshop()) with check (id = current_workshop());
grant select, insert, update on workshop to kobbin_app;
grant select, insert, update on account to kobbin_app;
grant select, insert on member to kobbin_app;
grant select, insert, update, delete on session, attempt to kobbin_app;
