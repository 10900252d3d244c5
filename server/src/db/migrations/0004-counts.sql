INSERT INTO document_kind VALUES ('count');

CREATE TABLE stock_count (
  id INTEGER PRIMARY KEY,
  number TEXT NOT NULL UNIQUE,
  -- what is counted, in words
  scope TEXT NOT NULL,
  state TEXT NOT NULL CHECK (state IN ('open', 'approved', 'cancelled')),
  begun_at TEXT NOT NULL,
  begun_by INTEGER NOT NULL REFERENCES person,
  document_id INTEGER REFERENCES document,
  version INTEGER NOT NULL DEFAULT 0
) STRICT;

CREATE TABLE stock_count_line (
  id INTEGER PRIMARY KEY,
  count_id INTEGER NOT NULL REFERENCES stock_count,
  item_id INTEGER NOT NULL REFERENCES item,
  bin_id INTEGER NOT NULL REFERENCES bin,
  -- What was there; empty until somebody has counted.
  counted INTEGER CHECK (counted >= 0),
  -- What the books said at the very moment it was counted, so that goods may move on while others still count.
  expected INTEGER,
  counted_at TEXT,
  counted_by INTEGER REFERENCES person,
  CHECK ((counted IS NULL) = (expected IS NULL)),
  UNIQUE (count_id, item_id, bin_id)
) STRICT;
CREATE INDEX stock_count_line_by_place ON stock_count_line (item_id, bin_id, counted_at);
