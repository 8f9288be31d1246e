-- Closing hundreds of classes: with which options, what a person asked of the run, and what it takes to undo it when a class is restored.
ALTER TABLE run ADD COLUMN options TEXT NOT NULL DEFAULT '';
ALTER TABLE run ADD COLUMN wish TEXT NOT NULL DEFAULT 'GoOn';
ALTER TABLE run_class ADD COLUMN undo TEXT;
CREATE INDEX package_kind ON package(kind, class_id, student_id);

-- An old class that is left unresolved on purpose: who answers for it, and why.
CREATE TABLE sign_off (
  class_id INTEGER PRIMARY KEY REFERENCES class(id),
  by_id INTEGER NOT NULL REFERENCES person(id),
  reason TEXT NOT NULL,
  at TEXT NOT NULL
);
ALTER TABLE school_year ADD COLUMN begun_at TEXT;
CREATE INDEX item_bytes ON item(sha256, added_by) WHERE sha256 IS NOT NULL;
