-- Sizes of a part's body as it lies on the board, mm: what its package's name does not tell.

alter table part add column body_length_mm double precision;
alter table part add column body_width_mm double precision;
