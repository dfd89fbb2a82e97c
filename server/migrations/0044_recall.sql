-- Which runs a lot came for, and which took of it: asked of every lot that is doubted.
create index receipt_of_lot on receipt (workshop_id, lot_id) where lot_id is not null;

-- What closed runs took of which lots. Worked out of their closings, so it is no record.
alter table closing add constraint closing_of_shop_key unique (workshop_id, id);
create table lot_taken (
  workshop_id uuid not null references workshop on delete cascade,
  lot_id uuid not null,
  closing_id uuid not null,
  run_id uuid not null,
  -- negative where more lay there than was written
  pieces integer not null,
  primary key (workshop_id, lot_id, closing_id),
  constraint lot_taken_closing_fkey foreign key (workshop_id, closing_id) references closing (workshop_id, id) on delete cascade
);
create index lot_taken_of_closing on lot_taken (workshop_id, closing_id);
alter table lot_taken enable row level security;
alter table lot_taken force row level security;
create policy own_workshop on lot_taken
  using (workshop_id = current_workshop()) with check (workshop_id = current_workshop());
grant select, insert, update, delete on lot_taken to kobbin_app;

create function note_taken() returns trigger language plpgsql as $$
begin
  delete from lot_taken where workshop_id = new.workshop_id and closing_id = new.id;
  insert into lot_taken (workshop_id, lot_id, closing_id, run_id, pieces)
    select new.workshop_id, t.key::uuid, new.id, new.run_id, (t.value ->> 'pieces')::integer
    from jsonb_each(new.taken) as t;
  return null;
end $$;
create trigger note_taken after insert or update of taken on closing for each row execute function note_taken();
