-- An answer that was given is kept with what was asked: the same key with something else is no second click. Old ones are found by their moment.
ALTER TABLE once ADD COLUMN print TEXT NOT NULL DEFAULT '';
CREATE INDEX once_at ON once(at);
