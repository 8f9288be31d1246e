-- Who wrote a welcome note, and who a version of a folder plan: it is said to whoever wrote another one meanwhile.
ALTER TABLE class ADD COLUMN welcome_by INTEGER REFERENCES person(id);
ALTER TABLE class ADD COLUMN welcome_at TEXT;
CREATE INDEX class_welcome_by ON class(welcome_by) WHERE welcome_by IS NOT NULL;
ALTER TABLE plan_version ADD COLUMN made_by INTEGER REFERENCES person(id);
ALTER TABLE plan_version ADD COLUMN made_at TEXT;
CREATE INDEX plan_version_made_by ON plan_version(made_by) WHERE made_by IS NOT NULL;
