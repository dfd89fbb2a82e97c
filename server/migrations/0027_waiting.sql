-- What a shop waits for is listed from what each released run orders, which its figures say from here on.
insert into figures_due (run_id, workshop_id)
select id, workshop_id from run where state = 'released'
on conflict (run_id) do update set since = clock_timestamp(), tries = 0, parked = null;
