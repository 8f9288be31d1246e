-- When a file that was found damaged was last named to coordinators.
CREATE TABLE damaged_file (
    sha256 TEXT NOT NULL PRIMARY KEY,
    told_at TEXT NOT NULL
) WITHOUT ROWID;
