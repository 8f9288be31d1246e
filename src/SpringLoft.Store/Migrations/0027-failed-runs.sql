-- Why a run as a whole failed: a fault, not a class that could not be done.
ALTER TABLE run ADD COLUMN reason TEXT;
