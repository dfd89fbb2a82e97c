-- Machines and tools of the shop: what each can and cannot, and how long it has worked.

create table equipment (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  kind text not null constraint equipment_kind_check check (kind in
    ('plate', 'oven', 'air', 'iron', 'eyes', 'washer', 'programmer', 'supply', 'meter', 'printer', 'scanner', 'other')),
  name text not null,
  -- room, heat, tips, what it magnifies: what its kind has, as far as it is said
  facts jsonb not null default '{}',
  can text not null default '',
  cannot text not null default '',
  hours double precision not null default 0,
  -- hours it, its element or its tip lasts
  lasts_hours double precision,
  state text not null default 'ready' constraint equipment_state_check check (state in ('ready', 'broken')),
  position integer not null default 0,
  version integer not null default 1
);
create index equipment_of_workshop on equipment (workshop_id);
select own_table('equipment', 'id');
