-- Who may come in, who is in, who was there.

create table invitation (
  id uuid primary key default gen_random_uuid(),
  token_hash bytea not null constraint invitation_token_key unique,
  workshop_id uuid not null references workshop on delete cascade,
  role text not null constraint invitation_role_check check (role in ('owner', 'bench')),
  note text not null default '',
  created_by uuid references account on delete set null,
  created_at timestamptz not null default now(),
  expires_at timestamptz not null,
  used_at timestamptz,
  used_by text
);

alter table session add column id uuid not null default gen_random_uuid() constraint session_id_key unique;
alter table session add column agent text not null default '';
alter table session add column seen_at timestamptz not null default now();

alter table member add column created_at timestamptz not null default now();

-- Sign-ins, refused ones too, invitations, releases: read by the owner, changed by nobody.
create table audit (
  id bigint generated always as identity primary key,
  at timestamptz not null default now(),
  workshop_id uuid references workshop on delete cascade,
  person text not null,
  what text not null,
  address text not null default ''
);
create index audit_workshop on audit (workshop_id, id);
alter table audit enable row level security;
alter table audit force row level security;
create policy own_workshop on audit for select using (workshop_id = current_workshop());
create policy anyone_adds on audit for insert with check (true);
grant select, insert on audit to kobbin_app;

-- Where each open page is; gone with the page.
create unlogged table presence (
  page uuid not null,
  workshop_id uuid not null references workshop on delete cascade,
  account_id uuid not null references account on delete cascade,
  person text not null,
  place text not null default '',
  seen_at timestamptz not null default now(),
  primary key (workshop_id, page)
);
alter table presence enable row level security;
alter table presence force row level security;
create policy own_workshop on presence using (workshop_id = current_workshop()) with check (workshop_id = current_workshop());
grant select, insert, update, delete on presence to kobbin_app;
grant select, insert, update, delete on invitation to kobbin_app;
grant update, delete on member to kobbin_app;
grant delete on workshop to kobbin_app;

grant usage on sequence change_id_seq to kobbin_app;

-- How the shop writes numbers and dates.
alter table workshop add column decimal_mark text not null default '.' constraint workshop_mark_check check (decimal_mark in ('.', ','));
alter table workshop add column date_order text not null default 'dmy' constraint workshop_date_check check (date_order in ('dmy', 'mdy', 'ymd'));
alter table workshop add column shows_mil boolean not null default false;

-- The door needs these before it knows the shop; invitations are found by the hash of their secret only.
alter table invitation enable row level security;
create policy own_workshop on invitation using (workshop_id = current_workshop()) with check (workshop_id = current_workshop());
create function invited(hash bytea) returns table (id uuid, workshop_id uuid, shop text, role text, is_open boolean)
language sql stable security definer set search_path = public
as $$
  select i.id, i.workshop_id, w.name, i.role, i.used_at is null and i.expires_at > now()
  from invitation as i join workshop as w on w.id = i.workshop_id where i.token_hash = hash
$$;
