-- What lets somebody in (first passwords, the feed's secret, what calendars and shelves are reached by, letters on their way)
-- is kept sealed with the key ring; Sealing/SealedColumns names the columns and seals what stood there in clear.
-- A shelf is found by the digest of its address.
ALTER TABLE shelf ADD COLUMN token_sha256 TEXT;
CREATE UNIQUE INDEX shelf_token ON shelf(token_sha256);
-- An address of a class's calendar is one person's from now on, and made from the class's secret: old ones open nothing.
UPDATE class SET calendar_token = lower(hex(randomblob(32))) WHERE calendar_token IS NOT NULL;
