-- What a quotation was asked for: boards, options, revision. One of before says nothing of it.
alter table quotation add column basis jsonb;
