-- An order that lines were split off from another keeps whose it was: what a shop sends later is about the whole of it.
ALTER TABLE sales_order ADD COLUMN split_from_id INTEGER REFERENCES sales_order;
