-- Accounts at providers of single sign-on: whose they are known to be since somebody first came in with one. A person has one at
-- each provider.
CREATE TABLE provider_account (
  issuer TEXT NOT NULL,
  subject TEXT NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person(id),
  since TEXT NOT NULL,
  used_at TEXT NOT NULL,
  PRIMARY KEY (issuer, subject)
) WITHOUT ROWID;
CREATE UNIQUE INDEX provider_account_person ON provider_account(person_id, issuer);
-- Which account a sign-in was begun with; null for one begun with a password. The provider's token (sealed) is what signing out there asks.
ALTER TABLE session ADD COLUMN issuer TEXT;
ALTER TABLE session ADD COLUMN provider_session TEXT;
ALTER TABLE session ADD COLUMN id_token TEXT;
ALTER TABLE session ADD COLUMN step_elsewhere INTEGER NOT NULL DEFAULT 0;
-- How long a sign-in goes on is the school's to say.
ALTER TABLE school ADD COLUMN idle_hours INTEGER NOT NULL DEFAULT 10;
ALTER TABLE school ADD COLUMN most_days INTEGER NOT NULL DEFAULT 5;
