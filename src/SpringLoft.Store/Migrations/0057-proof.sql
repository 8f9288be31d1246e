-- What the school signs with. A key whose secret can't be opened any more is followed by another; both stay, to check what was signed.
CREATE TABLE school_key (
  id INTEGER PRIMARY KEY,
  public_key TEXT NOT NULL,
  secret TEXT NOT NULL,
  made_at TEXT NOT NULL
);
-- The report of a closing run as it was when the run ended, and its signature.
CREATE TABLE run_report (
  run_id INTEGER PRIMARY KEY REFERENCES run(id),
  report TEXT NOT NULL,
  signature TEXT NOT NULL,
  key_id INTEGER NOT NULL REFERENCES school_key(id),
  signed_at TEXT NOT NULL
);
CREATE INDEX run_report_key ON run_report(key_id);
-- When a package was last read again, and what was wrong with it then.
ALTER TABLE package ADD COLUMN read_at TEXT;
ALTER TABLE package ADD COLUMN fault TEXT;
ALTER TABLE package ADD COLUMN fault_detail TEXT;
