-- Kinds of documents and of values stand in tables, so that new ones need no new table for what is posted.
CREATE TABLE document_kind (code TEXT PRIMARY KEY) STRICT;
INSERT INTO document_kind VALUES ('opening'), ('receipt'), ('pick'), ('put-back'), ('finish'), ('take-apart'), ('undo'),
  ('transfer'), ('adjustment');
CREATE TABLE value_kind (code TEXT PRIMARY KEY) STRICT;
INSERT INTO value_kind VALUES ('supplier'), ('opening'), ('labour'), ('charge'), ('written-off'), ('cost-difference'),
  ('adjusted');

-- Why stock was adjusted, in the owner's words.
CREATE TABLE reason (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE
) STRICT;
INSERT INTO reason (name) VALUES ('Found'), ('Lost'), ('Damaged'), ('Own use');

CREATE TABLE document_2 (
  id INTEGER PRIMARY KEY,
  number TEXT NOT NULL UNIQUE,
  kind TEXT NOT NULL REFERENCES document_kind,
  at TEXT NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person,
  remark TEXT NOT NULL DEFAULT '',
  build_id INTEGER REFERENCES build,
  reverses_id INTEGER UNIQUE REFERENCES document,
  override_reason TEXT,
  reason_id INTEGER REFERENCES reason
) STRICT;
INSERT INTO document_2 (id, number, kind, at, person_id, remark, build_id, reverses_id, override_reason)
  SELECT id, number, kind, at, person_id, remark, build_id, reverses_id, override_reason FROM document;
DROP TABLE document;
ALTER TABLE document_2 RENAME TO document;
CREATE INDEX document_by_kind ON document (kind, id);
CREATE INDEX document_by_build ON document (build_id) WHERE build_id IS NOT NULL;
CREATE INDEX document_by_time ON document (at);
CREATE TRIGGER document_is_final_update BEFORE UPDATE ON document BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;
CREATE TRIGGER document_is_final_delete BEFORE DELETE ON document BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;

CREATE TABLE document_value_2 (
  id INTEGER PRIMARY KEY,
  document_id INTEGER NOT NULL REFERENCES document,
  kind TEXT NOT NULL REFERENCES value_kind,
  amount INTEGER NOT NULL,
  item_id INTEGER REFERENCES item,
  build_line_id INTEGER REFERENCES build_line
) STRICT;
INSERT INTO document_value_2 SELECT id, document_id, kind, amount, item_id, build_line_id FROM document_value;
DROP TABLE document_value;
ALTER TABLE document_value_2 RENAME TO document_value;
CREATE INDEX document_value_by_document ON document_value (document_id);
CREATE TRIGGER document_value_is_final_update BEFORE UPDATE ON document_value BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;
CREATE TRIGGER document_value_is_final_delete BEFORE DELETE ON document_value BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;
