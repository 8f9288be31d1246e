-- What the school's records call people and classes, how somebody came onto a roster, and what the records send.
ALTER TABLE person ADD COLUMN record_id TEXT;
ALTER TABLE person ADD COLUMN school TEXT;
CREATE UNIQUE INDEX person_record ON person(record_id) WHERE record_id IS NOT NULL;

ALTER TABLE class ADD COLUMN record_id TEXT;
CREATE UNIQUE INDEX class_record ON class(year_id, record_id) WHERE record_id IS NOT NULL;

ALTER TABLE member ADD COLUMN enrolled_by TEXT NOT NULL DEFAULT 'Hand';
-- Assignments published earlier are not seen by who joined an open class later; null where all are.
ALTER TABLE member ADD COLUMN sees_from TEXT;

CREATE TABLE delivery (
  id INTEGER PRIMARY KEY,
  name TEXT NOT NULL,
  kind TEXT NOT NULL,
  year_id INTEGER NOT NULL REFERENCES school_year(id),
  state TEXT NOT NULL,
  received_at TEXT NOT NULL,
  received_by INTEGER REFERENCES person(id),
  source_sha256 TEXT NOT NULL REFERENCES blob(sha256),
  -- For a plain table: what each column is, and whether it names everybody.
  columns TEXT,
  whole INTEGER NOT NULL DEFAULT 0,
  -- The list of changes and findings as it was shown, kept as a file.
  changes_sha256 TEXT REFERENCES blob(sha256),
  counts TEXT NOT NULL DEFAULT '{}',
  findings INTEGER NOT NULL DEFAULT 0,
  version INTEGER NOT NULL DEFAULT 1
);
CREATE INDEX delivery_year ON delivery(year_id, id);

-- Why changes wait for a person, and what the person said.
CREATE TABLE delivery_hold (
  delivery_id INTEGER NOT NULL REFERENCES delivery(id),
  key TEXT NOT NULL,
  kind TEXT NOT NULL,
  text TEXT NOT NULL,
  changes INTEGER NOT NULL,
  person_ref TEXT,
  candidates TEXT NOT NULL DEFAULT '[]',
  decision TEXT NOT NULL DEFAULT 'Waiting',
  settled_as INTEGER REFERENCES person(id),
  decided_by INTEGER REFERENCES person(id),
  decided_at TEXT,
  PRIMARY KEY (delivery_id, key)
) WITHOUT ROWID;

-- How many changes of a class wait, for the board.
CREATE TABLE delivery_on_hold (
  delivery_id INTEGER NOT NULL REFERENCES delivery(id),
  class_id INTEGER NOT NULL REFERENCES class(id),
  changes INTEGER NOT NULL,
  PRIMARY KEY (delivery_id, class_id)
) WITHOUT ROWID;

-- Each time something of a delivery was applied, with what it takes to take it back.
CREATE TABLE delivery_applied (
  id INTEGER PRIMARY KEY,
  delivery_id INTEGER NOT NULL REFERENCES delivery(id),
  applied_at TEXT NOT NULL,
  applied_by INTEGER REFERENCES person(id),
  changes INTEGER NOT NULL,
  undo_sha256 TEXT NOT NULL REFERENCES blob(sha256),
  taken_back_at TEXT
);
CREATE INDEX delivery_applied_delivery ON delivery_applied(delivery_id);
