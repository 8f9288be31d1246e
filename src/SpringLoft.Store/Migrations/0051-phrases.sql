-- Sentences that somebody writes again and again about work, for themselves alone.
CREATE TABLE phrase (
  id INTEGER PRIMARY KEY,
  person_id INTEGER NOT NULL REFERENCES person(id),
  text TEXT NOT NULL,
  UNIQUE (person_id, text)
);
