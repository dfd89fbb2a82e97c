-- What is worked out of a board's files and kept, so that it is not worked out at each visit: small pictures, as the first page
-- painted them, and what two boards differ in. Made anew where it is missing, so it is no record.

create table board_picture (
  workshop_id uuid not null references workshop on delete cascade,
  board_id uuid not null,
  -- hash of all the picture hangs on beside the files
  key text not null constraint board_picture_key_check check (key ~ '^[0-9a-f]{64}$'),
  -- under which corrections the files were read
  read_of text not null,
  -- of the board, mm
  box double precision[] not null constraint board_picture_box_check check (cardinality(box) = 4),
  png bytea not null constraint board_picture_size_check check (length(png) <= 400000),
  at timestamptz not null default now(),
  primary key (workshop_id, board_id, key),
  constraint board_picture_board_fkey foreign key (workshop_id, board_id) references board (workshop_id, id) on delete cascade
);
create index board_picture_by_age on board_picture (workshop_id, at);
alter table board_picture enable row level security;
alter table board_picture force row level security;
create policy own_workshop on board_picture
  using (workshop_id = current_workshop()) with check (workshop_id = current_workshop());
grant select, insert, update, delete on board_picture to kobbin_app;

create table board_difference (
  workshop_id uuid not null references workshop on delete cascade,
  board_id uuid not null,
  against_id uuid not null,
  -- under which corrections both were read
  read_of text not null,
  difference jsonb not null,
  primary key (workshop_id, board_id, against_id),
  constraint board_difference_board_fkey foreign key (workshop_id, board_id) references board (workshop_id, id) on delete cascade,
  constraint board_difference_against_fkey foreign key (workshop_id, against_id) references board (workshop_id, id) on delete cascade
);
create index board_difference_against on board_difference (workshop_id, against_id);
alter table board_difference enable row level security;
alter table board_difference force row level security;
create policy own_workshop on board_difference
  using (workshop_id = current_workshop()) with check (workshop_id = current_workshop());
grant select, insert, update, delete on board_difference to kobbin_app;
