-- Groups that an assignment is given to. While it is a draft, whoever is in them; when it is published, they are written down.
CREATE TABLE assignment_group (
  assignment_id INTEGER NOT NULL REFERENCES assignment(id),
  group_id INTEGER NOT NULL REFERENCES class_group(id),
  PRIMARY KEY (assignment_id, group_id)
) WITHOUT ROWID;
CREATE INDEX assignment_group_group ON assignment_group(group_id);
-- 1 for those who have it because of a group, and not by name.
ALTER TABLE assignment_given ADD COLUMN by_group INTEGER NOT NULL DEFAULT 0;
