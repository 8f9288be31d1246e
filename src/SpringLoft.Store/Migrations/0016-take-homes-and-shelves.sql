-- A student's own work over all classes of a year as one download, made in a run over students.
CREATE TABLE run_student (
  run_id INTEGER NOT NULL REFERENCES run(id),
  person_id INTEGER NOT NULL REFERENCES person(id),
  year_id INTEGER NOT NULL REFERENCES school_year(id),
  position INTEGER NOT NULL,
  state TEXT NOT NULL DEFAULT 'Waiting',
  reason TEXT,
  PRIMARY KEY (run_id, person_id)
) WITHOUT ROWID;

CREATE TABLE take_home (
  person_id INTEGER NOT NULL REFERENCES person(id),
  year_id INTEGER NOT NULL REFERENCES school_year(id),
  name TEXT NOT NULL,
  sha256 TEXT NOT NULL REFERENCES blob(sha256),
  files INTEGER NOT NULL,
  classes INTEGER NOT NULL,
  made_at TEXT NOT NULL,
  keep_until TEXT NOT NULL,
  fetched_at TEXT,
  PRIMARY KEY (person_id, year_id)
) WITHOUT ROWID;

-- A read-only page of chosen things that opens without an account until a set day.
CREATE TABLE shelf (
  id INTEGER PRIMARY KEY,
  class_id INTEGER NOT NULL REFERENCES class(id),
  token TEXT NOT NULL UNIQUE,
  title TEXT NOT NULL,
  text TEXT NOT NULL,
  until_day TEXT NOT NULL,
  made_at TEXT NOT NULL,
  made_by INTEGER NOT NULL REFERENCES person(id),
  shut_at TEXT
);
CREATE INDEX shelf_class ON shelf(class_id);

-- As they were when the shelf was set: what happens to the class later does not change it.
CREATE TABLE shelf_thing (
  shelf_id INTEGER NOT NULL REFERENCES shelf(id),
  position INTEGER NOT NULL,
  place TEXT NOT NULL,
  kind TEXT NOT NULL,
  name TEXT NOT NULL,
  sha256 TEXT REFERENCES blob(sha256),
  url TEXT,
  PRIMARY KEY (shelf_id, position)
) WITHOUT ROWID;

CREATE TABLE shelf_visit (
  shelf_id INTEGER NOT NULL REFERENCES shelf(id),
  day TEXT NOT NULL,
  visits INTEGER NOT NULL,
  PRIMARY KEY (shelf_id, day)
) WITHOUT ROWID;
