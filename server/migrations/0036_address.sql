-- Where parcels go and who is asked: it stands on what a shop sends out.
alter table workshop add column address text not null default '';
