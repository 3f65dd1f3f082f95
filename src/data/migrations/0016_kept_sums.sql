-- A kept plan says what its level is made of, so that a decision finds its reckoning without reading the whole plan again.
ALTER TABLE item_location_state MODIFY plan VARCHAR(2000) CHARACTER SET ascii NULL;

-- Plans of the shape before go the whole way until the next run over everything.
UPDATE item_location_state SET plan = NULL;
