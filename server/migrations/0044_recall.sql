-- Which runs a lot came for: asked of every lot that is doubted.
create index receipt_of_lot on receipt (workshop_id, lot_id) where lot_id is not null;
