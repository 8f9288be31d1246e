-- Who came into the directory for a person of a delivery who was said to be somebody new: said so again, they are not new again.
CREATE TABLE delivery_came (
  delivery_id INTEGER NOT NULL REFERENCES delivery(id),
  person_ref TEXT NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person(id),
  PRIMARY KEY (delivery_id, person_ref)
) WITHOUT ROWID;
CREATE INDEX delivery_came_person ON delivery_came(person_id);
