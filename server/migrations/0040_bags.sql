-- Each lot has a number in its shop, which stands on its label; a number is never given twice, whatever becomes of the lot.
create table lot_counter (
  workshop_id uuid primary key references workshop on delete cascade,
  last integer not null
);
alter table lot_counter enable row level security;
alter table lot_counter force row level security;
create policy own_workshop on lot_counter
  using (workshop_id = current_workshop()) with check (workshop_id = current_workshop());
grant select, insert, update, delete on lot_counter to kobbin_app;

alter table lot add column number integer constraint lot_number_check check (number between 1 and 999999999);

-- the owner fills what is there: it is no change, and the policies would hide every shop from it
alter table lot no force row level security;
alter table lot_counter no force row level security;
alter table lot disable trigger user;
update lot as l set number = n.number
from (select id, row_number() over (partition by workshop_id order by received_on, mpn, id) as number from lot) as n
where n.id = l.id;
insert into lot_counter (workshop_id, last) select workshop_id, max(number) from lot group by workshop_id;
alter table lot enable trigger user;
alter table lot_counter force row level security;
alter table lot force row level security;

alter table lot alter column number set not null;
alter table lot add constraint lot_number_key unique (workshop_id, number);

-- A lot that comes without a number takes the next; one that is brought back or restored keeps its own.
create function number_lot() returns trigger language plpgsql as $$
begin
  if new.number is null then
    insert into lot_counter as c (workshop_id, last) values (new.workshop_id, 1)
    on conflict (workshop_id) do update set last = c.last + 1
    returning c.last into new.number;
  else
    insert into lot_counter as c (workshop_id, last) values (new.workshop_id, new.number)
    on conflict (workshop_id) do update set last = greatest(c.last, excluded.last);
  end if;
  return new;
end $$;
create trigger number_lot before insert on lot for each row execute function number_lot();

-- What is to lie on the shelf of a part, whatever the runs take.
alter table part add column keep_least double precision;
