-- The school, its years, its people.
CREATE TABLE school (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  name TEXT NOT NULL,
  zone TEXT NOT NULL,
  class_name_pattern TEXT NOT NULL,
  upload_limit_bytes INTEGER NOT NULL,
  is_demo INTEGER NOT NULL DEFAULT 0
);

CREATE TABLE school_year (
  id INTEGER PRIMARY KEY,
  label TEXT NOT NULL UNIQUE,
  school_weekdays TEXT NOT NULL,
  first_weekday INTEGER NOT NULL,
  numbering TEXT NOT NULL
);

CREATE TABLE term (
  id INTEGER PRIMARY KEY,
  year_id INTEGER NOT NULL REFERENCES school_year(id),
  name TEXT NOT NULL,
  first_day TEXT NOT NULL,
  last_day TEXT NOT NULL,
  UNIQUE (year_id, name)
);

CREATE TABLE day_off (
  id INTEGER PRIMARY KEY,
  year_id INTEGER NOT NULL REFERENCES school_year(id),
  name TEXT NOT NULL,
  first_day TEXT NOT NULL,
  last_day TEXT NOT NULL
);

CREATE TABLE person (
  id INTEGER PRIMARY KEY,
  role TEXT NOT NULL,
  given TEXT NOT NULL,
  family TEXT NOT NULL,
  given_key TEXT NOT NULL,
  family_key TEXT NOT NULL,
  grade TEXT,
  student_number TEXT UNIQUE,
  email TEXT,
  user_name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  active INTEGER NOT NULL DEFAULT 1
);
CREATE INDEX person_family ON person(family_key);
CREATE INDEX person_given ON person(given_key);

CREATE TABLE sign_in (
  person_id INTEGER PRIMARY KEY REFERENCES person(id),
  password_hash TEXT NOT NULL,
  must_change INTEGER NOT NULL,
  wrong_in_row INTEGER NOT NULL DEFAULT 0,
  shut_until TEXT,
  stamp TEXT NOT NULL
);

CREATE TABLE course (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  mark TEXT NOT NULL,
  department TEXT
);

-- Who did what to which thing, when. Never updated, never deleted.
CREATE TABLE audit (
  id INTEGER PRIMARY KEY,
  at TEXT NOT NULL,
  person_id INTEGER REFERENCES person(id),
  act TEXT NOT NULL,
  thing TEXT NOT NULL,
  thing_id INTEGER,
  class_id INTEGER,
  detail TEXT NOT NULL
);
CREATE INDEX audit_class ON audit(class_id, id);

-- Answers already given, so that a second click is done once.
CREATE TABLE once (
  person_id INTEGER NOT NULL,
  key TEXT NOT NULL,
  at TEXT NOT NULL,
  status INTEGER NOT NULL,
  body TEXT NOT NULL,
  PRIMARY KEY (person_id, key)
) WITHOUT ROWID;
