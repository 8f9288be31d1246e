-- How an assignment is marked where that is not in plain points: a scale of named levels, or criteria with levels; JSON.
ALTER TABLE assignment ADD COLUMN scheme_json TEXT;
-- The level of each criterion, 0 and up, with blanks between: of the mark that is being given, and of the one that was returned last.
ALTER TABLE work ADD COLUMN chosen TEXT;
ALTER TABLE work ADD COLUMN returned_chosen TEXT;
-- Scales that the school has laid down, for whoever gives an assignment.
CREATE TABLE school_scale (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  name TEXT NOT NULL,
  name_key TEXT NOT NULL UNIQUE,
  scheme_json TEXT NOT NULL,
  version INTEGER NOT NULL DEFAULT 1
);
