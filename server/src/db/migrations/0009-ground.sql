-- The ledger knows no feature: what a posting is for, and who holds what it moves, are told by kind and id -------------

DROP VIEW usable;

-- Who goods can stand for, apart from shelves.
CREATE TABLE holder_kind (code TEXT PRIMARY KEY) STRICT;
INSERT INTO holder_kind VALUES ('build'), ('parcel'), ('customer'), ('return');

CREATE TABLE document_2 (
  id INTEGER PRIMARY KEY,
  number TEXT NOT NULL UNIQUE,
  kind TEXT NOT NULL REFERENCES document_kind,
  at TEXT NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person,
  remark TEXT NOT NULL DEFAULT '',
  -- what it was posted for
  for_kind TEXT,
  for_id INTEGER,
  reverses_id INTEGER UNIQUE REFERENCES document,
  override_reason TEXT,
  reason_id INTEGER REFERENCES reason,
  CHECK ((for_kind IS NULL) = (for_id IS NULL))
) STRICT;
INSERT INTO document_2 SELECT id, number, kind, at, person_id, remark, iif(build_id IS NULL, NULL, 'build'), build_id,
  reverses_id, override_reason, reason_id FROM document;
DROP TABLE document;
ALTER TABLE document_2 RENAME TO document;
CREATE INDEX document_by_kind ON document (kind, id);
CREATE INDEX document_for ON document (for_kind, for_id) WHERE for_id IS NOT NULL;
CREATE INDEX document_by_time ON document (at);
CREATE INDEX document_by_person ON document (person_id, id);
CREATE TRIGGER document_is_final_update BEFORE UPDATE ON document BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;
CREATE TRIGGER document_is_final_delete BEFORE DELETE ON document BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;

CREATE TABLE movement_2 (
  id INTEGER PRIMARY KEY,
  document_id INTEGER NOT NULL REFERENCES document,
  item_id INTEGER NOT NULL REFERENCES item,
  bin_id INTEGER NOT NULL REFERENCES bin,
  lot_id INTEGER,
  serial_id INTEGER,
  holder_kind TEXT REFERENCES holder_kind,
  holder_id INTEGER,
  -- the line of what the document was posted for that it serves
  line_id INTEGER,
  quantity INTEGER NOT NULL,
  value INTEGER NOT NULL,
  CHECK ((holder_kind IS NULL) = (holder_id IS NULL)),
  FOREIGN KEY (lot_id, item_id) REFERENCES lot (id, item_id),
  FOREIGN KEY (serial_id, item_id) REFERENCES serial (id, item_id)
) STRICT;
INSERT INTO movement_2 SELECT id, document_id, item_id, bin_id, lot_id, serial_id, iif(build_id IS NULL, NULL, 'build'),
  build_id, build_line_id, quantity, value FROM movement;
DROP TABLE movement;
ALTER TABLE movement_2 RENAME TO movement;
CREATE INDEX movement_by_item ON movement (item_id, id);
CREATE INDEX movement_by_document ON movement (document_id);
CREATE INDEX movement_by_line ON movement (line_id) WHERE line_id IS NOT NULL;
CREATE INDEX movement_by_lot ON movement (lot_id, id) WHERE lot_id IS NOT NULL;
CREATE INDEX movement_by_serial ON movement (serial_id, id) WHERE serial_id IS NOT NULL;
CREATE INDEX movement_by_bin ON movement (bin_id, id);
CREATE TRIGGER movement_is_final_update BEFORE UPDATE ON movement BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;
CREATE TRIGGER movement_is_final_delete BEFORE DELETE ON movement BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;

CREATE TABLE document_value_2 (
  id INTEGER PRIMARY KEY,
  document_id INTEGER NOT NULL REFERENCES document,
  kind TEXT NOT NULL REFERENCES value_kind,
  amount INTEGER NOT NULL,
  item_id INTEGER REFERENCES item,
  -- the line of what the document was posted for
  line_id INTEGER
) STRICT;
INSERT INTO document_value_2 SELECT id, document_id, kind, amount, item_id, build_line_id FROM document_value;
DROP TABLE document_value;
ALTER TABLE document_value_2 RENAME TO document_value;
CREATE INDEX document_value_by_document ON document_value (document_id);
CREATE TRIGGER document_value_is_final_update BEFORE UPDATE ON document_value BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;
CREATE TRIGGER document_value_is_final_delete BEFORE DELETE ON document_value BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;

CREATE TABLE balance_2 (
  item_id INTEGER NOT NULL REFERENCES item,
  bin_id INTEGER NOT NULL REFERENCES bin,
  lot_id INTEGER,
  serial_id INTEGER,
  holder_kind TEXT REFERENCES holder_kind,
  holder_id INTEGER,
  quantity INTEGER NOT NULL,
  CHECK ((holder_kind IS NULL) = (holder_id IS NULL))
) STRICT;
INSERT INTO balance_2 SELECT item_id, bin_id, lot_id, serial_id, iif(build_id IS NULL, NULL, 'build'), build_id, quantity
  FROM balance;
DROP TABLE balance;
ALTER TABLE balance_2 RENAME TO balance;
CREATE UNIQUE INDEX balance_spot ON balance
  (item_id, bin_id, ifnull(lot_id, 0), ifnull(serial_id, 0), ifnull(holder_kind, ''), ifnull(holder_id, 0));
CREATE INDEX balance_by_holder ON balance (holder_kind, holder_id) WHERE holder_id IS NOT NULL;
CREATE INDEX balance_by_bin ON balance (bin_id);
CREATE INDEX balance_by_lot ON balance (lot_id) WHERE lot_id IS NOT NULL;
CREATE INDEX balance_by_serial ON balance (serial_id) WHERE serial_id IS NOT NULL;

CREATE TABLE put_right_2 (
  id INTEGER PRIMARY KEY,
  document_id INTEGER REFERENCES document,
  -- what it was overridden for
  for_kind TEXT,
  for_id INTEGER,
  item_id INTEGER REFERENCES item,
  bin_id INTEGER REFERENCES bin,
  quantity INTEGER,
  reason TEXT NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person,
  at TEXT NOT NULL,
  settled_at TEXT,
  settled_by INTEGER REFERENCES person,
  remark TEXT NOT NULL DEFAULT '',
  CHECK ((for_kind IS NULL) = (for_id IS NULL))
) STRICT;
INSERT INTO put_right_2 SELECT id, document_id, iif(build_id IS NULL, NULL, 'build'), build_id, item_id, bin_id, quantity,
  reason, person_id, at, settled_at, settled_by, remark FROM put_right;
DROP TABLE put_right;
ALTER TABLE put_right_2 RENAME TO put_right;
CREATE INDEX put_right_open ON put_right (item_id, bin_id) WHERE settled_at IS NULL;

-- What can be taken: on a shelf, held by nobody, and neither its lot nor its serial is held.
CREATE VIEW usable AS
  SELECT b.item_id, b.bin_id, n.store_id, b.lot_id, b.serial_id, b.quantity FROM balance b
  JOIN bin n ON n.id = b.bin_id AND n.kind = 'shelf'
  LEFT JOIN lot l ON l.id = b.lot_id LEFT JOIN serial s ON s.id = b.serial_id
  WHERE b.holder_id IS NULL AND l.held IS NULL AND s.held IS NULL;

-- Everything that something can be posted for or stand for, by the number that people know it by.
CREATE VIEW numbered AS SELECT 'build' AS kind, id, number, item_id FROM build;
-- The lines of it, by what they say.
CREATE VIEW said_line AS SELECT 'build' AS kind, id, text FROM build_line;

-- Who needs what and what will come ------------------------------------------------------------------------------------

-- What is needed from shelves, by the line that needs it. Lines come first in each: an item finds its own by an index.
CREATE VIEW demand AS
  SELECT 'build' AS kind, b.id AS source_id, l.id AS line_id, l.item_id, l.open AS quantity, b.due AS wanted_on,
    b.state = 'on-bench' AS begun
  FROM build_line l CROSS JOIN build b ON b.id = l.build_id WHERE l.open > 0;

-- What may stand in for it, the best first.
CREATE VIEW demand_alternate AS
  SELECT 'build' AS kind, l.id AS line_id, a.position, a.item_id, a.ratio
  FROM build_line l JOIN build b ON b.id = l.build_id
  JOIN revision_line r ON r.revision_id = b.revision_id AND r.position = l.position
  JOIN revision_line_alternate a ON a.line_id = r.id JOIN item i ON i.id = a.item_id
  WHERE l.open > 0 AND i.archived_at IS NULL;

-- What is on its way, with the day it is due; null where nobody knows one. What is bought and what is built are told apart,
-- because SQLite finds an item's own by an index in either, but not in both at once.
DROP VIEW purchase_coming;
CREATE VIEW coming_bought AS
  SELECT 'purchase' AS kind, l.order_id AS source_id, l.id AS line_id, o.number,
    (SELECT name FROM supplier WHERE id = o.supplier_id) AS brought_by, l.item_id,
    min(l.open, ifnull(l.confirmed_quantity, l.quantity) - l.received) AS quantity, l.expected_on AS due
  FROM purchase_order_line l CROSS JOIN purchase_order o ON o.id = l.order_id
  WHERE l.open > 0 AND ifnull(l.confirmed_quantity, l.quantity) > l.received;
CREATE VIEW coming_built AS
  SELECT 'build' AS kind, id AS source_id, NULL AS line_id, number, iif(state = 'planned', 'planned', 'on the bench') AS brought_by,
    item_id, quantity - finished AS quantity, due
  FROM build WHERE state IN ('planned', 'on-bench') AND quantity > finished;
CREATE VIEW coming AS SELECT * FROM coming_bought UNION ALL SELECT * FROM coming_built;

-- Old answers are looked for by their age.
CREATE INDEX command_by_time ON command (at);
