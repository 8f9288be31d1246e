-- What the school lays down on room for files and on keeping; null is no limit, or for ever.
ALTER TABLE school ADD COLUMN person_megabytes INTEGER;
ALTER TABLE school ADD COLUMN class_megabytes INTEGER;
ALTER TABLE school ADD COLUMN school_gigabytes INTEGER;
ALTER TABLE school ADD COLUMN audit_years INTEGER;
ALTER TABLE school ADD COLUMN letter_days INTEGER NOT NULL DEFAULT 30;
ALTER TABLE school ADD COLUMN leaver_days INTEGER NOT NULL DEFAULT 400;
ALTER TABLE school ADD COLUMN people_years INTEGER;

-- What the program let go of by these rules, a line a day and kind.
CREATE TABLE let_go (
  id INTEGER PRIMARY KEY,
  day TEXT NOT NULL,
  kind TEXT NOT NULL,
  many INTEGER NOT NULL,
  UNIQUE (day, kind)
);

-- When a person's data was taken out of the directory; their row stays, so that what refers to it does not hang in the air.
ALTER TABLE person ADD COLUMN erased_at TEXT;
