-- Amounts (quantities, money, percentages) are integers in millionths; times are ISO text in UTC; days are ISO text.

CREATE TABLE company (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  name TEXT NOT NULL,
  currency TEXT NOT NULL,
  locale TEXT NOT NULL,
  cookie_secret TEXT NOT NULL
) STRICT;

CREATE TABLE person (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE,
  initials TEXT NOT NULL,
  role TEXT NOT NULL CHECK (role IN ('owner', 'bench')),
  active INTEGER NOT NULL DEFAULT 1 CHECK (active IN (0, 1))
) STRICT;

CREATE TABLE unit (
  id INTEGER PRIMARY KEY,
  code TEXT NOT NULL UNIQUE COLLATE NOCASE,
  name TEXT NOT NULL,
  decimals INTEGER NOT NULL CHECK (decimals BETWEEN 0 AND 4)
) STRICT;

CREATE TABLE rate (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE,
  per_hour INTEGER NOT NULL CHECK (per_hour >= 0)
) STRICT;

CREATE TABLE store (
  id INTEGER PRIMARY KEY,
  code TEXT NOT NULL UNIQUE COLLATE NOCASE,
  name TEXT NOT NULL,
  version INTEGER NOT NULL DEFAULT 0
) STRICT;

CREATE TABLE bin (
  id INTEGER PRIMARY KEY,
  store_id INTEGER NOT NULL REFERENCES store,
  code TEXT NOT NULL COLLATE NOCASE,
  kind TEXT NOT NULL DEFAULT 'shelf' CHECK (kind IN ('shelf', 'bench')),
  walk_order INTEGER NOT NULL DEFAULT 0,
  version INTEGER NOT NULL DEFAULT 0,
  UNIQUE (store_id, code)
) STRICT;
CREATE UNIQUE INDEX bin_one_bench ON bin (store_id) WHERE kind = 'bench';

CREATE TABLE item (
  id INTEGER PRIMARY KEY,
  code TEXT NOT NULL UNIQUE COLLATE NOCASE,
  name TEXT NOT NULL,
  unit_id INTEGER NOT NULL REFERENCES unit,
  source TEXT NOT NULL CHECK (source IN ('bought', 'made', 'both')),
  tracking TEXT NOT NULL DEFAULT 'none' CHECK (tracking IN ('none', 'lot', 'serial')),
  home_bin_id INTEGER REFERENCES bin,
  sell_price INTEGER CHECK (sell_price >= 0),
  reorder_point INTEGER CHECK (reorder_point >= 0),
  standard_cost INTEGER CHECK (standard_cost >= 0),
  latest_cost INTEGER CHECK (latest_cost >= 0),
  tax_free INTEGER NOT NULL DEFAULT 0 CHECK (tax_free IN (0, 1)),
  barcode TEXT UNIQUE,
  note TEXT NOT NULL DEFAULT '',
  archived_at TEXT,
  version INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX item_by_name ON item (name COLLATE NOCASE);

CREATE TABLE item_field (
  item_id INTEGER NOT NULL REFERENCES item,
  name TEXT NOT NULL COLLATE NOCASE,
  value TEXT NOT NULL,
  PRIMARY KEY (item_id, name)
) STRICT;

CREATE TABLE lot (
  id INTEGER PRIMARY KEY,
  item_id INTEGER NOT NULL REFERENCES item,
  code TEXT NOT NULL COLLATE NOCASE,
  best_before TEXT,
  attributes TEXT NOT NULL DEFAULT '{}' CHECK (json_valid(attributes)),
  UNIQUE (item_id, code),
  UNIQUE (id, item_id)
) STRICT;

CREATE TABLE serial (
  id INTEGER PRIMARY KEY,
  item_id INTEGER NOT NULL REFERENCES item,
  code TEXT NOT NULL COLLATE NOCASE,
  lot_id INTEGER REFERENCES lot,
  UNIQUE (item_id, code),
  UNIQUE (id, item_id)
) STRICT;

-- Definitions -------------------------------------------------------------------------------------------------------

CREATE TABLE definition (
  id INTEGER PRIMARY KEY,
  item_id INTEGER NOT NULL REFERENCES item,
  purpose TEXT NOT NULL DEFAULT 'build' CHECK (purpose IN ('build', 'rework', 'record')),
  made TEXT NOT NULL DEFAULT 'ahead' CHECK (made IN ('ahead', 'packed-per-order')),
  paperwork TEXT NOT NULL DEFAULT 'one-line' CHECK (paperwork IN ('one-line', 'contents')),
  on_order TEXT NOT NULL DEFAULT 'locked' CHECK (on_order IN ('locked', 'quantities', 'swaps')),
  UNIQUE (item_id, purpose)
) STRICT;

CREATE TABLE revision (
  id INTEGER PRIMARY KEY,
  definition_id INTEGER NOT NULL REFERENCES definition,
  number INTEGER NOT NULL CHECK (number > 0),
  state TEXT NOT NULL CHECK (state IN ('draft', 'in-use', 'retired')),
  output_quantity INTEGER NOT NULL CHECK (output_quantity > 0),
  in_use_from TEXT,
  version INTEGER NOT NULL DEFAULT 0,
  UNIQUE (definition_id, number)
) STRICT;
CREATE UNIQUE INDEX revision_one_in_use ON revision (definition_id) WHERE state = 'in-use';
CREATE UNIQUE INDEX revision_one_draft ON revision (definition_id) WHERE state = 'draft';

CREATE TABLE revision_line (
  id INTEGER PRIMARY KEY,
  revision_id INTEGER NOT NULL REFERENCES revision ON DELETE CASCADE,
  position INTEGER NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('part', 'labour', 'charge', 'note')),
  text TEXT NOT NULL DEFAULT '',
  item_id INTEGER REFERENCES item,
  from_bin_id INTEGER REFERENCES bin,
  basis TEXT NOT NULL DEFAULT 'per-output' CHECK (basis IN ('per-output', 'per-run')),
  -- part: quantity; labour: minutes; charge: money
  amount INTEGER NOT NULL DEFAULT 0 CHECK (amount >= 0),
  waste INTEGER NOT NULL DEFAULT 0 CHECK (waste >= 0),
  taken TEXT CHECK (taken IN ('picked-first', 'when-finished')),
  share INTEGER CHECK (share BETWEEN 0 AND 100000000),
  comes_back INTEGER NOT NULL DEFAULT 0 CHECK (comes_back IN (0, 1)),
  rate_id INTEGER REFERENCES rate,
  CHECK ((kind = 'part') = (item_id IS NOT NULL)),
  CHECK ((kind = 'part') = (taken IS NOT NULL)),
  CHECK ((kind = 'labour') = (rate_id IS NOT NULL)),
  UNIQUE (revision_id, position)
) STRICT;
CREATE INDEX revision_line_by_item ON revision_line (item_id) WHERE item_id IS NOT NULL;

CREATE TABLE revision_line_alternate (
  line_id INTEGER NOT NULL REFERENCES revision_line ON DELETE CASCADE,
  position INTEGER NOT NULL,
  item_id INTEGER NOT NULL REFERENCES item,
  -- how much of the alternate stands in for one of the part
  ratio INTEGER NOT NULL CHECK (ratio > 0),
  PRIMARY KEY (line_id, position)
) STRICT;

-- Builds: each keeps the lines of the revision it took ---------------------------------------------------------------

CREATE TABLE build (
  id INTEGER PRIMARY KEY,
  number TEXT NOT NULL UNIQUE,
  item_id INTEGER NOT NULL REFERENCES item,
  revision_id INTEGER NOT NULL REFERENCES revision,
  output_quantity INTEGER NOT NULL CHECK (output_quantity > 0),
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  finished INTEGER NOT NULL DEFAULT 0 CHECK (finished >= 0 AND finished <= quantity),
  rejected INTEGER NOT NULL DEFAULT 0 CHECK (rejected >= 0),
  state TEXT NOT NULL CHECK (state IN ('planned', 'on-bench', 'finished', 'cancelled')),
  due TEXT,
  output_bin_id INTEGER NOT NULL REFERENCES bin,
  remark TEXT NOT NULL DEFAULT '',
  split_from_id INTEGER REFERENCES build,
  override_reason TEXT,
  planned_at TEXT NOT NULL,
  planned_by INTEGER NOT NULL REFERENCES person,
  started_at TEXT,
  ended_at TEXT,
  version INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX build_by_state ON build (state, due, id);
CREATE INDEX build_by_item ON build (item_id);

CREATE TABLE build_line (
  id INTEGER PRIMARY KEY,
  build_id INTEGER NOT NULL REFERENCES build,
  position INTEGER NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('part', 'labour', 'charge', 'note')),
  text TEXT NOT NULL DEFAULT '',
  item_id INTEGER REFERENCES item,
  basis TEXT NOT NULL CHECK (basis IN ('per-output', 'per-run')),
  amount INTEGER NOT NULL CHECK (amount >= 0),
  waste INTEGER NOT NULL DEFAULT 0,
  taken TEXT CHECK (taken IN ('picked-first', 'when-finished')),
  rate_per_hour INTEGER,
  share INTEGER,
  comes_back INTEGER NOT NULL DEFAULT 0 CHECK (comes_back IN (0, 1)),
  -- kept with every posting: standing on the bench, used so far, still to come from the shelves
  on_bench INTEGER NOT NULL DEFAULT 0,
  used INTEGER NOT NULL DEFAULT 0,
  open INTEGER NOT NULL DEFAULT 0 CHECK (open >= 0),
  UNIQUE (build_id, position)
) STRICT;
CREATE INDEX build_line_open ON build_line (item_id, open) WHERE open > 0;

-- The ledger ---------------------------------------------------------------------------------------------------------

CREATE TABLE document (
  id INTEGER PRIMARY KEY,
  number TEXT NOT NULL UNIQUE,
  kind TEXT NOT NULL CHECK (kind IN ('opening', 'receipt', 'pick', 'put-back', 'finish', 'take-apart', 'undo')),
  at TEXT NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person,
  remark TEXT NOT NULL DEFAULT '',
  build_id INTEGER REFERENCES build,
  reverses_id INTEGER UNIQUE REFERENCES document,
  override_reason TEXT
) STRICT;
CREATE INDEX document_by_kind ON document (kind, id);
CREATE INDEX document_by_build ON document (build_id) WHERE build_id IS NOT NULL;

CREATE TABLE movement (
  id INTEGER PRIMARY KEY,
  document_id INTEGER NOT NULL REFERENCES document,
  item_id INTEGER NOT NULL REFERENCES item,
  bin_id INTEGER NOT NULL REFERENCES bin,
  lot_id INTEGER,
  serial_id INTEGER,
  build_id INTEGER REFERENCES build,
  build_line_id INTEGER REFERENCES build_line,
  quantity INTEGER NOT NULL,
  value INTEGER NOT NULL,
  FOREIGN KEY (lot_id, item_id) REFERENCES lot (id, item_id),
  FOREIGN KEY (serial_id, item_id) REFERENCES serial (id, item_id)
) STRICT;
CREATE INDEX movement_by_item ON movement (item_id, id);
CREATE INDEX movement_by_document ON movement (document_id);
CREATE INDEX movement_by_build_line ON movement (build_line_id) WHERE build_line_id IS NOT NULL;

-- Value that enters or leaves stock other than with goods; per document it sums to what its movements sum to.
CREATE TABLE document_value (
  id INTEGER PRIMARY KEY,
  document_id INTEGER NOT NULL REFERENCES document,
  kind TEXT NOT NULL CHECK (kind IN ('supplier', 'opening', 'labour', 'charge', 'written-off', 'cost-difference')),
  amount INTEGER NOT NULL,
  item_id INTEGER REFERENCES item,
  build_line_id INTEGER REFERENCES build_line
) STRICT;
CREATE INDEX document_value_by_document ON document_value (document_id);

CREATE TABLE finish (
  document_id INTEGER PRIMARY KEY REFERENCES document,
  build_id INTEGER NOT NULL REFERENCES build,
  good INTEGER NOT NULL CHECK (good > 0),
  rejected INTEGER NOT NULL DEFAULT 0 CHECK (rejected >= 0)
) STRICT;

CREATE TABLE finish_line (
  document_id INTEGER NOT NULL REFERENCES finish,
  build_line_id INTEGER NOT NULL REFERENCES build_line,
  planned INTEGER NOT NULL,
  actual INTEGER NOT NULL,
  planned_cost INTEGER NOT NULL,
  cost INTEGER NOT NULL,
  PRIMARY KEY (document_id, build_line_id)
) STRICT;

CREATE TABLE take_apart (
  document_id INTEGER PRIMARY KEY REFERENCES document,
  item_id INTEGER NOT NULL REFERENCES item,
  revision_id INTEGER NOT NULL REFERENCES revision,
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  leftover TEXT NOT NULL CHECK (leftover IN ('written-off', 'spread'))
) STRICT;

CREATE TABLE take_apart_line (
  document_id INTEGER NOT NULL REFERENCES take_apart,
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
  PRIMARY KEY (document_id, position)
) STRICT;

-- Overrides, until they are put right.
CREATE TABLE put_right (
  id INTEGER PRIMARY KEY,
  document_id INTEGER REFERENCES document,
  build_id INTEGER REFERENCES build,
  item_id INTEGER REFERENCES item,
  bin_id INTEGER REFERENCES bin,
  quantity INTEGER,
  reason TEXT NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person,
  at TEXT NOT NULL,
  settled_at TEXT
) STRICT;
CREATE INDEX put_right_open ON put_right (item_id, bin_id) WHERE settled_at IS NULL;

-- Kept in the same transaction as the ledger, and rebuilt from it by `npm run verify`.
CREATE TABLE balance (
  item_id INTEGER NOT NULL REFERENCES item,
  bin_id INTEGER NOT NULL REFERENCES bin,
  lot_id INTEGER,
  serial_id INTEGER,
  build_id INTEGER REFERENCES build,
  quantity INTEGER NOT NULL
) STRICT;
CREATE UNIQUE INDEX balance_place ON balance (item_id, bin_id, ifnull(lot_id, 0), ifnull(serial_id, 0), ifnull(build_id, 0));
CREATE INDEX balance_by_build ON balance (build_id) WHERE build_id IS NOT NULL;

CREATE TABLE item_stock (
  item_id INTEGER PRIMARY KEY REFERENCES item,
  quantity INTEGER NOT NULL,
  value INTEGER NOT NULL,
  last_cost INTEGER NOT NULL
) STRICT;

CREATE TRIGGER movement_is_final_update BEFORE UPDATE ON movement BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;
CREATE TRIGGER movement_is_final_delete BEFORE DELETE ON movement BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;
CREATE TRIGGER document_is_final_update BEFORE UPDATE ON document BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;
CREATE TRIGGER document_is_final_delete BEFORE DELETE ON document BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;
CREATE TRIGGER document_value_is_final_update BEFORE UPDATE ON document_value BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;
CREATE TRIGGER document_value_is_final_delete BEFORE DELETE ON document_value BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;
CREATE TRIGGER revision_in_use_is_frozen BEFORE UPDATE ON revision_line
  WHEN (SELECT state FROM revision WHERE id = OLD.revision_id) <> 'draft'
  BEGIN SELECT raise(ABORT, 'a revision in use is frozen'); END;
CREATE TRIGGER revision_in_use_keeps_lines BEFORE DELETE ON revision_line
  WHEN (SELECT state FROM revision WHERE id = OLD.revision_id) <> 'draft'
  BEGIN SELECT raise(ABORT, 'a revision in use is frozen'); END;

-- Commands, audit and events ------------------------------------------------------------------------------------------

CREATE TABLE series (name TEXT PRIMARY KEY, next INTEGER NOT NULL) STRICT;

CREATE TABLE command (
  key TEXT PRIMARY KEY,
  route TEXT NOT NULL,
  person_id INTEGER,
  request_hash TEXT NOT NULL,
  response TEXT NOT NULL,
  at TEXT NOT NULL
) STRICT;

CREATE TABLE audit (
  id INTEGER PRIMARY KEY,
  at TEXT NOT NULL,
  person_id INTEGER REFERENCES person,
  action TEXT NOT NULL,
  params TEXT NOT NULL,
  body TEXT NOT NULL,
  request_id TEXT NOT NULL
) STRICT;

CREATE TABLE event (
  id INTEGER PRIMARY KEY,
  at TEXT NOT NULL,
  topics TEXT NOT NULL CHECK (json_valid(topics))
) STRICT;

INSERT INTO unit (code, name, decimals) VALUES
  ('each', 'each', 0), ('kg', 'kilogram', 3), ('L', 'litre', 3), ('m', 'metre', 3), ('h', 'hour', 2);
