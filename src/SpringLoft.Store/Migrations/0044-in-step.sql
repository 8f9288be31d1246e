-- Assignments that were given to several classes in one act have one number: the id of the first of them.
ALTER TABLE assignment ADD COLUMN together INTEGER;
CREATE INDEX assignment_together ON assignment(together) WHERE together IS NOT NULL;
