-- A supplier somebody types is a source nobody vouched for until somebody does.
alter table supplier alter column source_class set default 'unknown';

-- What is taken where a line without a number does not say: class → attribute → text. A class that is there was confirmed.
alter table workshop add column rules jsonb not null default '{}';
-- Duty is taken on the freight too, as some places do.
alter table supplier add column duty_on_freight boolean not null default false;
-- What a supplier says of a part it named for such a line; nothing where the offer is for a number somebody asked for.
alter table offer add column candidate jsonb;
