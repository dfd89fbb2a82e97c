-- What a closed run took of each lot: lot → pieces, and whether what was left was counted or estimated.
alter table closing add column taken jsonb not null default '{}';
