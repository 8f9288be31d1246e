-- Folder plans, classes and what is in them.
CREATE TABLE plan (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  about TEXT NOT NULL,
  version INTEGER NOT NULL,
  made_at TEXT NOT NULL
);

CREATE TABLE plan_version (
  plan_id INTEGER NOT NULL REFERENCES plan(id),
  version INTEGER NOT NULL,
  outline TEXT NOT NULL,
  PRIMARY KEY (plan_id, version)
);

CREATE TABLE class (
  id INTEGER PRIMARY KEY,
  year_id INTEGER NOT NULL REFERENCES school_year(id),
  course_id INTEGER NOT NULL REFERENCES course(id),
  section TEXT,
  period TEXT,
  term_id INTEGER REFERENCES term(id),
  name TEXT NOT NULL,
  name_key TEXT NOT NULL UNIQUE,
  state TEXT NOT NULL,
  teacher_shown TEXT NOT NULL,
  plan_id INTEGER REFERENCES plan(id),
  plan_version INTEGER,
  after_archive TEXT NOT NULL DEFAULT 'View',
  rolled_from INTEGER REFERENCES class(id),
  made_at TEXT NOT NULL,
  opened_at TEXT,
  archived_at TEXT,
  version INTEGER NOT NULL DEFAULT 1
);
CREATE INDEX class_year ON class(year_id);
CREATE INDEX class_rolled_from ON class(rolled_from) WHERE rolled_from IS NOT NULL;

CREATE TABLE member (
  class_id INTEGER NOT NULL REFERENCES class(id),
  person_id INTEGER NOT NULL REFERENCES person(id),
  role TEXT NOT NULL,
  may_post INTEGER NOT NULL DEFAULT 1,
  joined_at TEXT NOT NULL,
  left_at TEXT,
  PRIMARY KEY (class_id, person_id)
) WITHOUT ROWID;
CREATE INDEX member_person ON member(person_id);

CREATE TABLE folder (
  id INTEGER PRIMARY KEY,
  class_id INTEGER NOT NULL REFERENCES class(id),
  parent_id INTEGER REFERENCES folder(id),
  name TEXT NOT NULL,
  name_key TEXT NOT NULL,
  position INTEGER NOT NULL,
  rule TEXT NOT NULL,
  student_id INTEGER REFERENCES person(id),
  plan_key TEXT,
  binned_at TEXT
);
CREATE INDEX folder_class ON folder(class_id, plan_key, binned_at, student_id);
CREATE UNIQUE INDEX folder_key ON folder(class_id, plan_key) WHERE plan_key IS NOT NULL;
CREATE UNIQUE INDEX folder_sibling ON folder(class_id, ifnull(parent_id, 0), name_key) WHERE binned_at IS NULL;

-- Files are kept once by their SHA-256; whatever refers to one of these rows shares its bytes.
CREATE TABLE blob (
  sha256 TEXT PRIMARY KEY,
  sha512 TEXT NOT NULL,
  size INTEGER NOT NULL,
  added_at TEXT NOT NULL
) WITHOUT ROWID;

CREATE TABLE item (
  id INTEGER PRIMARY KEY,
  class_id INTEGER NOT NULL REFERENCES class(id),
  kind TEXT NOT NULL,
  name TEXT NOT NULL,
  sha256 TEXT REFERENCES blob(sha256),
  url TEXT,
  added_by INTEGER NOT NULL REFERENCES person(id),
  by_student INTEGER NOT NULL,
  added_at TEXT NOT NULL,
  binned_at TEXT
);
CREATE INDEX item_class ON item(class_id, binned_at);

CREATE TABLE filing (
  item_id INTEGER NOT NULL REFERENCES item(id),
  folder_id INTEGER NOT NULL REFERENCES folder(id),
  PRIMARY KEY (item_id, folder_id)
) WITHOUT ROWID;
CREATE INDEX filing_folder ON filing(folder_id);

CREATE TABLE notice (
  id INTEGER PRIMARY KEY,
  class_id INTEGER NOT NULL REFERENCES class(id),
  author_id INTEGER NOT NULL REFERENCES person(id),
  text TEXT NOT NULL,
  posted_at TEXT NOT NULL
);
CREATE INDEX notice_class ON notice(class_id);
