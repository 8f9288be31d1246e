-- A page that several write at once, as Yjs keeps it: the state that stands for a text of the page, and what was written since.
CREATE TABLE page_doc (
  item_id INTEGER PRIMARY KEY REFERENCES item(id) ON DELETE CASCADE,
  state BLOB NOT NULL,
  -- The text of the page that the state stands for, by its digest.
  of_text TEXT NOT NULL,
  -- When the version that is being written began; NULL for none.
  begun_at TEXT
);
CREATE TABLE page_update (
  id INTEGER PRIMARY KEY,
  item_id INTEGER NOT NULL REFERENCES item(id) ON DELETE CASCADE,
  data BLOB NOT NULL
);
CREATE INDEX page_update_item ON page_update(item_id);
-- Who wrote a version of a page together; 0 is what stands now.
CREATE TABLE page_writer (
  item_id INTEGER NOT NULL REFERENCES item(id) ON DELETE CASCADE,
  version INTEGER NOT NULL,
  person_id INTEGER NOT NULL REFERENCES person(id),
  PRIMARY KEY (item_id, version, person_id)
) WITHOUT ROWID;
CREATE INDEX page_writer_person ON page_writer(person_id);
