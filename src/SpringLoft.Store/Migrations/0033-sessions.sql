-- A sign-in is a row: it can be looked at and ended, and a cookie that was copied is worth nothing once it is. The cookie holds
-- a token, the row its SHA-256. Sign-ins made before this have no row, and end.
CREATE TABLE session (
  id INTEGER PRIMARY KEY,
  person_id INTEGER NOT NULL REFERENCES person(id),
  token_sha TEXT NOT NULL UNIQUE,
  begun_at TEXT NOT NULL,
  seen_at TEXT NOT NULL,
  browser TEXT NOT NULL,
  address TEXT NOT NULL
);
CREATE INDEX session_person ON session(person_id);

-- Whoever leaves or becomes something else in the school is signed out, whichever act it was (directory, delivery, joining).
CREATE TRIGGER session_ends AFTER UPDATE OF role, active ON person WHEN NEW.active = 0 OR NEW.role IS NOT OLD.role
BEGIN
  DELETE FROM session WHERE person_id = NEW.id;
END;

-- Who set the password, and when; null for one that was there before this.
ALTER TABLE sign_in ADD COLUMN set_by INTEGER REFERENCES person(id);
ALTER TABLE sign_in ADD COLUMN set_at TEXT;
CREATE INDEX sign_in_set_by ON sign_in(set_by);
ALTER TABLE sign_in DROP COLUMN stamp;

-- Wrong passwords in a row, for a user name (of somebody or of nobody) and the place they come from: who types a name wrong
-- somewhere shuts it there and nowhere else.
CREATE TABLE sign_in_try (
  name_key TEXT NOT NULL,
  place TEXT NOT NULL,
  in_row INTEGER NOT NULL,
  shut_until TEXT,
  last_at TEXT NOT NULL,
  PRIMARY KEY (name_key, place)
) WITHOUT ROWID;
ALTER TABLE sign_in DROP COLUMN wrong_in_row;
ALTER TABLE sign_in DROP COLUMN shut_until;
