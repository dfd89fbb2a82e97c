-- What a shop has learned, and holds every board, bill and choice against: what it looks at is measured, or asked.
create table lesson (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  title text not null,
  -- what is looked at, by its kind
  looks_at jsonb not null,
  level text not null constraint lesson_level_check check (level in ('error', 'warning')),
  sure text not null constraint lesson_sure_check check (sure in ('certain', 'likely', 'suspected')),
  -- where it came from, in words
  came text not null default '',
  evidence text not null default '',
  since date not null,
  -- the one product it is about; every one where there is none
  product_id uuid,
  -- the revision it was learned from: what is found there was not caught
  revision_id uuid,
  cleared_on date,
  cleared_by text not null default '',
  -- products that are let off, each with the reason
  relaxed jsonb not null default '[]',
  position integer not null default 0,
  version integer not null default 1,
  constraint lesson_key unique (workshop_id, id),
  constraint lesson_product_fkey foreign key (workshop_id, product_id) references product (workshop_id, id) on delete cascade,
  constraint lesson_revision_fkey foreign key (workshop_id, revision_id) references revision (workshop_id, id)
    on delete set null (revision_id)
);
select own_table('lesson', 'id');

-- A lesson that did not hold on another revision than the one it was learned from: once a revision, kept when it was mended.
create table lesson_catch (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  lesson_id uuid not null,
  revision_id uuid not null,
  on_day date not null,
  found text not null,
  version integer not null default 1,
  constraint lesson_catch_once unique (workshop_id, lesson_id, revision_id),
  constraint lesson_catch_lesson_fkey foreign key (workshop_id, lesson_id) references lesson (workshop_id, id) on delete cascade,
  constraint lesson_catch_revision_fkey foreign key (workshop_id, revision_id) references revision (workshop_id, id) on delete cascade
);
create index lesson_catch_of_revision on lesson_catch (workshop_id, revision_id);
select own_table('lesson_catch', 'id');

-- What is known to be wrong with a revision of a product, how it is worked around, and what was decided for the others.
create table erratum (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  product_id uuid not null,
  revision_id uuid not null,
  title text not null,
  effect text not null default '',
  harm text not null constraint erratum_harm_check check (harm in ('stops', 'worse', 'looks')),
  -- where on the board it is
  spot jsonb not null,
  way text not null default 'none' constraint erratum_way_check check (way in ('none', 'wire', 'cut', 'part', 'program', 'other')),
  workaround text not null default '',
  minutes double precision,
  planned text not null default '',
  evidence text not null default '',
  found_on date not null,
  -- id of another revision → what was decided for it
  decisions jsonb not null default '{}',
  position integer not null default 0,
  version integer not null default 1,
  constraint erratum_key unique (workshop_id, id),
  constraint erratum_product_fkey foreign key (workshop_id, product_id) references product (workshop_id, id) on delete cascade,
  constraint erratum_revision_fkey foreign key (workshop_id, revision_id) references revision (workshop_id, id) on delete cascade
);
create index erratum_of_product on erratum (workshop_id, product_id);
create index erratum_of_revision on erratum (workshop_id, revision_id);
select own_table('erratum', 'id');

-- An erratum that was worked around on one of the boards that were built, or a board that was given up for it.
create table rework (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  erratum_id uuid not null,
  run_id uuid not null,
  unit integer not null constraint rework_unit_check check (unit between 1 and 100000),
  on_day date not null,
  minutes double precision constraint rework_minutes_check check (minutes >= 0),
  is_scrapped boolean not null default false,
  note text not null default '',
  person text not null,
  version integer not null default 1,
  constraint rework_once unique (workshop_id, erratum_id, run_id, unit),
  constraint rework_erratum_fkey foreign key (workshop_id, erratum_id) references erratum (workshop_id, id) on delete cascade,
  constraint rework_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade
);
create index rework_of_run on rework (workshop_id, run_id);
select own_table('rework', 'id');

-- What the files of a board have at the places of a lesson or an erratum: worked out again when board or row changes, so it
-- is no record.
create table learned_reading (
  workshop_id uuid not null references workshop on delete cascade,
  board_id uuid not null,
  -- a lesson or an erratum
  of_id uuid not null,
  -- of which of its places and which measuring of the board it was read
  read_of text not null,
  places jsonb not null,
  primary key (workshop_id, board_id, of_id),
  constraint learned_reading_board_fkey foreign key (workshop_id, board_id) references board (workshop_id, id) on delete cascade
);
alter table learned_reading enable row level security;
alter table learned_reading force row level security;
create policy own_workshop on learned_reading
  using (workshop_id = current_workshop()) with check (workshop_id = current_workshop());
grant select, insert, update, delete on learned_reading to kobbin_app;
