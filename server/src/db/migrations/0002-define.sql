-- Items: units that people type in, packs, suppliers, pictures -------------------------------------------------------

ALTER TABLE unit ADD COLUMN version INTEGER NOT NULL DEFAULT 0;

-- What may be typed instead of a stock unit: one of it is `one` of the unit.
CREATE TABLE unit_related (
  unit_id INTEGER NOT NULL REFERENCES unit,
  name TEXT NOT NULL COLLATE NOCASE,
  one INTEGER NOT NULL CHECK (one > 0),
  PRIMARY KEY (unit_id, name)
) STRICT;
INSERT INTO unit_related (unit_id, name, one)
  SELECT u.id, v.column2, v.column3 FROM unit u
  JOIN (VALUES ('kg', 'g', 1000), ('L', 'ml', 1000), ('L', 'cl', 10000), ('m', 'mm', 1000), ('m', 'cm', 10000)) v
  ON v.column1 = u.code;

CREATE TABLE item_pack (
  item_id INTEGER NOT NULL REFERENCES item ON DELETE CASCADE,
  name TEXT NOT NULL COLLATE NOCASE,
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  PRIMARY KEY (item_id, name)
) STRICT;

CREATE TABLE supplier (
  id INTEGER PRIMARY KEY,
  code TEXT NOT NULL UNIQUE COLLATE NOCASE,
  name TEXT NOT NULL,
  version INTEGER NOT NULL DEFAULT 0
) STRICT;

CREATE TABLE item_supplier (
  item_id INTEGER NOT NULL REFERENCES item ON DELETE CASCADE,
  supplier_id INTEGER NOT NULL REFERENCES supplier,
  code TEXT NOT NULL DEFAULT '',
  -- per stock unit
  price INTEGER NOT NULL CHECK (price >= 0),
  pack INTEGER NOT NULL DEFAULT 1000000 CHECK (pack > 0),
  minimum INTEGER NOT NULL DEFAULT 0 CHECK (minimum >= 0),
  lead_days INTEGER CHECK (lead_days BETWEEN 0 AND 999),
  PRIMARY KEY (item_id, supplier_id)
) STRICT;
CREATE INDEX item_supplier_by_supplier ON item_supplier (supplier_id);

-- Pictures stand in the same file as everything else, so that a backup has them.
CREATE TABLE picture (
  item_id INTEGER PRIMARY KEY REFERENCES item ON DELETE CASCADE,
  hash TEXT NOT NULL,
  content BLOB NOT NULL
) STRICT;

CREATE TABLE saved_view (
  id INTEGER PRIMARY KEY,
  person_id INTEGER NOT NULL REFERENCES person,
  list TEXT NOT NULL,
  name TEXT NOT NULL COLLATE NOCASE,
  -- what stands after the question mark of the address
  search TEXT NOT NULL,
  UNIQUE (person_id, list, name)
) STRICT;

-- Custom fields go with their item; the first schema kept them for ever.
CREATE TABLE item_field_2 (
  item_id INTEGER NOT NULL REFERENCES item ON DELETE CASCADE,
  name TEXT NOT NULL COLLATE NOCASE,
  value TEXT NOT NULL,
  PRIMARY KEY (item_id, name)
) STRICT;
INSERT INTO item_field_2 SELECT item_id, name, value FROM item_field;
DROP TABLE item_field;
ALTER TABLE item_field_2 RENAME TO item_field;

-- Definitions --------------------------------------------------------------------------------------------------------

ALTER TABLE definition ADD COLUMN swap_for TEXT NOT NULL DEFAULT 'listed' CHECK (swap_for IN ('listed', 'anything'));
ALTER TABLE definition ADD COLUMN price_from TEXT NOT NULL DEFAULT 'own' CHECK (price_from IN ('own', 'parts'));
ALTER TABLE definition ADD COLUMN discount INTEGER NOT NULL DEFAULT 0 CHECK (discount BETWEEN 0 AND 100000000);
ALTER TABLE definition ADD COLUMN version INTEGER NOT NULL DEFAULT 0;

CREATE INDEX revision_line_alternate_by_item ON revision_line_alternate (item_id);
CREATE INDEX revision_by_definition ON revision (definition_id, state);
CREATE TRIGGER alternates_in_use_are_frozen BEFORE DELETE ON revision_line_alternate
  WHEN (SELECT r.state FROM revision r JOIN revision_line l ON l.revision_id = r.id WHERE l.id = OLD.line_id) <> 'draft'
  BEGIN SELECT raise(ABORT, 'a revision in use is frozen'); END;

ALTER TABLE build_line ADD COLUMN from_bin_id INTEGER REFERENCES bin;
