-- Every question of a shop finds its rows without passing another shop's: measured at a hundred shops, the bench and
-- the find box had begun to read all of them.
create index revision_workshop on revision (workshop_id);
create index board_workshop on board (workshop_id);
create index board_revision on board (revision_id);
create index bom_line_workshop on bom_line (workshop_id);
create index house_workshop on house (workshop_id);
create index run_workshop on run (workshop_id);
create index run_revision on run (revision_id);
create index fork_workshop on fork (workshop_id);
create index fork_house on fork (house_id);
create index offer_workshop on offer (workshop_id);
create index offer_supplier on offer (supplier_id);
create index offer_break_workshop on offer_break (workshop_id);
create index quotation_workshop on quotation (workshop_id);
create index quotation_house on quotation (house_id);
create index release_workshop on release (workshop_id);
create index release_run on release (run_id);
create index remark_workshop on remark (workshop_id);
create index remark_line on remark (line_id);
create index board_file_blob on board_file (workshop_id, sha256);
create index member_account on member (account_id);
create index session_account on session (account_id);
create index session_workshop on session (workshop_id);
create index invitation_workshop on invitation (workshop_id);
create index figures_due_since on figures_due (since);
create index change_undoes on change (undoes) where undoes is not null;
create index change_undone_by on change (undone_by) where undone_by is not null;
