-- What is used up and goes off stands among the shop's equipment: paste, wire, flux, what boards are washed with.
alter table equipment drop constraint equipment_kind_check;
alter table equipment add constraint equipment_kind_check check (kind in
  ('plate', 'oven', 'air', 'iron', 'eyes', 'washer', 'programmer', 'supply', 'meter', 'printer', 'scanner', 'paste', 'wire', 'flux',
   'cleaner', 'other'));
