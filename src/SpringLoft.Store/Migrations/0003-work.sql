-- Assignments and the work of students.
CREATE TABLE assignment (
  id INTEGER PRIMARY KEY,
  class_id INTEGER NOT NULL REFERENCES class(id),
  title TEXT NOT NULL,
  title_key TEXT NOT NULL,
  instructions TEXT NOT NULL,
  points REAL,
  due_on TEXT,
  published_at TEXT,
  made_at TEXT NOT NULL,
  binned_at TEXT,
  rolled_from INTEGER REFERENCES assignment(id),
  version INTEGER NOT NULL DEFAULT 1
);
CREATE UNIQUE INDEX assignment_title ON assignment(class_id, title_key) WHERE binned_at IS NULL;
CREATE INDEX assignment_class ON assignment(class_id, binned_at, published_at);

CREATE TABLE assignment_filing (
  assignment_id INTEGER NOT NULL REFERENCES assignment(id),
  folder_id INTEGER NOT NULL REFERENCES folder(id),
  PRIMARY KEY (assignment_id, folder_id)
) WITHOUT ROWID;

-- Whom an assignment is given to; no row means the whole class.
CREATE TABLE assignment_given (
  assignment_id INTEGER NOT NULL REFERENCES assignment(id),
  person_id INTEGER NOT NULL REFERENCES person(id),
  PRIMARY KEY (assignment_id, person_id)
) WITHOUT ROWID;

CREATE TABLE work (
  id INTEGER PRIMARY KEY,
  assignment_id INTEGER NOT NULL REFERENCES assignment(id),
  class_id INTEGER NOT NULL REFERENCES class(id),
  student_id INTEGER NOT NULL REFERENCES person(id),
  state TEXT NOT NULL,
  score REAL,
  handed_in_at TEXT,
  returned_at TEXT,
  version INTEGER NOT NULL DEFAULT 1,
  UNIQUE (assignment_id, student_id)
);
CREATE INDEX work_class ON work(class_id, state, score, handed_in_at);
CREATE INDEX work_student ON work(student_id);

CREATE TABLE work_file (
  id INTEGER PRIMARY KEY,
  work_id INTEGER NOT NULL REFERENCES work(id),
  name TEXT NOT NULL,
  sha256 TEXT NOT NULL REFERENCES blob(sha256),
  added_by INTEGER NOT NULL REFERENCES person(id),
  added_at TEXT NOT NULL
);
CREATE INDEX work_file_work ON work_file(work_id);

CREATE TABLE work_comment (
  id INTEGER PRIMARY KEY,
  work_id INTEGER NOT NULL REFERENCES work(id),
  author_id INTEGER NOT NULL REFERENCES person(id),
  text TEXT NOT NULL,
  at TEXT NOT NULL
);
CREATE INDEX work_comment_work ON work_comment(work_id);
