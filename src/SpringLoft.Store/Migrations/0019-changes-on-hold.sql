-- Changes of a delivery that wait for a person, each once, however many reasons it waits for.
ALTER TABLE delivery ADD COLUMN on_hold INTEGER NOT NULL DEFAULT 0;
UPDATE delivery SET on_hold = (SELECT ifnull(max(h.changes), 0) FROM delivery_hold h WHERE h.delivery_id = delivery.id AND h.decision = 'Waiting');
