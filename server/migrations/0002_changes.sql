-- Every change of a shop's data is recorded, row by row, by the database itself: nothing can be forgotten.
-- The server names the change for its transaction (app.change); a write without one is refused, except where
-- the setting says 'off' (filling the demo, reading a backup back).

create table change (
  id bigint generated always as identity primary key,
  workshop_id uuid not null references workshop on delete cascade,
  at timestamptz not null default clock_timestamp(),
  account_id uuid references account on delete set null,
  person text not null,
  sentence text not null default '',
  product_id uuid,
  revision_id uuid,
  run_id uuid,
  undoes bigint references change on delete set null,
  undone_by bigint references change on delete set null,
  is_final boolean not null default false,
  request_key uuid,
  -- the open page it came from: what a page changed itself is no surprise to it
  page uuid,
  result jsonb,
  constraint change_request_key unique (workshop_id, request_key)
);
create index change_product on change (workshop_id, product_id, id);
create index change_run on change (workshop_id, run_id, id);
create index change_revision on change (workshop_id, revision_id, id);

create table change_row (
  id bigint generated always as identity primary key,
  change_id bigint not null references change on delete cascade,
  workshop_id uuid not null references workshop on delete cascade,
  tbl text not null,
  key jsonb not null,
  op text not null constraint change_row_op_check check (op in ('insert', 'update', 'delete')),
  name text,
  version integer,
  -- insert: neither; update: the columns that changed; delete: the whole row
  was jsonb,
  became jsonb
);
create index change_row_change on change_row (change_id);
create index change_row_key on change_row (workshop_id, tbl, key, version);

alter table workshop add column version integer not null default 1;
alter table product add column version integer not null default 1;
alter table revision add column version integer not null default 1;
alter table board add column version integer not null default 1;
alter table bom_line add column version integer not null default 1;
alter table supplier add column version integer not null default 1;
alter table offer add column version integer not null default 1;
alter table house add column version integer not null default 1;
alter table run add column version integer not null default 1;
alter table quotation add column version integer not null default 1;

-- Runs whose figures are older than their choices: the durable list behind the queue. Ids only, so no policy.
create table figures_due (
  run_id uuid primary key references run on delete cascade,
  workshop_id uuid not null references workshop on delete cascade,
  since timestamptz not null default clock_timestamp()
);
grant select, insert, update, delete on figures_due to kobbin_app;

-- A person's remark in the margin.
create table remark (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null references run on delete cascade,
  stage text not null,
  line_id uuid references bom_line on delete cascade,
  text text not null constraint remark_text_check check (length(text) between 1 and 2000),
  person text not null,
  at timestamptz not null default now(),
  version integer not null default 1
);
create index remark_run on remark (run_id, at);

-- The columns that are computed from others: their change is no change.
create function decided(t text, r jsonb) returns jsonb
language sql immutable
as $$
  select r - '{version,updated_at,measured_at,summary,workshop_id,created_at}'::text[]
$$;

create function bump_version() returns trigger language plpgsql as $$
begin
  if decided(tg_table_name, to_jsonb(new)) is distinct from decided(tg_table_name, to_jsonb(old)) then
    new.version := old.version + 1;
  end if;
  return new;
end $$;

-- Arguments: the columns of the primary key besides the workshop.
create function record_row() returns trigger language plpgsql as $$
declare
  change text := current_setting('app.change', true);
  o jsonb;
  n jsonb;
  r jsonb;
  k jsonb;
  a jsonb;
  b jsonb;
begin
  if tg_op <> 'INSERT' then o := to_jsonb(old); end if;
  if tg_op <> 'DELETE' then n := to_jsonb(new); end if;
  if tg_op = 'UPDATE' then
    select jsonb_object_agg(e.key, o -> e.key), jsonb_object_agg(e.key, e.value) into a, b
    from jsonb_each(decided(tg_table_name, n)) as e
    where e.value is distinct from o -> e.key;
    if b is null then return null; end if;
  elsif tg_op = 'DELETE' then
    a := o - 'workshop_id';
  end if;
  if change = 'off' then return null; end if;
  if coalesce(change, '') = '' then
    raise exception 'a write to % outside of a named change', tg_table_name;
  end if;
  r := coalesce(n, o);
  select jsonb_object_agg(c, r -> c) into k from unnest(tg_argv) as c;
  insert into change_row (change_id, workshop_id, tbl, key, op, name, version, was, became)
  values (
    change::bigint, current_workshop(), tg_table_name, k, lower(tg_op),
    coalesce(r ->> 'name', r ->> 'label', r -> 'refs' ->> 0, nullif(r ->> 'value_text', ''), nullif(r ->> 'mpn', ''), r -> 'profile' ->> 'name'),
    (r ->> 'version')::integer, a, b
  );
  return null;
end $$;

do $$
declare
  t text[];
begin
  foreach t slice 1 in array array[
    ['product', 'id', ''], ['revision', 'id', ''], ['board', 'id', ''], ['board_file', 'board_id', 'position'],
    ['bom_line', 'id', ''], ['correction', 'kind', 'pattern'], ['supplier', 'id', ''], ['offer', 'id', ''],
    ['offer_break', 'offer_id', 'qty'], ['house', 'id', ''], ['run', 'id', ''], ['fork', 'id', ''],
    ['quotation', 'id', ''], ['release', 'id', ''], ['remark', 'id', ''], ['workshop', 'id', '']]
  loop
    if t[1] not in ('board_file', 'correction', 'offer_break', 'release') then
      execute format('create trigger bump_version before update on %I for each row execute function bump_version()', t[1]);
    end if;
    if t[1] = 'workshop' then
      execute 'create trigger record_row after update on workshop for each row execute function record_row(''id'')';
    elsif t[3] = '' then
      execute format('create trigger record_row after insert or update or delete on %I for each row execute function record_row(%L)', t[1], t[2]);
    else
      execute format('create trigger record_row after insert or update or delete on %I for each row execute function record_row(%L, %L)', t[1], t[2], t[3]);
    end if;
  end loop;
  foreach t slice 1 in array array[['change'], ['change_row'], ['remark']]
  loop
    execute format('alter table %I enable row level security', t[1]);
    execute format('alter table %I force row level security', t[1]);
    execute format('create policy own_workshop on %I using (workshop_id = current_workshop()) with check (workshop_id = current_workshop())', t[1]);
    execute format('grant select, insert, update, delete on %I to kobbin_app', t[1]);
  end loop;
end $$;
