-- An index over the shop alone, beside one over the shop and the row's id, was taken for the check of every reference while
-- the database knew nothing yet of a shop: each row restored or pasted then read all rows of the shop before it.
drop index revision_workshop;
drop index board_workshop;
drop index run_workshop;
drop index bom_line_workshop;
drop index house_workshop;
drop index offer_workshop;
drop index release_workshop;
drop index feed_ask_workshop;
drop index house_ask_workshop;
