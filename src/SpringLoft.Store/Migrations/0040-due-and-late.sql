-- Until when within its day work is due, and for how many days after it is still taken: null for as long as the class is open, 0 for none.
ALTER TABLE assignment ADD COLUMN due_time TEXT;
ALTER TABLE assignment ADD COLUMN late_days INTEGER;
-- The moment at which a draft is published by the clock; null for by hand.
ALTER TABLE assignment ADD COLUMN publish_at TEXT;
CREATE INDEX assignment_publish_at ON assignment(publish_at) WHERE publish_at IS NOT NULL;
CREATE INDEX assignment_due ON assignment(due_on) WHERE due_on IS NOT NULL AND binned_at IS NULL;
-- When somebody last looked at their day, and when the visit before this one ended: what came back since then is new.
ALTER TABLE person ADD COLUMN today_seen_at TEXT;
ALTER TABLE person ADD COLUMN today_before_at TEXT;
