-- Walls between shops and around the server's role, kept by the database itself: whatever the server is talked into,
-- a row names rows of its own shop only, the record names known tables only, and the role can make nothing of its own.

do $$
begin
  execute format('revoke temporary on database %I from public', current_database());
  execute format('revoke temporary on database %I from kobbin_app', current_database());
  revoke create on schema public from public;
end $$;

-- A function with its owner's rights looks for names in our own schema first, and last in what a session could make.
alter function invited(bytea) set search_path = public, pg_temp;
revoke execute on function invited(bytea), find_parts(text[], text, integer) from public;
grant execute on function invited(bytea), find_parts(text[], text, integer) to kobbin_app;

-- The record names tables that are recorded, and nothing else; what is taken back is looked up by that name.
delete from change_row where tbl not in (
  'workshop', 'supplier', 'part', 'alternate', 'lot', 'house', 'correction', 'product', 'revision', 'board',
  'board_file', 'bom_line', 'line_sum', 'variant', 'offer', 'offer_break', 'run', 'reservation', 'fork', 'quotation',
  'release', 'remark');
alter table change_row add constraint change_row_tbl_check check (tbl in (
  'workshop', 'supplier', 'part', 'alternate', 'lot', 'house', 'correction', 'product', 'revision', 'board',
  'board_file', 'bom_line', 'line_sum', 'variant', 'offer', 'offer_break', 'run', 'reservation', 'fork', 'quotation',
  'release', 'remark'));

-- Keys over shop and id: an id of another shop is no row at all.
do $$
declare
  t text;
  k text[];
  c text;
begin
  foreach t in array array['product', 'revision', 'board', 'bom_line', 'supplier', 'part', 'offer', 'house', 'run', 'lot', 'feed_ask', 'change']
  loop
    execute format('alter table %I add constraint %I unique (workshop_id, id)', t, t || '_of_shop_key');
  end loop;
  -- table, column, what it names, what becomes of it when that goes
  foreach k slice 1 in array array[
    ['revision', 'product_id', 'product', 'cascade'],
    ['board', 'revision_id', 'revision', 'cascade'],
    ['board_file', 'board_id', 'board', 'cascade'],
    ['bom_line', 'revision_id', 'revision', 'cascade'],
    ['bom_line', 'board_id', 'board', 'cascade'],
    ['bom_line', 'parent_id', 'bom_line', 'set null (parent_id)'],
    ['offer', 'line_id', 'bom_line', 'cascade'],
    ['offer', 'supplier_id', 'supplier', 'cascade'],
    ['offer', 'part_id', 'part', 'cascade'],
    ['offer_break', 'offer_id', 'offer', 'cascade'],
    ['house', 'copied_from', 'house', 'set null (copied_from)'],
    ['run', 'revision_id', 'revision', 'cascade'],
    ['fork', 'run_id', 'run', 'cascade'],
    ['fork', 'house_id', 'house', 'set null (house_id)'],
    ['quotation', 'run_id', 'run', 'cascade'],
    ['quotation', 'house_id', 'house', 'cascade'],
    ['release', 'run_id', 'run', 'cascade'],
    ['remark', 'run_id', 'run', 'cascade'],
    ['remark', 'line_id', 'bom_line', 'cascade'],
    ['alternate', 'part_id', 'part', 'cascade'],
    ['reservation', 'lot_id', 'lot', 'cascade'],
    ['reservation', 'run_id', 'run', 'cascade'],
    ['line_sum', 'revision_id', 'revision', 'cascade'],
    ['variant', 'revision_id', 'revision', 'cascade'],
    ['feed_ask', 'run_id', 'run', 'cascade'],
    ['feed_ask', 'supplier_id', 'supplier', 'cascade'],
    ['feed_due', 'ask_id', 'feed_ask', 'cascade'],
    ['figures_due', 'run_id', 'run', 'cascade'],
    ['change_row', 'change_id', 'change', 'cascade'],
    ['change', 'undoes', 'change', 'set null (undoes)'],
    ['change', 'undone_by', 'change', 'set null (undone_by)']]
  loop
    for c in
      select conname from pg_constraint as x
      join pg_attribute as a on a.attrelid = x.conrelid and a.attnum = x.conkey[1]
      where x.contype = 'f' and x.conrelid = k[1]::regclass and cardinality(x.conkey) = 1 and a.attname = k[2]
    loop
      execute format('alter table %I drop constraint %I', k[1], c);
    end loop;
    execute format(
      'alter table %I add constraint %I foreign key (workshop_id, %I) references %I (workshop_id, id) on delete %s%s',
      k[1], k[1] || '_' || k[2] || '_fkey', k[2], k[3], k[4],
      -- checked at the end: a removed tree comes back in any order
      case when k[2] = 'parent_id' then ' deferrable initially deferred' else '' end);
  end loop;
end $$;

-- A session is of a member: who is taken out of a shop has no session in it.
delete from session as s where not exists (
  select 1 from member as m where m.workshop_id = s.workshop_id and m.account_id = s.account_id);
alter table session add constraint session_member_fkey
  foreign key (workshop_id, account_id) references member (workshop_id, account_id) on delete cascade;

-- Tries at a door, counted by one statement a key: two at one moment are two. It takes the place of attempt, which
-- stays until nobody runs a Kobbin that writes to it.
create table tries (
  key text primary key,
  n integer not null,
  since timestamptz not null
);
create index tries_since on tries (since);
grant select, insert, update, delete on tries to kobbin_app;

-- A key of a request belongs to what was asked with it.
alter table change add column request_hash bytea;

-- A run whose figures cannot be computed is set aside with its reason; a change of it brings it up again.
alter table figures_due
  add column tries integer not null default 0,
  add column parked text;
drop index figures_due_since;
create index figures_due_since on figures_due (since) where parked is null;

-- Demo shops nobody belongs to, left by a filling that was cut off: the only shops the server may find without being in
-- one, and only to take them away.
create function demo_orphans() returns setof uuid
language sql stable security definer set search_path = public, pg_temp
as $$
  select w.id from workshop as w
  where w.is_demo and not exists (select 1 from member as m where m.workshop_id = w.id)
$$;
revoke execute on function demo_orphans() from public;
grant execute on function demo_orphans() to kobbin_app;
