-- Lots and serials throughout, holds, and quarantine ------------------------------------------------------------------

-- Stock of a tracked item always names its lot or serial. What was received without one before stays countable: its item
-- is tracked again once that is used up and the owner says so.
UPDATE item SET tracking = 'none', version = version + 1 WHERE tracking <> 'none'
  AND id IN (SELECT item_id FROM balance WHERE quantity <> 0 AND lot_id IS NULL AND serial_id IS NULL);
-- Like SC-####: what the serials of an item are made from.
ALTER TABLE item ADD COLUMN serial_pattern TEXT;
-- Whether the first lot to expire has to go first, or is only suggested.
ALTER TABLE item ADD COLUMN lot_order TEXT NOT NULL DEFAULT 'prescribed' CHECK (lot_order IN ('prescribed', 'free'));

-- A held lot or serial stays where it is, but is not free.
ALTER TABLE lot ADD COLUMN held TEXT;
ALTER TABLE lot ADD COLUMN held_at TEXT;
ALTER TABLE lot ADD COLUMN held_by INTEGER REFERENCES person;
-- Set once its day has passed, so that an owner who releases it after that is not overruled again.
ALTER TABLE lot ADD COLUMN day_passed INTEGER NOT NULL DEFAULT 0 CHECK (day_passed IN (0, 1));
CREATE INDEX lot_by_day ON lot (best_before) WHERE best_before IS NOT NULL;
ALTER TABLE serial ADD COLUMN held TEXT;
ALTER TABLE serial ADD COLUMN held_at TEXT;
ALTER TABLE serial ADD COLUMN held_by INTEGER REFERENCES person;
-- What it is worth; nothing while it is not in stock.
ALTER TABLE serial ADD COLUMN value INTEGER;

CREATE INDEX movement_by_lot ON movement (lot_id, id) WHERE lot_id IS NOT NULL;
CREATE INDEX movement_by_serial ON movement (serial_id, id) WHERE serial_id IS NOT NULL;
CREATE INDEX movement_by_bin ON movement (bin_id, id);

-- Bins where goods wait for a decision.
CREATE TABLE bin_2 (
  id INTEGER PRIMARY KEY,
  store_id INTEGER NOT NULL REFERENCES store,
  code TEXT NOT NULL COLLATE NOCASE,
  kind TEXT NOT NULL DEFAULT 'shelf' CHECK (kind IN ('shelf', 'bench', 'quarantine')),
  walk_order INTEGER NOT NULL DEFAULT 0,
  version INTEGER NOT NULL DEFAULT 0,
  UNIQUE (store_id, code)
) STRICT;
INSERT INTO bin_2 SELECT id, store_id, code, kind, walk_order, version FROM bin;
DROP TABLE bin;
ALTER TABLE bin_2 RENAME TO bin;
CREATE UNIQUE INDEX bin_one_bench ON bin (store_id) WHERE kind = 'bench';

-- Places that hold nothing are not kept.
DELETE FROM balance WHERE quantity = 0;
CREATE INDEX balance_by_bin ON balance (bin_id);
CREATE INDEX balance_by_lot ON balance (lot_id) WHERE lot_id IS NOT NULL;
CREATE INDEX balance_by_serial ON balance (serial_id) WHERE serial_id IS NOT NULL;

-- What can be taken: on a shelf, and neither its lot nor its serial is held.
CREATE VIEW usable AS
  SELECT b.item_id, b.bin_id, b.lot_id, b.serial_id, b.quantity FROM balance b
  JOIN bin n ON n.id = b.bin_id AND n.kind = 'shelf'
  LEFT JOIN lot l ON l.id = b.lot_id LEFT JOIN serial s ON s.id = b.serial_id
  WHERE b.build_id IS NULL AND l.held IS NULL AND s.held IS NULL;

ALTER TABLE reason ADD COLUMN used_for TEXT NOT NULL DEFAULT 'adjustment' CHECK (used_for IN ('adjustment', 'hold'));
INSERT INTO reason (name, used_for)
  SELECT column1, 'hold' FROM (VALUES ('To be inspected'), ('Recalled'), ('Doubtful quality'))
  WHERE NOT EXISTS (SELECT 1 FROM reason WHERE name = column1);

-- Counting by lot, and serials by what was seen.
CREATE TABLE stock_count_line_2 (
  id INTEGER PRIMARY KEY,
  count_id INTEGER NOT NULL REFERENCES stock_count,
  item_id INTEGER NOT NULL REFERENCES item,
  bin_id INTEGER NOT NULL REFERENCES bin,
  lot_id INTEGER,
  counted INTEGER CHECK (counted >= 0),
  expected INTEGER,
  -- JSON arrays of serial codes seen, and ids the books had there at that moment
  seen TEXT CHECK (json_valid(seen)),
  booked TEXT CHECK (json_valid(booked)),
  counted_at TEXT,
  counted_by INTEGER REFERENCES person,
  CHECK ((counted IS NULL) = (expected IS NULL)),
  FOREIGN KEY (lot_id, item_id) REFERENCES lot (id, item_id)
) STRICT;
INSERT INTO stock_count_line_2 (id, count_id, item_id, bin_id, counted, expected, counted_at, counted_by)
  SELECT id, count_id, item_id, bin_id, counted, expected, counted_at, counted_by FROM stock_count_line;
DROP TABLE stock_count_line;
ALTER TABLE stock_count_line_2 RENAME TO stock_count_line;
CREATE UNIQUE INDEX stock_count_line_once ON stock_count_line (count_id, item_id, bin_id, ifnull(lot_id, 0));
CREATE INDEX stock_count_line_by_place ON stock_count_line (item_id, bin_id, counted_at);

INSERT INTO document_kind VALUES ('price-difference'), ('revaluation');
INSERT INTO value_kind VALUES ('revalued');

-- An undo is looked at from both sides.
CREATE INDEX document_by_person ON document (person_id, id);
-- Something overridden that no posting can settle is put right by somebody having seen to it.
ALTER TABLE put_right ADD COLUMN settled_by INTEGER REFERENCES person;
ALTER TABLE put_right ADD COLUMN remark TEXT NOT NULL DEFAULT '';
