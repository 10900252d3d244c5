-- Whatever else the owner keeps beside a bill of materials: whose it is, its serial number, until when it is under warranty.
CREATE TABLE definition_field (
  definition_id INTEGER NOT NULL REFERENCES definition ON DELETE CASCADE,
  name TEXT NOT NULL COLLATE NOCASE,
  value TEXT NOT NULL,
  PRIMARY KEY (definition_id, name)
) STRICT;
