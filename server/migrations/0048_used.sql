-- What a step at the bench was done with (heater, paste, iron, wire), by the name it had then.
alter table sitting add column used jsonb not null default '{}';
-- Which boards went through a machine that is doubted.
create index sitting_used on sitting using gin (used jsonb_path_ops) where used <> '{}';
-- What faults of a closed run have in common: worked out once, as the run stands then, for all runs together.
alter table closing add column factors jsonb not null default '[]';
