-- What the files of a board have at places that are meant to be something: worked out again when board or row changes, so it
-- is no record.

alter table fit_row add constraint fit_row_key unique (workshop_id, id);

create table place_reading (
  workshop_id uuid not null references workshop on delete cascade,
  board_id uuid not null,
  fit_id uuid not null,
  -- of which row and which measuring of the board it was read
  read_of text not null,
  reading jsonb not null,
  primary key (workshop_id, board_id, fit_id),
  constraint place_reading_board_fkey foreign key (workshop_id, board_id) references board (workshop_id, id) on delete cascade,
  constraint place_reading_fit_fkey foreign key (workshop_id, fit_id) references fit_row (workshop_id, id) on delete cascade
);
alter table place_reading enable row level security;
alter table place_reading force row level security;
create policy own_workshop on place_reading
  using (workshop_id = current_workshop()) with check (workshop_id = current_workshop());
grant select, insert, update, delete on place_reading to kobbin_app;
