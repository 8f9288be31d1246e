-- Long work, a step at a time, and the packages that come of it.
CREATE TABLE run (
  id INTEGER PRIMARY KEY,
  kind TEXT NOT NULL,
  state TEXT NOT NULL,
  after_archive TEXT NOT NULL,
  started_by INTEGER NOT NULL REFERENCES person(id),
  started_at TEXT NOT NULL,
  ended_at TEXT
);

CREATE TABLE run_class (
  run_id INTEGER NOT NULL REFERENCES run(id),
  class_id INTEGER NOT NULL REFERENCES class(id),
  position INTEGER NOT NULL,
  state TEXT NOT NULL,
  reason TEXT,
  PRIMARY KEY (run_id, class_id)
) WITHOUT ROWID;
CREATE INDEX run_class_class ON run_class(class_id, state);

CREATE TABLE run_step (
  run_id INTEGER NOT NULL REFERENCES run(id),
  class_id INTEGER NOT NULL,
  step TEXT NOT NULL,
  state TEXT NOT NULL,
  done INTEGER NOT NULL DEFAULT 0,
  total INTEGER NOT NULL DEFAULT 0,
  detail TEXT,
  PRIMARY KEY (run_id, class_id, step)
) WITHOUT ROWID;

CREATE TABLE package (
  id INTEGER PRIMARY KEY,
  run_id INTEGER NOT NULL REFERENCES run(id),
  class_id INTEGER NOT NULL REFERENCES class(id),
  kind TEXT NOT NULL,
  student_id INTEGER REFERENCES person(id),
  name TEXT NOT NULL,
  sha256 TEXT NOT NULL REFERENCES blob(sha256),
  files INTEGER NOT NULL,
  made_at TEXT NOT NULL,
  verified_at TEXT
);
CREATE UNIQUE INDEX package_one ON package(run_id, class_id, kind, ifnull(student_id, 0));
CREATE INDEX package_class ON package(class_id);
