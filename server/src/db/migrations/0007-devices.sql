-- Labels that wait for the printer, and those it has printed.
CREATE TABLE label_job (
  id INTEGER PRIMARY KEY,
  at TEXT NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person,
  title TEXT NOT NULL,
  -- as they are printed, each on its own
  labels TEXT NOT NULL CHECK (json_valid(labels)),
  state TEXT NOT NULL CHECK (state IN ('waiting', 'printed', 'cancelled')),
  printed_at TEXT
) STRICT;
CREATE INDEX label_job_by_state ON label_job (state, id);
