-- Goods of customers that are here to be repaired. They are no stock: no posting ever moves them, so that they can neither
-- be counted as ours nor be worth anything in our books.

DROP VIEW usable;
CREATE TABLE bin_2 (
  id INTEGER PRIMARY KEY,
  store_id INTEGER NOT NULL REFERENCES store,
  code TEXT NOT NULL COLLATE NOCASE,
  -- 'customers' holds what belongs to customers, and nothing of ours
  kind TEXT NOT NULL DEFAULT 'shelf' CHECK (kind IN ('shelf', 'bench', 'quarantine', 'customers')),
  walk_order INTEGER NOT NULL DEFAULT 0,
  version INTEGER NOT NULL DEFAULT 0,
  UNIQUE (store_id, code)
) STRICT;
INSERT INTO bin_2 SELECT id, store_id, code, kind, walk_order, version FROM bin;
DROP TABLE bin;
ALTER TABLE bin_2 RENAME TO bin;
CREATE UNIQUE INDEX bin_one_bench ON bin (store_id) WHERE kind = 'bench';
CREATE VIEW usable AS
  SELECT b.item_id, b.bin_id, n.store_id, b.lot_id, b.serial_id, b.quantity FROM balance b
  JOIN bin n ON n.id = b.bin_id AND n.kind = 'shelf'
  LEFT JOIN lot l ON l.id = b.lot_id LEFT JOIN serial s ON s.id = b.serial_id
  WHERE b.holder_id IS NULL AND l.held IS NULL AND s.held IS NULL;

INSERT INTO value_kind VALUES ('repaired');

CREATE TABLE repair (
  id INTEGER PRIMARY KEY,
  number TEXT NOT NULL UNIQUE,
  customer_id INTEGER NOT NULL REFERENCES customer,
  item_id INTEGER NOT NULL REFERENCES item,
  -- null where the item is not known by serial
  serial_id INTEGER REFERENCES serial,
  bin_id INTEGER NOT NULL REFERENCES bin,
  state TEXT NOT NULL CHECK (state IN ('taken-in', 'asked', 'agreed', 'on-bench', 'ready', 'given-back')),
  fault TEXT NOT NULL CHECK (fault <> ''),
  accessories TEXT NOT NULL DEFAULT '',
  wanted_on TEXT,
  warranty INTEGER NOT NULL DEFAULT 0 CHECK (warranty IN (0, 1)),
  -- what the customer was told it would cost
  estimate INTEGER CHECK (estimate >= 0),
  -- what was agreed; null for by what it takes
  price INTEGER CHECK (price >= 0),
  -- what was done, for the customer to read
  report TEXT NOT NULL DEFAULT '',
  -- why it goes back as it came; null while it is repaired
  declined TEXT,
  job_tag TEXT NOT NULL DEFAULT '',
  -- what it was charged at when it was given back
  charged INTEGER CHECK (charged >= 0),
  taken_in_at TEXT NOT NULL,
  taken_in_by INTEGER NOT NULL REFERENCES person,
  given_back_at TEXT,
  given_back_by INTEGER REFERENCES person,
  version INTEGER NOT NULL DEFAULT 0,
  CHECK ((state = 'given-back') = (given_back_at IS NOT NULL)),
  CHECK ((state = 'given-back') = (charged IS NOT NULL)),
  CHECK (warranty = 0 OR ifnull(charged, 0) = 0)
) STRICT;
CREATE INDEX repair_by_state ON repair (state, id);
CREATE INDEX repair_by_customer ON repair (customer_id, id);
CREATE INDEX repair_by_job ON repair (job_tag) WHERE job_tag <> '';
-- A unit is here for one repair at a time.
CREATE UNIQUE INDEX repair_of_unit ON repair (serial_id) WHERE state <> 'given-back' AND serial_id IS NOT NULL;

-- What happened to it, in words.
CREATE TABLE repair_event (
  id INTEGER PRIMARY KEY,
  repair_id INTEGER NOT NULL REFERENCES repair,
  at TEXT NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person,
  says TEXT NOT NULL,
  -- the money that was spoken of
  amount INTEGER
) STRICT;
CREATE INDEX repair_event_by_repair ON repair_event (repair_id, id);
