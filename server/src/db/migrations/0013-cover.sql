-- When things are whole, who goes first, and questions that are kept.

-- bench minutes of a working day
ALTER TABLE company ADD COLUMN bench_minutes INTEGER NOT NULL DEFAULT 480 CHECK (bench_minutes BETWEEN 1 AND 100000);
-- the fewest working days a build of it takes, whatever its labour; null for what the labour takes
ALTER TABLE definition ADD COLUMN bench_days INTEGER CHECK (bench_days BETWEEN 1 AND 400);

-- Whom the owner serves before others: the smaller the sooner.
CREATE TABLE priority (
  kind TEXT NOT NULL CHECK (kind IN ('build', 'order')),
  source_id INTEGER NOT NULL,
  rank INTEGER NOT NULL CHECK (rank > 0),
  -- why, as it was said when it was set
  reason TEXT NOT NULL,
  set_at TEXT NOT NULL,
  set_by INTEGER NOT NULL REFERENCES person,
  PRIMARY KEY (kind, source_id)
) STRICT, WITHOUT ROWID;

-- A question of Cover under a name, for everybody.
CREATE TABLE cover_question (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL COLLATE NOCASE UNIQUE CHECK (name <> ''),
  -- what stands after the question mark of its address
  address TEXT NOT NULL,
  made_at TEXT NOT NULL,
  made_by INTEGER NOT NULL REFERENCES person
) STRICT;
