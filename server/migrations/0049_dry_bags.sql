-- What happened to the dry bag of a lot: in the air, back in it, baked, and the hours its label allows.
alter table lot add column air jsonb;
