-- Who goes before all others, and who waits until they have theirs. Nothing set any until now.
DROP TABLE priority;
CREATE TABLE priority (
  kind TEXT NOT NULL CHECK (kind IN ('build', 'order')),
  source_id INTEGER NOT NULL,
  -- below zero before everybody else, above zero after them
  rank INTEGER NOT NULL CHECK (rank IN (-1, 1)),
  -- why, as it was said when it was set
  reason TEXT NOT NULL CHECK (reason <> ''),
  set_at TEXT NOT NULL,
  set_by INTEGER NOT NULL REFERENCES person,
  PRIMARY KEY (kind, source_id)
) STRICT, WITHOUT ROWID;

-- From so much on, a supplier asks less for one.
CREATE TABLE item_supplier_break (
  item_id INTEGER NOT NULL,
  supplier_id INTEGER NOT NULL,
  from_quantity INTEGER NOT NULL CHECK (from_quantity > 0),
  price INTEGER NOT NULL CHECK (price >= 0),
  PRIMARY KEY (item_id, supplier_id, from_quantity),
  FOREIGN KEY (item_id, supplier_id) REFERENCES item_supplier ON DELETE CASCADE
) STRICT, WITHOUT ROWID;
