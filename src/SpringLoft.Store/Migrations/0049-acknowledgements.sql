-- A page, a file, a link or a notice asks to be read, and that one says so: the student, at home, or both.
CREATE TABLE asking (
  id INTEGER PRIMARY KEY,
  -- One of the two.
  item_id INTEGER UNIQUE REFERENCES item(id) ON DELETE CASCADE,
  notice_id INTEGER UNIQUE REFERENCES notice(id) ON DELETE CASCADE,
  asked_of TEXT NOT NULL,
  -- The last day on which it is wanted; NULL for no day.
  until TEXT,
  asked_by INTEGER NOT NULL REFERENCES person(id),
  asked_at TEXT NOT NULL,
  -- One more each time that it is asked anew: what was said to an earlier wording stays on record and does not count.
  wording INTEGER NOT NULL DEFAULT 1,
  -- Since when it asks nobody any more; what was said stays.
  ended_at TEXT
);
CREATE INDEX asking_asked_by ON asking(asked_by);

-- What was said to it, by a student and by their home.
CREATE TABLE acknowledged (
  asking_id INTEGER NOT NULL REFERENCES asking(id) ON DELETE CASCADE,
  person_id INTEGER NOT NULL REFERENCES person(id),
  own_at TEXT,
  own_wording INTEGER,
  home_at TEXT,
  home_name TEXT,
  home_wording INTEGER,
  -- Staff who noted a signed paper; NULL where it came by the code.
  home_noted_by INTEGER REFERENCES person(id),
  reminded_at TEXT,
  -- By which it is acknowledged at home, on paper or in a letter: for this student and this thing alone.
  code TEXT,
  code_digest TEXT UNIQUE,
  PRIMARY KEY (asking_id, person_id)
);
CREATE INDEX acknowledged_person ON acknowledged(person_id);
CREATE INDEX acknowledged_noted_by ON acknowledged(home_noted_by) WHERE home_noted_by IS NOT NULL;
