-- Calendars with two-week letters and versions; folders that know what their plan gave them; who may change class names.
ALTER TABLE school_year ADD COLUMN letters TEXT NOT NULL DEFAULT 'None';
ALTER TABLE school_year ADD COLUMN version INTEGER NOT NULL DEFAULT 1;

ALTER TABLE school ADD COLUMN names_by_pattern INTEGER NOT NULL DEFAULT 0;
ALTER TABLE school ADD COLUMN version INTEGER NOT NULL DEFAULT 1;

-- What the plan gave when it was last put: what differs from it now, a teacher changed.
ALTER TABLE folder ADD COLUMN given_name TEXT;
ALTER TABLE folder ADD COLUMN given_rule TEXT;
ALTER TABLE folder ADD COLUMN given_position INTEGER;
ALTER TABLE folder ADD COLUMN version INTEGER NOT NULL DEFAULT 1;
UPDATE folder SET given_name = name, given_rule = rule, given_position = position WHERE plan_key IS NOT NULL;

-- What putting a plan did to a class, so that it can be taken back.
CREATE TABLE plan_put (
  run_id INTEGER NOT NULL REFERENCES run(id),
  class_id INTEGER NOT NULL REFERENCES class(id),
  plan_id INTEGER NOT NULL REFERENCES plan(id),
  version INTEGER NOT NULL,
  plan_before INTEGER,
  version_before INTEGER,
  steps TEXT NOT NULL,
  taken_back_at TEXT,
  PRIMARY KEY (run_id, class_id)
) WITHOUT ROWID;
