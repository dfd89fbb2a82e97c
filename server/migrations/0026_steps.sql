-- What decides when a part's turn is: what holds it while it hangs, what heat it stands, after what it goes on, what it hides.

alter table part add column wetted_mm2 double precision;
alter table part add column peak_c double precision;
alter table part add column fit_after text constraint part_fit_after_check check (fit_after in ('reflow', 'wash', 'test'));
alter table part add column opens_once boolean;
alter table part add column covers text[];
