-- Of which item of an order another quantity was wanted from when on, and who said so.
CREATE TABLE order_change (
  id INTEGER PRIMARY KEY,
  order_id INTEGER NOT NULL REFERENCES sales_order,
  at TEXT NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person,
  item_id INTEGER NOT NULL REFERENCES item,
  before INTEGER NOT NULL CHECK (before >= 0),
  after INTEGER NOT NULL CHECK (after >= 0 AND after <> before)
) STRICT;
CREATE INDEX order_change_by_order ON order_change (order_id, id);
