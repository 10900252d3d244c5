-- What is to be done on a build: one task for each line of labour or charge, of the same number, and more that are added on the bench.

-- Who added a line on the bench, and why; null for what the definition says.
ALTER TABLE build_line ADD COLUMN added_by INTEGER REFERENCES person;
ALTER TABLE build_line ADD COLUMN added_because TEXT;
-- whether a build is finished only once its tasks are done
ALTER TABLE definition ADD COLUMN tasks_first INTEGER NOT NULL DEFAULT 0 CHECK (tasks_first IN (0, 1));

CREATE TABLE task (
  id INTEGER NOT NULL PRIMARY KEY REFERENCES build_line ON DELETE CASCADE,
  person_id INTEGER REFERENCES person,
  -- a day of its own; null for its build's
  due TEXT,
  state TEXT NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'doing', 'done', 'skipped')),
  skipped_because TEXT,
  -- of a charge, as agreed or invoiced; null for as planned
  price INTEGER CHECK (price >= 0),
  -- who does it elsewhere, and when it comes back
  supplier_id INTEGER REFERENCES supplier,
  expected_on TEXT,
  done_at TEXT,
  done_by INTEGER REFERENCES person,
  version INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX task_by_state ON task (state, due);
CREATE INDEX task_by_person ON task (person_id, state);

-- Minutes somebody worked on a task.
CREATE TABLE task_time (
  id INTEGER PRIMARY KEY,
  task_id INTEGER NOT NULL REFERENCES task ON DELETE CASCADE,
  person_id INTEGER NOT NULL REFERENCES person,
  day TEXT NOT NULL,
  minutes INTEGER NOT NULL CHECK (minutes > 0),
  clocked INTEGER NOT NULL CHECK (clocked IN (0, 1)),
  made_at TEXT NOT NULL
) STRICT;
CREATE INDEX task_time_by_task ON task_time (task_id);
CREATE INDEX task_time_by_day ON task_time (person_id, day);

-- A clock that runs: one for a person.
CREATE TABLE clock (
  person_id INTEGER NOT NULL PRIMARY KEY REFERENCES person,
  task_id INTEGER NOT NULL REFERENCES task ON DELETE CASCADE,
  started_at TEXT NOT NULL
) STRICT;

INSERT INTO task (id)
  SELECT l.id FROM build_line l JOIN build b ON b.id = l.build_id
  WHERE l.kind IN ('labour', 'charge') AND b.state IN ('planned', 'on-bench');
