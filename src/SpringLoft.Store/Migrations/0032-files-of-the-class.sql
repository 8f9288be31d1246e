-- How many of a package's files are the class's own; the rest tell of it (roster, marks, rules). NULL where it was not noted.
ALTER TABLE package ADD COLUMN class_files INTEGER;
