-- The search over the library: the shop stands in the index, one plan serves any pattern, and a word no part holds is
-- set right from the words that are there.

create extension if not exists btree_gin;
create index part_words_in_shop on part using gin (workshop_id, words gin_trgm_ops) with (fastupdate = off);
drop index part_words;
-- offers for a line's own number are counted without looking at each
create index offer_own on offer (line_id, workshop_id) where part_id is null;

-- Every word of any part of a shop, once. A word whose last part went stays; it finds nothing then.
create table part_word (
  workshop_id uuid not null references workshop on delete cascade,
  word text not null,
  primary key (workshop_id, word)
);
create index part_word_near on part_word using gin (workshop_id, word gin_trgm_ops) with (fastupdate = off);
alter table part_word enable row level security;
create policy own_workshop on part_word using (workshop_id = current_workshop()) with check (workshop_id = current_workshop());
grant select, insert on part_word to kobbin_app;

create function learn_part_words() returns trigger language plpgsql as $$
begin
  insert into part_word (workshop_id, word)
  select distinct new.workshop_id, w from regexp_split_to_table(new.words, '\s+') as w where length(w) between 3 and 60
  on conflict do nothing;
  return null;
end $$;
create trigger learn_part_words after insert or update of words on part for each row execute function learn_part_words();
insert into part_word (workshop_id, word)
select distinct p.workshop_id, w from part as p, regexp_split_to_table(p.words, '\s+') as w where length(w) between 3 and 60;

-- wanted: patterns for like, the longest first; phrase: what was typed, for when no part holds every word. One plan for
-- any pattern: only the index over the words may serve it.
create or replace function find_parts(wanted text[], phrase text, most integer)
returns table (id uuid, is_near boolean)
language plpgsql stable security definer rows 60
set search_path = public, pg_temp
set pg_trgm.similarity_threshold = 0.3
set pg_trgm.word_similarity_threshold = 0.5
set enable_seqscan = off
set enable_indexscan = off
set plan_cache_mode = force_generic_plan
as $$
declare
  shop uuid := current_workshop();
  pattern text;
  typed text;
  nearest text;
  mended text[] := '{}';
  held text[] := '{}';
begin
  return query
    with hit as materialized (
      select p.id, p.mpn from part as p
      where p.workshop_id = shop
        and p.words like wanted[1]
        and p.words like coalesce(wanted[2], wanted[1])
        and p.words like coalesce(wanted[3], wanted[1])
        and p.words like all (wanted)
    )
    select h.id, false from hit as h order by h.mpn limit most;
  if found then return; end if;
  foreach pattern in array wanted loop
    perform 1 from part as p where p.workshop_id = shop and p.words like pattern limit 1;
    if found then
      held := held || pattern;
    else
      typed := regexp_replace(substr(pattern, 2, length(pattern) - 2), '\\(.)', '\1', 'g');
      select w.word into nearest from part_word as w
      where w.workshop_id = shop and w.word % typed
      order by similarity(w.word, typed) desc, w.word limit 1;
      exit when nearest is null;
      pattern := '%' || regexp_replace(nearest, '([\\%_])', '\\\1', 'g') || '%';
    end if;
    mended := mended || pattern;
  end loop;
  if cardinality(mended) = cardinality(wanted) then
    return query
      with hit as materialized (
        select p.id, p.mpn from part as p
        where p.workshop_id = shop
          and p.words like mended[1]
          and p.words like coalesce(mended[2], mended[1])
          and p.words like all (mended)
      )
      select h.id, true from hit as h order by h.mpn limit most;
    if found then return; end if;
  end if;
  -- no part holds the words as mended: those that hold all the ones typed right
  if cardinality(held) between 1 and cardinality(wanted) - 1 then
    return query
      with hit as materialized (
        select p.id, p.mpn from part as p
        where p.workshop_id = shop and p.words like held[1] and p.words like all (held)
      )
      select h.id, true from hit as h order by h.mpn limit most;
    if found then return; end if;
  end if;
  return query
    with hit as materialized (
      select p.id, p.mpn, word_similarity(phrase, p.words) as nearness from part as p
      where p.workshop_id = shop and phrase <% p.words
    )
    select h.id, true from hit as h order by h.nearness desc, h.mpn limit most;
end $$;
