-- One rule for first passwords; people joined into one, and those who are not the same though they look it.
ALTER TABLE school ADD COLUMN first_password_rule TEXT NOT NULL DEFAULT '{word}-{word}-{word}-{two digits}';
ALTER TABLE person ADD COLUMN joined_into INTEGER REFERENCES person(id);

CREATE TABLE person_join (
  id INTEGER PRIMARY KEY,
  kept INTEGER NOT NULL REFERENCES person(id),
  gone INTEGER NOT NULL REFERENCES person(id),
  at TEXT NOT NULL,
  by INTEGER NOT NULL REFERENCES person(id),
  undo TEXT NOT NULL,
  undone_at TEXT
);

CREATE TABLE person_apart (
  a INTEGER NOT NULL REFERENCES person(id),
  b INTEGER NOT NULL REFERENCES person(id),
  PRIMARY KEY (a, b)
) WITHOUT ROWID;
