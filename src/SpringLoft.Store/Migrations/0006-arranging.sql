-- Groups and their folders, class details, pages, what the school shares, copies that know where they are from, blind spots as last counted.
CREATE TABLE class_group (
  id INTEGER PRIMARY KEY,
  class_id INTEGER NOT NULL REFERENCES class(id),
  name TEXT NOT NULL,
  name_key TEXT NOT NULL,
  position INTEGER NOT NULL,
  version INTEGER NOT NULL DEFAULT 1,
  binned_at TEXT
);
CREATE UNIQUE INDEX class_group_name ON class_group(class_id, name_key) WHERE binned_at IS NULL;

CREATE TABLE group_member (
  group_id INTEGER NOT NULL REFERENCES class_group(id),
  person_id INTEGER NOT NULL REFERENCES person(id),
  PRIMARY KEY (group_id, person_id)
) WITHOUT ROWID;
CREATE INDEX group_member_person ON group_member(person_id);

ALTER TABLE folder ADD COLUMN group_id INTEGER REFERENCES class_group(id);
-- What members of the group may do with one another's things: 1 add, 2 rename, 4 remove.
ALTER TABLE folder ADD COLUMN members_may INTEGER NOT NULL DEFAULT 7;

-- A department's workspace is kept as a class is, without students.
ALTER TABLE class ADD COLUMN kind TEXT NOT NULL DEFAULT 'Class';
ALTER TABLE class ADD COLUMN level TEXT;
ALTER TABLE class ADD COLUMN room TEXT;
ALTER TABLE class ADD COLUMN ends_on TEXT;
ALTER TABLE class ADD COLUMN welcome TEXT NOT NULL DEFAULT '';

ALTER TABLE item ADD COLUMN version INTEGER NOT NULL DEFAULT 1;
-- A copy knows the bank's thing it was made from, and at which version.
ALTER TABLE item ADD COLUMN bank_id INTEGER REFERENCES item(id);
ALTER TABLE item ADD COLUMN bank_version INTEGER;
ALTER TABLE assignment ADD COLUMN bank_id INTEGER REFERENCES assignment(id);
ALTER TABLE assignment ADD COLUMN bank_version INTEGER;
CREATE INDEX item_bank ON item(bank_id) WHERE bank_id IS NOT NULL;
CREATE INDEX assignment_bank ON assignment(bank_id) WHERE bank_id IS NOT NULL;

-- The school's list of sites and shared materials. Only what has no address has a file.
CREATE TABLE resource (
  id INTEGER PRIMARY KEY,
  title TEXT NOT NULL,
  title_key TEXT NOT NULL,
  url TEXT,
  file_name TEXT,
  sha256 TEXT REFERENCES blob(sha256),
  for_whom TEXT NOT NULL,
  grades TEXT NOT NULL DEFAULT '',
  courses TEXT NOT NULL DEFAULT '',
  vendor_id TEXT,
  vendor_resource_id TEXT,
  source_id TEXT NOT NULL UNIQUE,
  version INTEGER NOT NULL DEFAULT 1,
  binned_at TEXT
);
CREATE UNIQUE INDEX resource_title ON resource(title_key) WHERE binned_at IS NULL;

CREATE TABLE class_resource (
  class_id INTEGER NOT NULL REFERENCES class(id),
  resource_id INTEGER NOT NULL REFERENCES resource(id),
  PRIMARY KEY (class_id, resource_id)
) WITHOUT ROWID;
CREATE INDEX class_resource_resource ON class_resource(resource_id);

-- Blind spots as they were when the audit trail of the class had reached this line; newer lines make it stale.
CREATE TABLE class_blind (
  class_id INTEGER PRIMARY KEY REFERENCES class(id),
  spots INTEGER NOT NULL,
  audit_id INTEGER NOT NULL
);

ALTER TABLE school ADD COLUMN user_name_pattern TEXT NOT NULL DEFAULT '{first letter}{family}{student number}';
