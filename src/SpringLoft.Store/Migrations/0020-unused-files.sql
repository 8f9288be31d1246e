-- Files of the store that nothing refers to any more, and since when that is known: they are taken off the disk only after a while.
CREATE TABLE file_unused (
  sha256 TEXT PRIMARY KEY,
  since TEXT NOT NULL
) WITHOUT ROWID;

-- Whether anything refers to a file is asked of each of these.
CREATE INDEX work_file_sha256 ON work_file(sha256);
CREATE INDEX package_sha256 ON package(sha256);
CREATE INDEX take_home_sha256 ON take_home(sha256);
CREATE INDEX shelf_thing_sha256 ON shelf_thing(sha256) WHERE sha256 IS NOT NULL;
