-- A supplier somebody types is a source nobody vouched for until somebody does.
alter table supplier alter column source_class set default 'unknown';
