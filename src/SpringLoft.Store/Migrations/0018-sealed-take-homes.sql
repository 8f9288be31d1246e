-- A take-home that holds work of a class that was deleted is not made anew: that work would no longer be in it.
CREATE TABLE take_home_seal (
  person_id INTEGER NOT NULL REFERENCES person(id),
  year_id INTEGER NOT NULL REFERENCES school_year(id),
  class_id INTEGER NOT NULL,
  PRIMARY KEY (person_id, year_id, class_id)
) WITHOUT ROWID;
