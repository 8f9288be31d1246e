-- Somebody at home to whom the school may write, never with a sign-in.
CREATE TABLE contact (
  id INTEGER PRIMARY KEY,
  -- The lasting id of the school's records; NULL for one who was added by hand.
  record_id TEXT UNIQUE COLLATE NOCASE,
  name TEXT NOT NULL,
  email TEXT,
  language TEXT NOT NULL,
  -- Since when the school lets them be written to; NULL for not.
  write_from TEXT,
  -- Since when they want no letter.
  stopped_at TEXT,
  -- Since when the school's records have them no more.
  gone_at TEXT,
  -- The day of the last letter, and when it was written.
  letter_on TEXT,
  letter_at TEXT,
  -- By which letters are stopped.
  stop_code TEXT,
  stop_digest TEXT UNIQUE,
  version INTEGER NOT NULL DEFAULT 0
);
CREATE TABLE family_of (
  contact_id INTEGER NOT NULL REFERENCES contact(id) ON DELETE CASCADE,
  person_id INTEGER NOT NULL REFERENCES person(id),
  -- A person said so, not the records.
  by_hand INTEGER NOT NULL,
  PRIMARY KEY (contact_id, person_id)
) WITHOUT ROWID;
CREATE INDEX family_of_person ON family_of(person_id);
ALTER TABLE letter ADD COLUMN contact_id INTEGER REFERENCES contact(id) ON DELETE CASCADE;
CREATE INDEX letter_contact ON letter(contact_id) WHERE contact_id IS NOT NULL;
-- The weekly letter to homes: since when, on which day of the week (1 is Monday), with marks or not, and which way it was looked at before.
ALTER TABLE school ADD COLUMN weekly_from TEXT;
ALTER TABLE school ADD COLUMN weekly_day INTEGER NOT NULL DEFAULT 5;
ALTER TABLE school ADD COLUMN weekly_marks INTEGER NOT NULL DEFAULT 0;
ALTER TABLE school ADD COLUMN weekly_seen INTEGER;
