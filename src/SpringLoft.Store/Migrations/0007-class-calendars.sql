-- The address under which calendar programs subscribe to a class; none until somebody makes it.
ALTER TABLE class ADD COLUMN calendar_token TEXT;
CREATE UNIQUE INDEX class_calendar ON class(calendar_token) WHERE calendar_token IS NOT NULL;
