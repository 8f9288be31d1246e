-- Whoever was joined into somebody who was joined into another since is that other: nobody is somebody who is gone.
-- Two who were joined into each other, which was possible once, are themselves again.
UPDATE person SET joined_into = NULL WHERE joined_into <> id AND (SELECT p.joined_into FROM person p WHERE p.id = person.joined_into) = person.id;
UPDATE person SET joined_into = (SELECT p.joined_into FROM person p WHERE p.id = person.joined_into) WHERE (SELECT p.joined_into FROM person p WHERE p.id = person.joined_into) IS NOT NULL;
UPDATE person SET joined_into = (SELECT p.joined_into FROM person p WHERE p.id = person.joined_into) WHERE (SELECT p.joined_into FROM person p WHERE p.id = person.joined_into) IS NOT NULL;
UPDATE person SET joined_into = (SELECT p.joined_into FROM person p WHERE p.id = person.joined_into) WHERE (SELECT p.joined_into FROM person p WHERE p.id = person.joined_into) IS NOT NULL;
