-- What was done when a school year began, as it was then: grades change afterwards.
CREATE TABLE year_begun (
  year_id INTEGER PRIMARY KEY REFERENCES school_year(id),
  by_id INTEGER NOT NULL REFERENCES person(id),
  verified INTEGER NOT NULL,
  signed_off INTEGER NOT NULL
);
CREATE INDEX year_begun_by ON year_begun(by_id);
-- A grade before and after; none after for those who left.
CREATE TABLE year_begun_grade (
  year_id INTEGER NOT NULL REFERENCES year_begun(year_id),
  position INTEGER NOT NULL,
  grade TEXT NOT NULL,
  became TEXT,
  students INTEGER NOT NULL,
  PRIMARY KEY (year_id, position)
);
