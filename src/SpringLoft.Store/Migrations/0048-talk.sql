-- A folder in which people write short messages and answer one another.
CREATE TABLE talk (
  folder_id INTEGER PRIMARY KEY REFERENCES folder(id),
  class_id INTEGER NOT NULL REFERENCES class(id),
  writers TEXT NOT NULL,
  group_id INTEGER REFERENCES class_group(id),
  -- Asked each school day; null for none.
  question TEXT,
  closed_at TEXT,
  version INTEGER NOT NULL DEFAULT 1
);
CREATE INDEX talk_class ON talk(class_id);
CREATE INDEX talk_group ON talk(group_id) WHERE group_id IS NOT NULL;

CREATE TABLE talk_message (
  id INTEGER PRIMARY KEY,
  class_id INTEGER NOT NULL REFERENCES class(id),
  folder_id INTEGER NOT NULL REFERENCES folder(id),
  author_id INTEGER NOT NULL REFERENCES person(id),
  text TEXT NOT NULL,
  answers INTEGER REFERENCES talk_message(id),
  at TEXT NOT NULL,
  -- By the school's calendar.
  day TEXT NOT NULL,
  hidden_at TEXT,
  hidden_by INTEGER REFERENCES person(id),
  hidden_why TEXT
);
CREATE INDEX talk_message_folder ON talk_message(folder_id, id);
CREATE INDEX talk_message_class ON talk_message(class_id);
CREATE INDEX talk_message_author ON talk_message(author_id);
CREATE INDEX talk_message_answers ON talk_message(answers) WHERE answers IS NOT NULL;
CREATE INDEX talk_message_hidden_by ON talk_message(hidden_by) WHERE hidden_by IS NOT NULL;

-- Students who only read what is talked about in a class; a row of its own for the class where none of them writes.
CREATE TABLE talk_reader (
  class_id INTEGER NOT NULL REFERENCES class(id),
  person_id INTEGER NOT NULL REFERENCES person(id),
  PRIMARY KEY (class_id, person_id)
) WITHOUT ROWID;
CREATE INDEX talk_reader_person ON talk_reader(person_id);
CREATE TABLE talk_quiet (class_id INTEGER PRIMARY KEY REFERENCES class(id), since TEXT NOT NULL);
