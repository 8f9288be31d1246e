-- A line of the audit trail keeps the name as it was, where it was done from, and a hash that is made of it and of the line
-- before. Lines from before are chained when the file is opened.
ALTER TABLE audit ADD COLUMN who TEXT;
ALTER TABLE audit ADD COLUMN address TEXT;
ALTER TABLE audit ADD COLUMN session_id INTEGER;
ALTER TABLE audit ADD COLUMN salt TEXT;
ALTER TABLE audit ADD COLUMN words TEXT;
ALTER TABLE audit ADD COLUMN hash TEXT;

-- Where the chain begins and ends: older lines can be let go of by the school's rule, and the newest one cannot be cut off unseen.
CREATE TABLE audit_chain (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  first_before TEXT NOT NULL,
  let_go INTEGER NOT NULL DEFAULT 0,
  last_id INTEGER NOT NULL,
  last_hash TEXT NOT NULL
);
UPDATE audit SET who = (SELECT trim(p.given || ' ' || p.family) FROM person p WHERE p.id = audit.person_id) WHERE person_id IS NOT NULL;
