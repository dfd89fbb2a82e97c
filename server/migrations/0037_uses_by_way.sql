-- Parts go to a house, or are pasted here, also where only a side or a line is said to go that way: a house that places
-- or cuts the foil then is one that something was ordered at.
create or replace function uses_of_release(r release) returns table (kind text, key text, places text[])
language sql immutable as $$
  with variant as (
    select v->'overrides' as o from jsonb_array_elements(coalesce(r.document->'variants', '[]')) as v
    where v->>'id' = r.document#>>'{choices,variant}' limit 1
  ), line as (
    select l->'refs' as refs,
      number_key(coalesce((select o from variant)->(l->>'id')->>'mpn', l->>'mpn', '')) as key,
      coalesce(((select o from variant)->(l->>'id')->>'dnp')::boolean, (l->>'dnp')::boolean, false) as dnp
    from jsonb_array_elements(coalesce(r.document->'lines', '[]')) as l
  ), way as (
    select r.document#>>'{assembly,method}' as way
    union select e.value from jsonb_path_query(r.document, 'strict $.assembly.sides ? (@.type() == "object")', '{}', true) as m,
      jsonb_each_text(m) as e
    union select e.value from jsonb_path_query(r.document, 'strict $.assembly.ways ? (@.type() == "object")', '{}', true) as m,
      jsonb_each_text(m) as e
  )
  select 'part', line.key, array_agg(ref.value order by ref.value) filter (where ref.value is not null)
  from line left join lateral jsonb_array_elements_text(line.refs) as ref on true
  where line.key <> '' and not line.dnp group by line.key
  union all
  select 'house', h.key, array_agg(h.what order by h.what) from (
    select r.document#>>'{house,id}' as key, 'boards' as what
    union all select r.document#>>'{assembly,house}', 'assembly' where exists (select 1 from way where way.way = 'house')
    union all select r.document#>>'{assembly,foilHouse}', 'foil' where exists (select 1 from way where way.way = 'stencil')
  ) as h where h.key is not null and h.key <> '' group by h.key
$$;

-- the owner fills what is there, of every shop: the policies would hide them all from it, as they did when these two lists
-- were first filled
alter table release no force row level security;
alter table release_use no force row level security;
alter table run no force row level security;
alter table fork no force row level security;
alter table figures_due no force row level security;

delete from release_use;
insert into release_use (workshop_id, release_id, run_id, kind, key, places)
select r.workshop_id, r.id, r.run_id, u.kind, u.key, coalesce(u.places, '{}')
from release as r cross join lateral uses_of_release(r) as u;

-- how the lessons stand in a run is kept with its figures, and so is what a released one orders
insert into figures_due (run_id, workshop_id)
select r.id, r.workshop_id from run as r
where r.state = 'open' or exists (select from fork as f where f.run_id = r.id and not coalesce(f.summary ? 'orders', false))
on conflict (run_id) do update set since = clock_timestamp(), tries = 0, parked = null;

alter table release force row level security;
alter table release_use force row level security;
alter table run force row level security;
alter table fork force row level security;
alter table figures_due force row level security;
