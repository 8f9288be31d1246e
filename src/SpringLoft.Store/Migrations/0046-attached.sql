-- What is attached to an assignment. What names a thing of the class shows it as it is now, and nothing while that is in the bin.
CREATE TABLE assignment_thing (
  id INTEGER PRIMARY KEY,
  assignment_id INTEGER NOT NULL REFERENCES assignment(id),
  position INTEGER NOT NULL,
  kind TEXT NOT NULL,
  name TEXT NOT NULL,
  sha256 TEXT REFERENCES blob(sha256),
  url TEXT,
  item_id INTEGER REFERENCES item(id)
);
CREATE INDEX assignment_thing_assignment ON assignment_thing(assignment_id);
CREATE INDEX assignment_thing_sha256 ON assignment_thing(sha256) WHERE sha256 IS NOT NULL;
CREATE INDEX assignment_thing_item ON assignment_thing(item_id) WHERE item_id IS NOT NULL;

-- A file that has come for an assignment which is still being written; it waits some days. Its number is never given again: who wrote it down means this file.
CREATE TABLE assignment_upload (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  class_id INTEGER NOT NULL REFERENCES class(id),
  by_id INTEGER NOT NULL REFERENCES person(id),
  name TEXT NOT NULL,
  sha256 TEXT NOT NULL REFERENCES blob(sha256),
  at TEXT NOT NULL
);
CREATE INDEX assignment_upload_class ON assignment_upload(class_id);
CREATE INDEX assignment_upload_by ON assignment_upload(by_id);
CREATE INDEX assignment_upload_sha256 ON assignment_upload(sha256);
