-- Sums attached to lines, variants of a bill, and what a product is made of below its boards.

create table line_sum (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  revision_id uuid not null references revision on delete cascade,
  kind text not null constraint line_sum_kind_check check (kind ~ '^[a-z]{1,20}$'),
  name text not null default '',
  given jsonb not null default '{}',
  -- input → id of a line; a line that went leaves the sum open, not gone
  lines jsonb not null default '{}',
  wanted text not null default '',
  within_pct numeric(7, 3) not null default 10 constraint line_sum_within_check check (within_pct >= 0),
  version integer not null default 1
);
create index line_sum_revision on line_sum (revision_id);
create index line_sum_workshop on line_sum (workshop_id);

-- A named set of differences from the bill: line id → what is otherwise.
create table variant (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  revision_id uuid not null references revision on delete cascade,
  name text not null constraint variant_name_check check (length(name) between 1 and 80),
  overrides jsonb not null default '{}',
  version integer not null default 1,
  constraint variant_name_key unique (revision_id, name)
);
create index variant_workshop on variant (workshop_id);

alter table bom_line
  add column origin text not null default 'bought'
    constraint bom_line_origin_check check (origin in ('bought', 'made', 'printed', 'salvaged', 'supplied')),
  -- checked at the end: a removed tree comes back in any order
  add column parent_id uuid constraint bom_line_parent_fkey references bom_line on delete set null deferrable initially deferred,
  add column made_cost numeric(15, 6) not null default 0 constraint bom_line_made_cost_check check (made_cost >= 0);
create index bom_line_parent on bom_line (parent_id) where parent_id is not null;

-- Columns of a list a person confirmed, by the list's headings.
alter table correction drop constraint correction_kind_check;
alter table correction add constraint correction_kind_check check (kind in ('role', 'column', 'list'));

do $$
declare t text;
begin
  foreach t in array array['line_sum', 'variant']
  loop
    execute format('alter table %I enable row level security', t);
    execute format('alter table %I force row level security', t);
    execute format('create policy own_workshop on %I using (workshop_id = current_workshop()) with check (workshop_id = current_workshop())', t);
    execute format('grant select, insert, update, delete on %I to kobbin_app', t);
    execute format('create trigger bump_version before update on %I for each row execute function bump_version()', t);
    execute format('create trigger record_row after insert or update or delete on %I for each row execute function record_row(''id'')', t);
  end loop;
end $$;
