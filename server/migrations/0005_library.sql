-- The shop's own knowledge of parts, what may stand in for what, and what lies on the shelf.

create table part (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  mpn text not null constraint part_mpn_check check (length(mpn) between 1 and 120),
  maker text not null default '',
  description text not null default '',
  kind text not null default 'other',
  package text not null default '',
  params jsonb not null default '{}',
  height_mm numeric(9, 3),
  mass_mg numeric(12, 3),
  direction text not null default '',
  mount text constraint part_mount_check check (mount in ('machine', 'hand', 'none')),
  moisture text not null default '',
  state text not null default 'unknown',
  sheet text not null default '',
  measured text not null default '',
  tried_on date,
  tried text not null default '',
  suspect jsonb,
  version integer not null default 1,
  created_at timestamptz not null default now()
);
-- a number as it is compared: capitals, no blanks
create function number_key(mpn text) returns text
language sql immutable
as $$ select regexp_replace(upper(mpn), '\s', '', 'g') $$;

-- Kept beside each number by the database: a comparison that row-level security lets an index answer.
create function keep_mpn_key() returns trigger language plpgsql as $$
begin
  new.mpn_key := number_key(new.mpn);
  return new;
end $$;
create or replace function decided(t text, r jsonb) returns jsonb
language sql immutable
as $$
  select r - '{version,updated_at,measured_at,summary,workshop_id,created_at,mpn_key,words}'::text[]
$$;

alter table part add column mpn_key text not null default '';
alter table bom_line add column mpn_key text not null default '';
-- the owner fills what is there: it is no change, and the policy would hide every shop from it
alter table bom_line no force row level security;
alter table bom_line disable trigger record_row;
update bom_line set mpn_key = number_key(mpn);
alter table bom_line enable trigger record_row;
alter table bom_line force row level security;
create trigger keep_mpn_key before insert or update on part for each row execute function keep_mpn_key();
create trigger keep_mpn_key before insert or update on bom_line for each row execute function keep_mpn_key();
create unique index part_number_key on part (workshop_id, mpn_key);
create index part_mpn on part (workshop_id, mpn);
create index bom_line_mpn_key on bom_line (workshop_id, mpn_key);


-- What may stand in for what, decided once and known in every product. The original is a key: a number, or what a
-- line without one asks for.
create table alternate (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  original text not null constraint alternate_original_check check (length(original) between 1 and 400),
  part_id uuid not null references part on delete cascade,
  state text not null constraint alternate_state_check check (state in ('proposed', 'approved', 'refused')),
  -- the runs it is approved for; null: all
  runs uuid[],
  because text not null default '',
  person text not null,
  at date not null default current_date,
  version integer not null default 1,
  constraint alternate_key unique (workshop_id, original, part_id)
);
create index alternate_part on alternate (part_id);

alter table offer add column part_id uuid references part on delete cascade;
create index offer_part on offer (part_id) where part_id is not null;

-- Pieces of one number as they came: their place, date, cost and condition.
create table lot (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  mpn text not null constraint lot_mpn_check check (length(mpn) between 1 and 120),
  qty integer not null constraint lot_qty_check check (qty >= 0),
  place text not null default '',
  received_on date not null default current_date,
  unit_cost numeric(15, 6) not null default 0,
  currency text not null,
  condition text not null default 'new'
    constraint lot_condition_check check (condition in ('new', 'opened', 'salvaged', 'quarantine')),
  donor text not null default '',
  note text not null default '',
  version integer not null default 1
);
alter table lot add column mpn_key text not null default '';
create trigger keep_mpn_key before insert or update on lot for each row execute function keep_mpn_key();
create index lot_number on lot (workshop_id, mpn_key);

create table reservation (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  lot_id uuid not null references lot on delete cascade,
  run_id uuid not null references run on delete cascade,
  qty integer not null constraint reservation_qty_check check (qty > 0),
  version integer not null default 1,
  constraint reservation_key unique (lot_id, run_id)
);
create index reservation_run on reservation (run_id);
create index reservation_workshop on reservation (workshop_id);

do $$
declare t text;
begin
  foreach t in array array['part', 'alternate', 'lot', 'reservation']
  loop
    execute format('alter table %I enable row level security', t);
    execute format('alter table %I force row level security', t);
    execute format('create policy own_workshop on %I using (workshop_id = current_workshop()) with check (workshop_id = current_workshop())', t);
    execute format('grant select, insert, update, delete on %I to kobbin_app', t);
    execute format('create trigger bump_version before update on %I for each row execute function bump_version()', t);
    execute format('create trigger record_row after insert or update or delete on %I for each row execute function record_row(''id'')', t);
  end loop;
end $$;

-- The search over the library: found by trigrams, which row-level security would keep from the index. It belongs to the
-- tables' owner, passes the policy and asks for the shop itself.
create extension if not exists pg_trgm;
alter table part no force row level security;
-- everything that is searched, beside each part
alter table part add column words text not null default '';
create function keep_part_words() returns trigger language plpgsql as $$
begin
  new.words := lower(concat_ws(' ', new.mpn, new.maker, new.description, new.package, new.kind));
  return new;
end $$;
create trigger keep_part_words before insert or update on part for each row execute function keep_part_words();
-- parts are written one by one and searched often: nothing waits in a list beside the index
create index part_words on part using gin (words gin_trgm_ops) with (fastupdate = off);

-- wanted: patterns for like, the longest first; phrase: what was typed, for when no part holds every word.
-- Three patterns go to the index by themselves; planned anew each time, since a plan for any pattern reads every part.
create function find_parts(wanted text[], phrase text, most integer)
returns table (id uuid, is_near boolean)
language plpgsql stable security definer
set search_path = public, pg_temp
set pg_trgm.word_similarity_threshold = 0.5
set plan_cache_mode = force_custom_plan
as $$
begin
  return query
    with hit as materialized (
      select p.id, p.mpn from part as p
      where p.workshop_id = current_workshop()
        and p.words like wanted[1]
        and p.words like coalesce(wanted[2], wanted[1])
        and p.words like coalesce(wanted[3], wanted[1])
        and p.words like all (wanted)
    )
    select h.id, false from hit as h order by h.mpn limit most;
  if not found then
    return query
      with hit as materialized (
        select p.id, p.mpn, word_similarity(phrase, p.words) as nearness from part as p
        where p.workshop_id = current_workshop() and phrase <% p.words
      )
      select h.id, true from hit as h order by h.nearness desc, h.mpn limit most;
  end if;
end $$;
