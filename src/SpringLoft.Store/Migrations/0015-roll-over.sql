-- Rolling over many classes in one run: a line for each class that is to be made.
CREATE TABLE roll_line (
  run_id INTEGER NOT NULL REFERENCES run(id),
  position INTEGER NOT NULL,
  year_id INTEGER NOT NULL REFERENCES school_year(id),
  from_ids TEXT NOT NULL,
  section TEXT,
  period TEXT,
  lead_id INTEGER REFERENCES person(id),
  choice TEXT NOT NULL,
  state TEXT NOT NULL DEFAULT 'Waiting',
  reason TEXT,
  made_id INTEGER REFERENCES class(id) ON DELETE SET NULL,
  made_name TEXT,
  parity TEXT,
  undone_at TEXT,
  PRIMARY KEY (run_id, position)
) WITHOUT ROWID;
CREATE INDEX roll_line_made ON roll_line(made_id) WHERE made_id IS NOT NULL;

-- Files that their owner has no right to copy are left behind when a class is rolled over.
ALTER TABLE item ADD COLUMN may_copy INTEGER NOT NULL DEFAULT 1;
