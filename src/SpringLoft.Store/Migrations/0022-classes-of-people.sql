-- Which classes people are in now is asked at every letter that is typed: the index answers without a look at each place.
DROP INDEX member_person;
CREATE INDEX member_person ON member(person_id, left_at, class_id);
