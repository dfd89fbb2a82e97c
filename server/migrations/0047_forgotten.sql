-- Where a board went is taken back with everything else; who had it goes with the row, out of the record of its changes too: a
-- name of which no row is left could never be forgotten again.
create function forget_holder() returns trigger language plpgsql as $$
begin
  update change_row set was = was - 'holder' - 'reach', became = became - 'holder' - 'reach'
  where workshop_id = old.workshop_id and tbl = 'unit_out' and key = jsonb_build_object('id', old.id);
  return null;
end $$;
-- after the record, which is written by the trigger record_row
create trigger wipe_holder after delete on unit_out for each row execute function forget_holder();
