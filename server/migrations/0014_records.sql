-- What happens to a run after its release: orders placed, parcels that came, work at the bench, and its end.

-- Makes a table one of a shop: only the shop's rows are seen and written, the server may work on it, every change of a row is
-- recorded and counted. The one place that says what that takes; a test holds every table against its descriptor.
create function own_table(t text, variadic key text[]) returns void
language plpgsql as $$
begin
  execute format('alter table %I enable row level security', t);
  execute format('alter table %I force row level security', t);
  execute format('create policy own_workshop on %I using (workshop_id = current_workshop()) with check (workshop_id = current_workshop())', t);
  execute format('grant select, insert, update, delete on %I to kobbin_app', t);
  if exists (select from pg_attribute where attrelid = t::regclass and attname = 'version') then
    execute format('create trigger bump_version before update on %I for each row execute function bump_version()', t);
  end if;
  if cardinality(key) = 1 then
    execute format('create trigger record_row after insert or update or delete on %I for each row execute function record_row(%L)', t, key[1]);
  else
    execute format('create trigger record_row after insert or update or delete on %I for each row execute function record_row(%L, %L)', t, key[1], key[2]);
  end if;
  -- the record names the tables that are recorded, and nothing else
  alter table change_row drop constraint change_row_tbl_check;
  execute format(
    'alter table change_row add constraint change_row_tbl_check check (tbl = any (%L::text[]))',
    (select array_agg(c.relname::text order by c.relname)
     from pg_trigger as g join pg_class as c on c.oid = g.tgrelid where g.tgname = 'record_row'));
end $$;
revoke execute on function own_table(text, text[]) from public;

create table purchase (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null,
  -- which of the orders that the released document plans: "parts 1f0c…"
  order_key text not null,
  label text not null,
  currency text not null,
  ordered_on date,
  promised_on date,
  freight numeric(14, 6),
  -- item of the order → what its whole line cost, as invoiced
  paid jsonb not null default '{}',
  note text not null default '',
  version integer not null default 1,
  constraint purchase_key unique (workshop_id, run_id, order_key),
  constraint purchase_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade,
  constraint purchase_freight_check check (freight >= 0)
);
select own_table('purchase', 'id');

create table receipt (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null,
  order_key text not null,
  item text not null,
  label text not null,
  qty integer not null constraint receipt_qty_check check (qty between 1 and 10000000),
  arrived_on date not null,
  is_apart boolean not null default false,
  because text not null default '',
  -- the lot on the shelf that came of it, while there is one
  lot_id uuid,
  at timestamptz not null default clock_timestamp(),
  version integer not null default 1,
  constraint receipt_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade,
  constraint receipt_lot_fkey foreign key (workshop_id, lot_id) references lot (workshop_id, id) on delete set null (lot_id)
);
create index receipt_of_run on receipt (workshop_id, run_id);
select own_table('receipt', 'id');

create table work (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null,
  on_day date not null,
  person text not null,
  started integer not null default 0,
  good integer not null default 0,
  reworked integer not null default 0,
  scrapped integer not null default 0,
  minutes integer not null default 0,
  note text not null default '',
  at timestamptz not null default clock_timestamp(),
  version integer not null default 1,
  constraint work_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade,
  constraint work_counts_check check (least(started, good, reworked, scrapped, minutes) >= 0)
);
create index work_of_run on work (workshop_id, run_id);
select own_table('work', 'id');

create table closing (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null,
  closed_on date not null,
  person text not null,
  lesson text not null default '',
  -- what the next run begins with: way to solder, good, scrapped, minutes, the model's minutes
  outcome jsonb not null,
  version integer not null default 1,
  constraint closing_key unique (workshop_id, run_id),
  constraint closing_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade
);
select own_table('closing', 'id');
