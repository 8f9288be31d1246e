-- Join codes, invitations, combined rosters, and the feed of the school's records.
CREATE TABLE join_code (
  class_id INTEGER PRIMARY KEY REFERENCES class(id),
  code TEXT NOT NULL UNIQUE,
  made_at TEXT NOT NULL,
  expires_at TEXT NOT NULL,
  most INTEGER,
  used INTEGER NOT NULL DEFAULT 0,
  waits INTEGER NOT NULL DEFAULT 0
);

-- Students who gave the code and wait for a yes.
CREATE TABLE join_wait (
  class_id INTEGER NOT NULL REFERENCES class(id),
  person_id INTEGER NOT NULL REFERENCES person(id),
  asked_at TEXT NOT NULL,
  PRIMARY KEY (class_id, person_id)
) WITHOUT ROWID;

CREATE TABLE join_try (
  person_id INTEGER PRIMARY KEY REFERENCES person(id),
  wrong INTEGER NOT NULL,
  shut_until TEXT
);

-- The token itself stands in the letter alone.
CREATE TABLE invitation (
  id INTEGER PRIMARY KEY,
  class_id INTEGER NOT NULL REFERENCES class(id),
  email TEXT NOT NULL,
  role TEXT NOT NULL,
  token_sha256 TEXT NOT NULL UNIQUE,
  sent_at TEXT NOT NULL,
  sent_by INTEGER NOT NULL REFERENCES person(id),
  expires_at TEXT NOT NULL,
  accepted_at TEXT,
  accepted_by INTEGER REFERENCES person(id),
  withdrawn_at TEXT
);
CREATE INDEX invitation_class ON invitation(class_id);

CREATE TABLE combined_roster (
  id INTEGER PRIMARY KEY,
  owner_id INTEGER NOT NULL REFERENCES person(id),
  year_id INTEGER NOT NULL REFERENCES school_year(id),
  name TEXT NOT NULL,
  version INTEGER NOT NULL DEFAULT 1
);
CREATE INDEX combined_roster_owner ON combined_roster(owner_id);

CREATE TABLE combined_section (
  combined_id INTEGER NOT NULL REFERENCES combined_roster(id) ON DELETE CASCADE,
  class_id INTEGER NOT NULL REFERENCES class(id),
  position INTEGER NOT NULL,
  colour INTEGER NOT NULL,
  PRIMARY KEY (combined_id, class_id)
) WITHOUT ROWID;

CREATE TABLE roster_feed (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  address TEXT NOT NULL,
  client_id TEXT NOT NULL,
  client_secret TEXT NOT NULL,
  year_id INTEGER NOT NULL REFERENCES school_year(id),
  first_day TEXT NOT NULL,
  last_day TEXT NOT NULL,
  hour INTEGER NOT NULL,
  is_on INTEGER NOT NULL,
  applies INTEGER NOT NULL DEFAULT 0,
  last_at TEXT,
  last_result TEXT,
  last_ok INTEGER
);
