-- A list as one person opened it: which rows, in which order. It stays as it is while it is worked in, whatever process
-- answers. Entries are unsigned 32-bit numbers, little-endian: ids of rows, 0 for the head of a group. Old ones go when new
-- ones come.
CREATE TABLE kept_list (
  name CHAR(16) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  user_id INT UNSIGNED NOT NULL,
  kind VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  entries LONGBLOB NOT NULL,
  -- What each entry was like when the list was opened, as a hash; empty where nobody asks.
  prints LONGBLOB NOT NULL,
  about LONGTEXT NOT NULL,
  opened_at DATETIME(3) NOT NULL,
  KEY kept_list_age (opened_at),
  CONSTRAINT about_json CHECK (JSON_VALID(about))
);

-- Mean use per day of a pair, measured once a day; a pair that has sold nothing has no row.
CREATE TABLE demand_rate (
  item_id INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  per_day DECIMAL(18,6) NOT NULL,
  measured_on DATE NOT NULL,
  PRIMARY KEY (item_id, location_id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (location_id) REFERENCES location (id),
  CONSTRAINT demand_positive CHECK (per_day > 0)
);

ALTER TABLE company ADD COLUMN demand_as_of DATE NULL AFTER needs_as_of;

-- Days that the stock of the pair lasts at its rate; NULL without one.
ALTER TABLE item_location_state ADD COLUMN cover_days DECIMAL(5,1) NULL AFTER suggested;
