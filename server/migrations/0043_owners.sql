-- Where a board that was built went, and who has it. What tells of a person stands here and nowhere else, so that it can be
-- forgotten; the board and where it went stay.
create table unit_out (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  run_id uuid not null,
  unit integer not null constraint unit_out_unit_check check (unit between 1 and 100000),
  on_day date not null,
  -- a fair, an order's number, a shop
  towards text not null,
  holder text not null default '',
  reach text not null default '',
  person text not null,
  version integer not null default 1,
  constraint unit_out_once unique (workshop_id, run_id, unit),
  constraint unit_out_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade
);
select own_table('unit_out', 'id');

-- What an owner, or a stranger, said of a product, and of which board where they know it.
create table owner_report (
  id uuid primary key default gen_random_uuid(),
  workshop_id uuid not null references workshop on delete cascade,
  product_id uuid not null,
  run_id uuid,
  unit integer constraint owner_report_unit_check check (unit between 1 and 100000),
  on_day date not null,
  says text not null,
  -- cold, a long cable, after a year
  conditions text not null default '',
  -- how they get by
  workaround text not null default '',
  answer text not null default '',
  -- the fault it is, once it is known
  erratum_id uuid,
  person text not null,
  at timestamptz not null default clock_timestamp(),
  version integer not null default 1,
  constraint owner_report_board_check check ((run_id is null) = (unit is null)),
  constraint owner_report_product_fkey foreign key (workshop_id, product_id) references product (workshop_id, id) on delete cascade,
  constraint owner_report_run_fkey foreign key (workshop_id, run_id) references run (workshop_id, id) on delete cascade,
  constraint owner_report_erratum_fkey foreign key (workshop_id, erratum_id) references erratum (workshop_id, id) on delete set null (erratum_id)
);
create index owner_report_of_product on owner_report (workshop_id, product_id);
create index owner_report_of_run on owner_report (workshop_id, run_id, unit);
create index owner_report_of_erratum on owner_report (workshop_id, erratum_id);
select own_table('owner_report', 'id');
