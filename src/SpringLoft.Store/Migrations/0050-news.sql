-- What somebody has seen of their news, and whether it comes as a letter too. The news themselves are what happened, read through the rules.
CREATE TABLE news_reader (
  person_id INTEGER PRIMARY KEY REFERENCES person(id),
  -- What is newer than this is new.
  seen_at TEXT,
  letter INTEGER NOT NULL DEFAULT 0,
  -- The day of the last letter, and up to what it told.
  letter_on TEXT,
  letter_at TEXT
);
CREATE INDEX news_reader_letter ON news_reader(letter_on) WHERE letter = 1;
-- Kinds of news that somebody does not want to be told.
CREATE TABLE news_quiet (
  person_id INTEGER NOT NULL REFERENCES person(id),
  kind TEXT NOT NULL,
  PRIMARY KEY (person_id, kind)
) WITHOUT ROWID;
