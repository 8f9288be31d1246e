-- When a file that was found damaged was last named to coordinators.
CREATE TABLE damaged_file (
    -- By its digest: that it was damaged keeps no file on the disk.
    file TEXT NOT NULL PRIMARY KEY,
    told_at TEXT NOT NULL
) WITHOUT ROWID;
