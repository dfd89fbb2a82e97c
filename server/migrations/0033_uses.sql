-- Which parts and houses a released run uses, so that what was built of something is found at once. Worked out of what was
-- released, so it is no record.
create table release_use (
  workshop_id uuid not null references workshop on delete cascade,
  release_id uuid not null,
  run_id uuid not null,
  kind text not null constraint release_use_kind_check check (kind in ('part', 'house')),
  -- a number as numbers are compared, or a house's id
  key text not null,
  -- where it is on the board, or what is ordered there
  places text[] not null,
  primary key (workshop_id, kind, key, release_id)
);
alter table release add constraint release_of_shop_key unique (workshop_id, id);
alter table release_use add constraint release_use_release_fkey
  foreign key (workshop_id, release_id) references release (workshop_id, id) on delete cascade;
create index release_use_of_release on release_use (workshop_id, release_id);
alter table release_use enable row level security;
alter table release_use force row level security;
create policy own_workshop on release_use
  using (workshop_id = current_workshop()) with check (workshop_id = current_workshop());
grant select, insert, update, delete on release_use to kobbin_app;

create function uses_of_release(r release) returns table (kind text, key text, places text[])
language sql immutable as $$
  with variant as (
    select v->'overrides' as o from jsonb_array_elements(coalesce(r.document->'variants', '[]')) as v
    where v->>'id' = r.document#>>'{choices,variant}' limit 1
  ), line as (
    select l->'refs' as refs,
      upper(regexp_replace(coalesce((select o from variant)->(l->>'id')->>'mpn', l->>'mpn', ''), '\s', '', 'g')) as key,
      coalesce(((select o from variant)->(l->>'id')->>'dnp')::boolean, (l->>'dnp')::boolean, false) as dnp
    from jsonb_array_elements(coalesce(r.document->'lines', '[]')) as l
  )
  select 'part', line.key, array_agg(ref.value order by ref.value) filter (where ref.value is not null)
  from line left join lateral jsonb_array_elements_text(line.refs) as ref on true
  where line.key <> '' and not line.dnp group by line.key
  union all
  select 'house', h.key, array_agg(h.what order by h.what) from (
    select r.document#>>'{house,id}' as key, 'boards' as what
    union all select r.document#>>'{assembly,house}', 'assembly' where r.document#>>'{assembly,method}' = 'house'
    union all select r.document#>>'{assembly,foilHouse}', 'foil'
  ) as h where h.key is not null group by h.key
$$;

create function note_uses() returns trigger language plpgsql as $$
begin
  delete from release_use where workshop_id = new.workshop_id and release_id = new.id;
  insert into release_use (workshop_id, release_id, run_id, kind, key, places)
    select new.workshop_id, new.id, new.run_id, u.kind, u.key, coalesce(u.places, '{}') from uses_of_release(new) as u;
  return null;
end $$;
create trigger note_uses after insert or update of document on release for each row execute function note_uses();

insert into release_use (workshop_id, release_id, run_id, kind, key, places)
select r.workshop_id, r.id, r.run_id, u.kind, u.key, coalesce(u.places, '{}')
from release as r cross join lateral uses_of_release(r) as u
on conflict do nothing;
