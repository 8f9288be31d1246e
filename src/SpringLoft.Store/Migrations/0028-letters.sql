-- A letter is written with the act that causes it, in its transaction, and sent by a worker that tries again.
CREATE TABLE letter (
    id INTEGER PRIMARY KEY,
    to_address TEXT NOT NULL,
    to_name TEXT NOT NULL,
    subject TEXT NOT NULL,
    -- Emptied once it is sent: a letter can hold an address that lets somebody in.
    text TEXT,
    written_at TEXT NOT NULL,
    tries INTEGER NOT NULL DEFAULT 0,
    -- When it is tried next; NULL for at once.
    due_at TEXT,
    sent_at TEXT,
    given_up_at TEXT,
    trouble TEXT
);
CREATE INDEX letter_waiting ON letter(due_at) WHERE sent_at IS NULL AND given_up_at IS NULL;
ALTER TABLE invitation ADD COLUMN letter_id INTEGER REFERENCES letter(id);
CREATE INDEX invitation_letter ON invitation(letter_id) WHERE letter_id IS NOT NULL;
