-- In a transaction of a shop the lists of what is due show that shop's only; what works on all of them names no shop.
do $$
declare
  t text;
begin
  foreach t in array array['figures_due', 'feed_due', 'house_due', 'order_due']
  loop
    execute format('alter table %I enable row level security', t);
    execute format('alter table %I force row level security', t);
    execute format('create policy own_or_worker on %I using (current_workshop() is null or workshop_id = current_workshop())', t);
  end loop;
end $$;

-- As before, but for one thing: rows that are not recorded (a backup read back) are not made into text first.
create or replace function record_row() returns trigger language plpgsql as $$
declare
  change text := current_setting('app.change', true);
  o jsonb;
  n jsonb;
  r jsonb;
  k jsonb;
  a jsonb;
  b jsonb;
begin
  if change = 'off' then return null; end if;
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

-- Tries are counted in another table since 0011.
drop table attempt;
