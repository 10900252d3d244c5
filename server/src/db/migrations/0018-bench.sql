-- Who builds when, goods of customers that are repaired on the same benches, and what is said of a finish.

DROP VIEW demand;
DROP VIEW demand_of_builds;
DROP VIEW demand_alternate;
DROP VIEW built_for;
DROP VIEW coming;
DROP VIEW coming_built;
CREATE TABLE build_2 (
  id INTEGER PRIMARY KEY,
  number TEXT NOT NULL UNIQUE,
  item_id INTEGER NOT NULL REFERENCES item,
  -- null where a customer's goods are repaired: they follow no definition
  revision_id INTEGER REFERENCES revision,
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
  version INTEGER NOT NULL DEFAULT 0,
  -- who builds it, and on which day it is taken up; its tasks follow unless they have their own
  person_id INTEGER REFERENCES person,
  bench_day TEXT,
  job_tag TEXT NOT NULL DEFAULT '',
  repair_id INTEGER UNIQUE REFERENCES repair,
  CHECK ((revision_id IS NULL) = (repair_id IS NOT NULL))
) STRICT;
INSERT INTO build_2 (id, number, item_id, revision_id, output_quantity, quantity, finished, rejected, state, due, output_bin_id, remark,
    split_from_id, override_reason, planned_at, planned_by, started_at, ended_at, version)
  SELECT id, number, item_id, revision_id, output_quantity, quantity, finished, rejected, state, due, output_bin_id, remark,
    split_from_id, override_reason, planned_at, planned_by, started_at, ended_at, version FROM build;
DROP TABLE build;
ALTER TABLE build_2 RENAME TO build;
CREATE INDEX build_by_state ON build (state, due, id);
CREATE INDEX build_by_item ON build (item_id);
CREATE INDEX build_by_job ON build (job_tag) WHERE job_tag <> '';
CREATE TRIGGER build_numbered AFTER INSERT ON build BEGIN
  INSERT INTO numbered VALUES ('build', new.id, new.number, new.item_id);
END;
CREATE TRIGGER build_gone AFTER DELETE ON build BEGIN
  DELETE FROM numbered WHERE kind = 'build' AND id = old.id;
END;
CREATE VIEW demand_of_builds AS
  SELECT 'build' AS kind, b.id AS source_id, l.id AS line_id, l.item_id, l.open AS quantity, b.due AS wanted_on,
    b.state = 'on-bench' AS begun
  FROM build_line l CROSS JOIN build b ON b.id = l.build_id WHERE l.open > 0;
CREATE VIEW demand AS SELECT * FROM demand_of_builds UNION ALL SELECT * FROM demand_of_orders;
CREATE VIEW demand_alternate AS
  SELECT 'build' AS kind, l.id AS line_id, a.position, a.item_id, a.ratio
  FROM build_line l JOIN build b ON b.id = l.build_id
  JOIN revision_line r ON r.revision_id = b.revision_id AND r.position = l.position
  JOIN revision_line_alternate a ON a.line_id = r.id JOIN item i ON i.id = a.item_id
  WHERE l.open > 0 AND i.archived_at IS NULL;
CREATE VIEW built_for AS
  SELECT f.build_id, f.part_id, l.order_id, f.quantity - f.kept AS quantity, ifnull(l.wanted_on, o.wanted_on) AS wanted_on
  FROM build_for f JOIN order_part p ON p.id = f.part_id JOIN order_line l ON l.id = p.line_id
  JOIN sales_order o ON o.id = l.order_id JOIN build b ON b.id = f.build_id
  WHERE f.quantity > f.kept AND b.state IN ('planned', 'on-bench');
-- What is repaired is its owner's and comes to nobody else.
CREATE VIEW coming_built AS
  SELECT 'build' AS kind, id AS source_id, NULL AS line_id, number, iif(state = 'planned', 'planned', 'on the bench') AS brought_by,
    item_id, quantity - finished - rejected AS quantity, due
  FROM build WHERE state IN ('planned', 'on-bench') AND quantity > finished + rejected AND repair_id IS NULL;
CREATE VIEW coming AS SELECT * FROM coming_bought UNION ALL SELECT * FROM coming_built;

-- how far what is used may be from the plan before a finish says why; null for as far as it likes
ALTER TABLE revision_line ADD COLUMN tolerance INTEGER CHECK (tolerance >= 0);
ALTER TABLE build_line ADD COLUMN tolerance INTEGER;
ALTER TABLE finish_line ADD COLUMN because TEXT;
-- the day it was made where that is not the day it was written down, and the condition of what was reworked
ALTER TABLE finish ADD COLUMN made_on TEXT;
ALTER TABLE finish ADD COLUMN condition_before TEXT;
ALTER TABLE finish ADD COLUMN condition_after TEXT;

-- What a rework took out of its unit, and its share of what the unit was worth.
CREATE TABLE finish_out (
  document_id INTEGER NOT NULL REFERENCES finish,
  position INTEGER NOT NULL,
  item_id INTEGER NOT NULL REFERENCES item,
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  went TEXT NOT NULL CHECK (went IN ('stock', 'scrap', 'back-in')),
  share INTEGER NOT NULL CHECK (share BETWEEN 0 AND 100000000),
  value INTEGER NOT NULL CHECK (value >= 0),
  PRIMARY KEY (document_id, position)
) STRICT, WITHOUT ROWID;

-- What a finish made orders be built less for, because it rejected some or closed the build: undone with it.
CREATE TABLE finish_less (
  document_id INTEGER NOT NULL REFERENCES finish,
  part_id INTEGER NOT NULL,
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  PRIMARY KEY (document_id, part_id)
) STRICT, WITHOUT ROWID;
