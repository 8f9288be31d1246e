-- A second step at sign-in: an app's secret (sealed), recovery codes (as digests), passkeys (public keys).
CREATE TABLE second_step (
  person_id INTEGER PRIMARY KEY REFERENCES person(id),
  secret TEXT NOT NULL,
  since TEXT,
  last_step INTEGER NOT NULL DEFAULT 0
);
CREATE TABLE recovery_code (
  person_id INTEGER NOT NULL REFERENCES person(id),
  digest TEXT NOT NULL,
  PRIMARY KEY (person_id, digest)
) WITHOUT ROWID;
CREATE TABLE passkey (
  id INTEGER PRIMARY KEY,
  person_id INTEGER NOT NULL REFERENCES person(id),
  credential TEXT NOT NULL UNIQUE,
  public_key TEXT NOT NULL,
  sign_count INTEGER NOT NULL,
  name TEXT NOT NULL,
  made_at TEXT NOT NULL,
  used_at TEXT
);
CREATE INDEX passkey_person ON passkey(person_id);
-- When the second step was last shown in a sign-in.
ALTER TABLE session ADD COLUMN step_at TEXT;
ALTER TABLE school ADD COLUMN second_step TEXT NOT NULL DEFAULT 'Nobody';
-- Who is no staff any more has no second step either: a student could not pass it.
CREATE TRIGGER second_step_ends AFTER UPDATE OF role ON person WHEN NEW.role = 'Student' AND OLD.role <> 'Student'
BEGIN
  DELETE FROM second_step WHERE person_id = NEW.id;
  DELETE FROM recovery_code WHERE person_id = NEW.id;
  DELETE FROM passkey WHERE person_id = NEW.id;
END;
