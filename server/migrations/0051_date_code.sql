-- The date code of a lot as it stands on its bag or its parts.
alter table lot add column made text check (length(made) between 1 and 20);
