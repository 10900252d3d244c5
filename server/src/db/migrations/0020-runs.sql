-- Pick runs: one way for several builds and orders, shared by several people.
CREATE TABLE pick_run (
  id INTEGER PRIMARY KEY,
  number TEXT NOT NULL UNIQUE,
  -- null for all stores
  store_id INTEGER REFERENCES store,
  -- whether the bench or parcel is scanned to confirm each pick
  confirms INTEGER NOT NULL DEFAULT 0 CHECK (confirms IN (0, 1)),
  made_at TEXT NOT NULL,
  made_by INTEGER NOT NULL REFERENCES person,
  ended_at TEXT,
  version INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX pick_run_open ON pick_run (id) WHERE ended_at IS NULL;
-- Whom it serves, in the order of their places on the cart.
CREATE TABLE pick_run_goal (
  run_id INTEGER NOT NULL REFERENCES pick_run,
  position INTEGER NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('build', 'order')),
  source_id INTEGER NOT NULL,
  PRIMARY KEY (run_id, position),
  UNIQUE (run_id, kind, source_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX pick_run_goal_by_source ON pick_run_goal (kind, source_id);
-- Who is at which stop: one at a time each, and nobody where somebody is.
CREATE TABLE pick_run_claim (
  run_id INTEGER NOT NULL REFERENCES pick_run,
  person_id INTEGER NOT NULL REFERENCES person,
  stop TEXT NOT NULL,
  at TEXT NOT NULL,
  PRIMARY KEY (run_id, person_id)
) STRICT, WITHOUT ROWID;
-- What was picked on it; what was taken at one stop at once is one act.
CREATE TABLE pick_run_pick (
  document_id INTEGER PRIMARY KEY REFERENCES document,
  run_id INTEGER NOT NULL REFERENCES pick_run,
  -- the first document of the act
  act INTEGER NOT NULL REFERENCES document,
  -- stops of the act, said once with its first document, and lines that this document brought something for
  stops INTEGER NOT NULL CHECK (stops >= 0),
  lines INTEGER NOT NULL CHECK (lines > 0),
  -- when whoever did it set out for the stop; null where it was typed in afterwards
  begun_at TEXT
) STRICT;
CREATE INDEX pick_run_pick_by_run ON pick_run_pick (run_id, document_id);

-- Bins where somebody found less than the books say: they are to be counted, and until then no run leads there for it.
CREATE TABLE count_wish (
  id INTEGER PRIMARY KEY,
  item_id INTEGER NOT NULL REFERENCES item,
  bin_id INTEGER NOT NULL REFERENCES bin,
  lot_id INTEGER,
  booked INTEGER NOT NULL,
  noted_at TEXT NOT NULL,
  noted_by INTEGER NOT NULL REFERENCES person,
  run_id INTEGER REFERENCES pick_run,
  -- when it was counted, or somebody found that all is right
  settled_at TEXT,
  FOREIGN KEY (lot_id, item_id) REFERENCES lot (id, item_id)
) STRICT;
CREATE UNIQUE INDEX count_wish_open ON count_wish (item_id, bin_id, ifnull(lot_id, 0)) WHERE settled_at IS NULL;

-- whether more may be brought to the bench than is asked for; what is left over goes back
ALTER TABLE build ADD COLUMN spare INTEGER NOT NULL DEFAULT 0 CHECK (spare IN (0, 1));
-- of a line that stands in for another: which, and for how much of it
ALTER TABLE build_line ADD COLUMN instead_of INTEGER REFERENCES build_line;
ALTER TABLE build_line ADD COLUMN stands_for INTEGER NOT NULL DEFAULT 0 CHECK (stands_for >= 0);
CREATE INDEX build_line_instead ON build_line (instead_of) WHERE instead_of IS NOT NULL;
-- names of what is written down of each lot of it, a JSON array
ALTER TABLE item ADD COLUMN lot_fields TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(lot_fields));
