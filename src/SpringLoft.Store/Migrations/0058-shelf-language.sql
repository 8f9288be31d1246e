-- What a shelf's page is written in around the things that stand on it; those of before were written in English.
ALTER TABLE shelf ADD COLUMN language TEXT NOT NULL DEFAULT 'en';
