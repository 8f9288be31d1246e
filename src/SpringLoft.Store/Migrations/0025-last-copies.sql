-- Who has what, and the last copy: versions of what was handed in and of pages, who binned what, what is in a take-home by its content,
-- and since when somebody is known to have left.
CREATE TABLE work_turn (
  id INTEGER PRIMARY KEY,
  class_id INTEGER NOT NULL REFERENCES class(id),
  work_id INTEGER NOT NULL REFERENCES work(id),
  handed_in_at TEXT NOT NULL,
  taken_back_at TEXT,
  returned_at TEXT,
  score REAL
);
CREATE INDEX work_turn_work ON work_turn(work_id, handed_in_at);
CREATE INDEX work_turn_class ON work_turn(class_id);

CREATE TABLE work_turn_file (
  turn_id INTEGER NOT NULL REFERENCES work_turn(id),
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
  sha256 TEXT NOT NULL REFERENCES blob(sha256),
  added_at TEXT NOT NULL,
  PRIMARY KEY (turn_id, position)
) WITHOUT ROWID;
CREATE INDEX work_turn_file_sha256 ON work_turn_file(sha256);

INSERT INTO work_turn(id, class_id, work_id, handed_in_at, returned_at, score)
  SELECT id, class_id, id, ifnull(handed_in_at, ifnull(returned_at, '1970-01-01T00:00:00.000Z')), returned_at, iif(state = 'Returned', score, NULL) FROM work WHERE state <> 'Working';
INSERT INTO work_turn_file(turn_id, position, name, sha256, added_at)
  SELECT f.work_id, row_number() OVER (PARTITION BY f.work_id ORDER BY f.id) - 1, f.name, f.sha256, f.added_at FROM work_file f JOIN work w ON w.id = f.work_id WHERE w.state <> 'Working';

-- The mark that was returned last: it counts until another one is.
ALTER TABLE work ADD COLUMN returned_score REAL;
UPDATE work SET returned_score = score WHERE state = 'Returned';

CREATE TABLE item_version (
  item_id INTEGER NOT NULL REFERENCES item(id),
  version INTEGER NOT NULL,
  name TEXT NOT NULL,
  sha256 TEXT NOT NULL REFERENCES blob(sha256),
  by_id INTEGER NOT NULL REFERENCES person(id),
  at TEXT NOT NULL,
  PRIMARY KEY (item_id, version)
) WITHOUT ROWID;
CREATE INDEX item_version_sha256 ON item_version(sha256);
CREATE INDEX item_version_by ON item_version(by_id);
-- Who wrote what stands now, and when; blank for what nobody changed since it was added.
ALTER TABLE item ADD COLUMN changed_by INTEGER REFERENCES person(id);
ALTER TABLE item ADD COLUMN changed_at TEXT;
CREATE INDEX item_changed_by ON item(changed_by) WHERE changed_by IS NOT NULL;

ALTER TABLE item ADD COLUMN binned_by INTEGER REFERENCES person(id);
ALTER TABLE folder ADD COLUMN binned_by INTEGER REFERENCES person(id);
ALTER TABLE assignment ADD COLUMN binned_by INTEGER REFERENCES person(id);
CREATE INDEX item_binned_by ON item(binned_by) WHERE binned_by IS NOT NULL;
CREATE INDEX folder_binned_by ON folder(binned_by) WHERE binned_by IS NOT NULL;
CREATE INDEX assignment_binned_by ON assignment(binned_by) WHERE binned_by IS NOT NULL;
CREATE INDEX item_binned ON item(binned_at) WHERE binned_at IS NOT NULL;
CREATE INDEX folder_binned ON folder(binned_at) WHERE binned_at IS NOT NULL;
CREATE INDEX assignment_binned ON assignment(binned_at) WHERE binned_at IS NOT NULL;

-- Bytes in a take-home. They refer to no row: to be in a take-home is to be nowhere else, perhaps.
CREATE TABLE take_home_holds (
  take_home_sha256 TEXT NOT NULL,
  sha256 TEXT NOT NULL,
  PRIMARY KEY (take_home_sha256, sha256)
) WITHOUT ROWID;
CREATE INDEX take_home_holds_sha256 ON take_home_holds(sha256);

ALTER TABLE person ADD COLUMN left_on TEXT;

-- What a take-home alone holds is known by its content now, not by a note that it is so.
DROP TABLE take_home_seal;
