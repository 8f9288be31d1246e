-- Since when somebody is on a roster without a break: joined_at is the first day ever, and stays.
ALTER TABLE member ADD COLUMN since TEXT;
UPDATE member SET since = joined_at;
-- A coordinator said that the staff of the class may have their slip.
ALTER TABLE member ADD COLUMN slip_yes INTEGER NOT NULL DEFAULT 0;
