-- Which pieces have a draft mark is counted without looking at the pieces themselves.
DROP INDEX work_class;
CREATE INDEX work_class ON work(class_id, state, score, returned_score, handed_in_at);
-- Scores that came from a file, so that they are taken back in one act: what stood there before, and whether the piece was begun for it.
CREATE TABLE score_import (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL,
  by_id INTEGER NOT NULL REFERENCES person(id),
  at TEXT NOT NULL,
  taken_back_at TEXT
);
CREATE INDEX score_import_by ON score_import(by_id);
CREATE TABLE score_import_mark (
  import_id INTEGER NOT NULL REFERENCES score_import(id) ON DELETE CASCADE,
  work_id INTEGER NOT NULL REFERENCES work(id) ON DELETE CASCADE,
  class_id INTEGER NOT NULL REFERENCES class(id),
  before REAL,
  after REAL NOT NULL,
  begun INTEGER NOT NULL,
  PRIMARY KEY (import_id, work_id)
) WITHOUT ROWID;
CREATE INDEX score_import_mark_work ON score_import_mark(work_id);
CREATE INDEX score_import_mark_class ON score_import_mark(class_id);
