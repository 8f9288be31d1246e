-- Where a student went from a class: the new set's teacher reads the history there.
ALTER TABLE member ADD COLUMN moved_to INTEGER REFERENCES class(id);
CREATE INDEX member_moved ON member(moved_to, person_id) WHERE moved_to IS NOT NULL;
