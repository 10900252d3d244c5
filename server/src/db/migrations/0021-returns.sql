-- Goods that customers send back: what left with which shipment, at what it was worth, and what becomes of it.

CREATE TABLE reason_2 (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  used_for TEXT NOT NULL DEFAULT 'adjustment' CHECK (used_for IN ('adjustment', 'hold', 'reject', 'return'))
) STRICT;
INSERT INTO reason_2 (id, name, used_for) SELECT id, name, used_for FROM reason;
DROP TABLE reason;
ALTER TABLE reason_2 RENAME TO reason;
INSERT INTO reason (name, used_for)
  SELECT column1, 'return' FROM (VALUES ('Arrived broken'), ('Not what was ordered'), ('Does not fit'), ('Changed their mind'), ('Stopped working'))
  WHERE NOT EXISTS (SELECT 1 FROM reason WHERE name = column1);
INSERT INTO document_kind VALUES ('return'), ('return-settled');
INSERT INTO value_kind VALUES ('returned');

-- how many days after a shipment something may come back; null for ever
ALTER TABLE customer ADD COLUMN return_days INTEGER CHECK (return_days BETWEEN 0 AND 9999);
ALTER TABLE item ADD COLUMN return_days INTEGER CHECK (return_days BETWEEN 0 AND 9999);

CREATE TABLE goods_return (
  id INTEGER PRIMARY KEY,
  number TEXT NOT NULL UNIQUE,
  customer_id INTEGER NOT NULL REFERENCES customer,
  remark TEXT NOT NULL DEFAULT '',
  expected_on TEXT,
  made_at TEXT NOT NULL,
  made_by INTEGER NOT NULL REFERENCES person,
  -- the posting that brought it in; null while it is only announced
  document_id INTEGER UNIQUE REFERENCES document,
  arrived_at TEXT,
  -- why it does not come after all
  called_off TEXT,
  version INTEGER NOT NULL DEFAULT 0,
  CHECK ((document_id IS NULL) = (arrived_at IS NULL)),
  CHECK (called_off IS NULL OR document_id IS NULL)
) STRICT;
CREATE INDEX goods_return_by_customer ON goods_return (customer_id, id);
CREATE TRIGGER return_numbered AFTER INSERT ON goods_return BEGIN
  INSERT INTO numbered VALUES ('return', new.id, new.number, NULL);
END;
CREATE TRIGGER return_gone AFTER DELETE ON goods_return BEGIN
  DELETE FROM numbered WHERE kind = 'return' AND id = old.id;
END;

-- So many of a line, as it was sent with one shipment.
CREATE TABLE return_line (
  id INTEGER PRIMARY KEY,
  return_id INTEGER NOT NULL REFERENCES goods_return,
  shipment_id INTEGER NOT NULL REFERENCES shipment,
  line_id INTEGER NOT NULL REFERENCES order_line,
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  reason_id INTEGER NOT NULL REFERENCES reason,
  condition TEXT NOT NULL CHECK (condition IN ('as new', 'used', 'damaged', 'incomplete')),
  remark TEXT NOT NULL DEFAULT '',
  -- what was paid for one, and the percentage of it that is owed
  price INTEGER NOT NULL CHECK (price >= 0),
  credit INTEGER NOT NULL CHECK (credit BETWEEN 0 AND 100000000),
  -- as somebody could tell before it was unpacked: codes of serials and of lots, JSON arrays
  serials TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(serials)),
  lots TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(lots))
) STRICT;
CREATE INDEX return_line_by_return ON return_line (return_id);
CREATE INDEX return_line_by_sent ON return_line (shipment_id, line_id);

-- What came in of it: one thing of one lot or serial, at exactly its part of what left.
CREATE TABLE return_piece (
  id INTEGER PRIMARY KEY,
  return_line_id INTEGER NOT NULL REFERENCES return_line,
  document_id INTEGER NOT NULL REFERENCES document,
  part_id INTEGER NOT NULL,
  item_id INTEGER NOT NULL REFERENCES item,
  lot_id INTEGER,
  serial_id INTEGER,
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  value INTEGER NOT NULL CHECK (value >= 0),
  FOREIGN KEY (lot_id, item_id) REFERENCES lot (id, item_id),
  FOREIGN KEY (serial_id, item_id) REFERENCES serial (id, item_id)
) STRICT;
CREATE INDEX return_piece_by_line ON return_piece (return_line_id);
CREATE INDEX return_piece_by_document ON return_piece (document_id);

-- What became of it, by the posting that did it.
CREATE TABLE return_outcome (
  document_id INTEGER NOT NULL REFERENCES document,
  position INTEGER NOT NULL,
  piece_id INTEGER NOT NULL REFERENCES return_piece,
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  -- of what came in, its part
  value INTEGER NOT NULL,
  outcome TEXT NOT NULL CHECK (outcome IN ('shelf', 'apart', 'rework', 'scrap', 'sent-back', 'damaged', 'missing', 'not-ours')),
  bin_id INTEGER REFERENCES bin,
  build_id INTEGER REFERENCES build,
  note TEXT NOT NULL DEFAULT '',
  PRIMARY KEY (document_id, position)
) STRICT, WITHOUT ROWID;
CREATE INDEX return_outcome_by_piece ON return_outcome (piece_id);

-- What stands: the postings of both that nobody has undone, and what still waits for somebody to decide.
CREATE VIEW return_standing AS
  SELECT p.id AS piece_id, p.return_line_id, l.return_id, p.part_id, p.item_id, p.lot_id, p.serial_id, p.quantity, p.value,
    ifnull((SELECT sum(o.quantity) FROM return_outcome o WHERE o.piece_id = p.id
      AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = o.document_id)), 0) AS settled,
    ifnull((SELECT sum(o.quantity) FROM return_outcome o WHERE o.piece_id = p.id AND o.outcome = 'sent-back'
      AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = o.document_id)), 0) AS sent_back,
    ifnull((SELECT sum(o.value) FROM return_outcome o WHERE o.piece_id = p.id
      AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = o.document_id)), 0) AS settled_value
  FROM return_piece p JOIN return_line l ON l.id = p.return_line_id
  WHERE NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = p.document_id);

-- what was in the box or what it looked like
CREATE TABLE return_picture (
  return_id INTEGER PRIMARY KEY REFERENCES goods_return,
  hash TEXT NOT NULL,
  content BLOB NOT NULL
) STRICT;

-- Several products may be taken apart in one document, also what came back.
CREATE TABLE take_apart_2 (
  document_id INTEGER NOT NULL REFERENCES document,
  -- of the product among those of the document
  place INTEGER NOT NULL,
  item_id INTEGER NOT NULL REFERENCES item,
  revision_id INTEGER NOT NULL REFERENCES revision,
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  leftover TEXT NOT NULL CHECK (leftover IN ('written-off', 'spread')),
  build_id INTEGER REFERENCES build,
  piece_id INTEGER REFERENCES return_piece,
  PRIMARY KEY (document_id, place)
) STRICT;
INSERT INTO take_apart_2 SELECT document_id, 0, item_id, revision_id, quantity, leftover, build_id, NULL FROM take_apart;
CREATE TABLE take_apart_line_2 (
  document_id INTEGER NOT NULL REFERENCES document,
  place INTEGER NOT NULL,
  position INTEGER NOT NULL,
  item_id INTEGER NOT NULL REFERENCES item,
  bin_id INTEGER NOT NULL REFERENCES bin,
  share INTEGER NOT NULL,
  expected INTEGER NOT NULL,
  good INTEGER NOT NULL,
  damaged INTEGER NOT NULL,
  missing INTEGER NOT NULL,
  value INTEGER NOT NULL,
  written_off INTEGER NOT NULL,
  PRIMARY KEY (document_id, place, position)
) STRICT;
INSERT INTO take_apart_line_2 SELECT document_id, 0, position, item_id, bin_id, share, expected, good, damaged, missing, value, written_off
  FROM take_apart_line;
DROP TABLE take_apart_line;
DROP TABLE take_apart;
ALTER TABLE take_apart_2 RENAME TO take_apart;
ALTER TABLE take_apart_line_2 RENAME TO take_apart_line;
