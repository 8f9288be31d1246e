-- Files with a notice: whoever finds the notice, opens them.
CREATE TABLE notice_file (
  id INTEGER PRIMARY KEY,
  notice_id INTEGER NOT NULL REFERENCES notice(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
  sha256 TEXT NOT NULL REFERENCES blob(sha256)
);
CREATE INDEX notice_file_notice ON notice_file(notice_id);
CREATE INDEX notice_file_sha256 ON notice_file(sha256);

-- A file that has come for a notice which is still being written; it waits some days. Its number is never given again.
CREATE TABLE notice_upload (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  by_id INTEGER NOT NULL REFERENCES person(id),
  name TEXT NOT NULL,
  sha256 TEXT NOT NULL REFERENCES blob(sha256),
  at TEXT NOT NULL
);
CREATE INDEX notice_upload_by ON notice_upload(by_id);
CREATE INDEX notice_upload_sha256 ON notice_upload(sha256);
