-- What was measured on some pieces of a lot: the parameter, its limits, each reading as typed.
alter table lot add column sample jsonb;
