-- People in the order in which lists show them, so that the first few of a beginning are found without sorting the rest.
DROP INDEX person_family;
DROP INDEX person_given;
CREATE INDEX person_family ON person(family_key, given_key, id);
CREATE INDEX person_given ON person(given_key, family_key, id);
