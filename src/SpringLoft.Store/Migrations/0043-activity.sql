-- What a student did in a class on a day: bits of Did (1 opened the class, 2 opened a thing, 4 wrote, 8 handed in).
CREATE TABLE activity (
  class_id INTEGER NOT NULL REFERENCES class(id),
  person_id INTEGER NOT NULL REFERENCES person(id),
  day TEXT NOT NULL,
  did INTEGER NOT NULL,
  PRIMARY KEY (class_id, person_id, day)
) WITHOUT ROWID;
CREATE INDEX activity_person ON activity(person_id);
CREATE INDEX activity_day ON activity(day);
ALTER TABLE school ADD COLUMN keeps_activity INTEGER NOT NULL DEFAULT 1;
