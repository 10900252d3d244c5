-- What a finish rejects, why, and what of its cost is written off.

CREATE TABLE reason_2 (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  used_for TEXT NOT NULL DEFAULT 'adjustment' CHECK (used_for IN ('adjustment', 'hold', 'reject'))
) STRICT;
INSERT INTO reason_2 (id, name, used_for) SELECT id, name, used_for FROM reason;
DROP TABLE reason;
ALTER TABLE reason_2 RENAME TO reason;
INSERT INTO reason (name, used_for)
  SELECT column1, 'reject' FROM (VALUES ('Broken on the bench'), ('Faulty part'), ('Wrong measure'))
  WHERE NOT EXISTS (SELECT 1 FROM reason WHERE name = column1);

CREATE TABLE finish_2 (
  document_id INTEGER PRIMARY KEY REFERENCES document,
  build_id INTEGER NOT NULL REFERENCES build,
  good INTEGER NOT NULL CHECK (good >= 0),
  rejected INTEGER NOT NULL DEFAULT 0 CHECK (rejected >= 0),
  reject_reason_id INTEGER REFERENCES reason,
  -- of what the rejected ones took; the rest of it is carried by the good ones
  written_off INTEGER NOT NULL DEFAULT 0 CHECK (written_off >= 0),
  CHECK (good + rejected > 0)
) STRICT;
INSERT INTO finish_2 (document_id, build_id, good, rejected) SELECT document_id, build_id, good, rejected FROM finish;
DROP TABLE finish;
ALTER TABLE finish_2 RENAME TO finish;

DROP VIEW coming_built;
CREATE VIEW coming_built AS
  SELECT 'build' AS kind, id AS source_id, NULL AS line_id, number, iif(state = 'planned', 'planned', 'on the bench') AS brought_by,
    item_id, quantity - finished - rejected AS quantity, due
  FROM build WHERE state IN ('planned', 'on-bench') AND quantity > finished + rejected;
