-- The first password, readable for the slip until it has been used once; null afterwards.
ALTER TABLE sign_in ADD COLUMN first_phrase TEXT;
