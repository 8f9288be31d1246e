-- A notice is one thing, whatever number of classes it stands in: what it says, when it is posted, until when it is pinned.
CREATE TABLE notice_was AS SELECT id, class_id, author_id, text, posted_at FROM notice;
DROP TABLE notice;
CREATE TABLE notice (
  id INTEGER PRIMARY KEY,
  author_id INTEGER NOT NULL REFERENCES person(id),
  text TEXT NOT NULL,
  -- To everybody of the school, and then in no class.
  for_school INTEGER NOT NULL DEFAULT 0,
  made_at TEXT NOT NULL,
  -- The moment that was set, until it has come.
  post_at TEXT,
  posted_at TEXT,
  pinned_until TEXT,
  changed_at TEXT,
  withdrawn_at TEXT,
  withdrawn_by INTEGER REFERENCES person(id),
  version INTEGER NOT NULL DEFAULT 1
);
CREATE INDEX notice_author ON notice(author_id);
CREATE INDEX notice_withdrawn_by ON notice(withdrawn_by) WHERE withdrawn_by IS NOT NULL;
CREATE INDEX notice_post_at ON notice(post_at) WHERE post_at IS NOT NULL;
CREATE INDEX notice_for_school ON notice(for_school) WHERE for_school = 1;
INSERT INTO notice(id, author_id, text, made_at, posted_at) SELECT id, author_id, text, posted_at, posted_at FROM notice_was;
-- Where it stands; for one group of the class alone, or for all of it.
CREATE TABLE notice_class (
  notice_id INTEGER NOT NULL REFERENCES notice(id) ON DELETE CASCADE,
  class_id INTEGER NOT NULL REFERENCES class(id),
  group_id INTEGER REFERENCES class_group(id) ON DELETE CASCADE,
  PRIMARY KEY (notice_id, class_id)
) WITHOUT ROWID;
CREATE INDEX notice_class_class ON notice_class(class_id);
CREATE INDEX notice_class_group ON notice_class(group_id) WHERE group_id IS NOT NULL;
INSERT INTO notice_class(notice_id, class_id) SELECT id, class_id FROM notice_was;
DROP TABLE notice_was;
-- Who has had it in view, and when first.
CREATE TABLE notice_seen (
  notice_id INTEGER NOT NULL REFERENCES notice(id) ON DELETE CASCADE,
  person_id INTEGER NOT NULL REFERENCES person(id),
  at TEXT NOT NULL,
  PRIMARY KEY (notice_id, person_id)
) WITHOUT ROWID;
CREATE INDEX notice_seen_person ON notice_seen(person_id);
-- A notice that stands nowhere any more is gone with the last class that it stood in.
CREATE TRIGGER notice_stands_nowhere AFTER DELETE ON notice_class
WHEN NOT EXISTS (SELECT 1 FROM notice_class WHERE notice_id = old.notice_id)
BEGIN
  DELETE FROM notice WHERE id = old.notice_id;
END;
