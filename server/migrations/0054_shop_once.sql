-- Which shop is asked for is worked out once a question, not once a row: a policy that calls a function of the session asks it of
-- every row that is read, which took most of the time of whatever reads many (20,000 lots counted: 31 ms, now 4).
do $$
declare
  t text;
begin
  -- the shop's own row is one by its id; what is only added to is asked for nowhere
  for t in
    select c.relname from pg_policy as p join pg_class as c on c.oid = p.polrelid
    where p.polname = 'own_workshop' and p.polcmd = '*' and c.relname <> 'workshop' and c.relnamespace = 'public'::regnamespace
  loop
    execute format(
      'alter policy own_workshop on %I using (workshop_id = (select current_workshop())) with check (workshop_id = current_workshop())', t);
  end loop;
end $$;

-- As 0014 says it, with that.
create or replace function own_table(t text, variadic key text[]) returns void
language plpgsql as $$
begin
  execute format('alter table %I enable row level security', t);
  execute format('alter table %I force row level security', t);
  execute format('create policy own_workshop on %I using (workshop_id = (select current_workshop())) with check (workshop_id = current_workshop())', t);
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
