-- A class that whoever leads it offers to somebody else to lead; it goes when it is answered, taken back, or done otherwise.
CREATE TABLE lead_offer (
  class_id INTEGER PRIMARY KEY REFERENCES class(id),
  to_id INTEGER NOT NULL REFERENCES person(id),
  by_id INTEGER NOT NULL REFERENCES person(id),
  offered_at TEXT NOT NULL
);
CREATE INDEX lead_offer_to ON lead_offer(to_id);
CREATE INDEX lead_offer_by ON lead_offer(by_id);
