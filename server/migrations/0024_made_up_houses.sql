-- Houses that came with a shop to try it with, whether they can be asked over the network or not.
alter table house add column is_made_up boolean not null default false;

update house set is_made_up = true where feed_key is not null;
