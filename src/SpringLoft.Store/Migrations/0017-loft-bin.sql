-- An archived class that a coordinator deleted waits in the bin.
ALTER TABLE class ADD COLUMN binned_at TEXT;
CREATE INDEX class_binned ON class(binned_at) WHERE binned_at IS NOT NULL;
