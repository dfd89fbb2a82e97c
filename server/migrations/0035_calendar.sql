-- The secret address under which a calendar fetches what a shop waits for: only its hash is kept, and there is one at a time.
create table calendar_address (
  workshop_id uuid primary key references workshop on delete cascade,
  token_hash bytea not null unique,
  person text not null,
  made_at timestamptz not null default now()
);
-- not forced: the function below reads it as its owner, before any shop is known
alter table calendar_address enable row level security;
create policy own_workshop on calendar_address
  using (workshop_id = current_workshop()) with check (workshop_id = current_workshop());
grant select, insert, update, delete on calendar_address to kobbin_app;

-- Who asks has no session: the shop is found by the hash of its secret only.
create function calendar_of(hash bytea) returns uuid
language sql stable security definer set search_path = public, pg_temp
as $$ select workshop_id from calendar_address where token_hash = hash $$;
revoke execute on function calendar_of(bytea) from public;
grant execute on function calendar_of(bytea) to kobbin_app;
