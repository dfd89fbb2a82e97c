-- What may flow through a part: through each contact of a connector, out of a regulator.

alter table part add column carries_ma double precision;
