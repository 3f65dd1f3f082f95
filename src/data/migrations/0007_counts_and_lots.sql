-- Counts under way and their rhythm; use that only a count finds.

-- use_recorded 0: nobody records what goes out; what a count finds missing was used.
ALTER TABLE item ADD COLUMN use_recorded TINYINT(1) NOT NULL DEFAULT 1;

-- A difference beyond this share of what was expected (thousandths), or worth more than this, is counted again; 0 = never.
ALTER TABLE company
  ADD COLUMN recount_share SMALLINT UNSIGNED NOT NULL DEFAULT 250,
  ADD COLUMN recount_minor BIGINT NOT NULL DEFAULT 5000;

-- What is counted again and again: everything at a place, a category, what lies on a shelf, or marked items.
CREATE TABLE count_plan (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  what ENUM('all','category','shelf','marked') NOT NULL,
  category VARCHAR(250) NOT NULL DEFAULT '',
  shelf VARCHAR(40) NOT NULL DEFAULT '',
  every_days SMALLINT UNSIGNED NOT NULL,
  blind TINYINT(1) NOT NULL,
  next_on DATE NOT NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY count_plan_name (location_id, name),
  FOREIGN KEY (location_id) REFERENCES location (id),
  CONSTRAINT count_plan_rhythm CHECK (every_days > 0)
);

CREATE TABLE count_plan_item (
  plan_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  PRIMARY KEY (plan_id, item_id),
  FOREIGN KEY (plan_id) REFERENCES count_plan (id) ON DELETE CASCADE,
  FOREIGN KEY (item_id) REFERENCES item (id)
);

-- A sheet that is being counted; posted as one document.
CREATE TABLE stock_count (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  number VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL UNIQUE,
  name VARCHAR(120) NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  plan_id INT UNSIGNED NULL,
  state ENUM('open','posted','dropped') NOT NULL DEFAULT 'open',
  blind TINYINT(1) NOT NULL,
  begun_by INT UNSIGNED NOT NULL,
  begun_at DATETIME(3) NOT NULL,
  business_date DATE NOT NULL,
  ended_by INT UNSIGNED NULL,
  ended_at DATETIME(3) NULL,
  document_id BIGINT UNSIGNED NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  KEY stock_count_state (state, location_id),
  FOREIGN KEY (location_id) REFERENCES location (id),
  FOREIGN KEY (plan_id) REFERENCES count_plan (id) ON DELETE SET NULL,
  FOREIGN KEY (begun_by) REFERENCES app_user (id),
  FOREIGN KEY (ended_by) REFERENCES app_user (id),
  FOREIGN KEY (document_id) REFERENCES stock_document (id)
);

-- Of each figure also what the books said at the moment it was counted: what moves afterwards does not blur the difference.
CREATE TABLE stock_count_line (
  count_id BIGINT UNSIGNED NOT NULL,
  line_no INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  counted DECIMAL(18,6) NULL,
  counted_expected DECIMAL(18,6) NULL,
  counted_by INT UNSIGNED NULL,
  counted_at DATETIME(3) NULL,
  again DECIMAL(18,6) NULL,
  again_expected DECIMAL(18,6) NULL,
  again_by INT UNSIGNED NULL,
  again_at DATETIME(3) NULL,
  reason_id INT UNSIGNED NULL,
  note VARCHAR(200) NOT NULL DEFAULT '',
  PRIMARY KEY (count_id, line_no),
  UNIQUE KEY count_item (count_id, item_id),
  FOREIGN KEY (count_id) REFERENCES stock_count (id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (counted_by) REFERENCES app_user (id),
  FOREIGN KEY (again_by) REFERENCES app_user (id),
  FOREIGN KEY (reason_id) REFERENCES stock_reason (id),
  CONSTRAINT count_not_below_zero CHECK (counted >= 0 AND again >= 0),
  CONSTRAINT counted_whole CHECK ((counted IS NULL) = (counted_expected IS NULL) AND (again IS NULL) = (again_expected IS NULL))
);

-- Why a line of a count differs.
-- kit_line: what a kit on that line took of this item when it was sold.
ALTER TABLE stock_document_line
  ADD COLUMN kit_line INT UNSIGNED NULL,
  ADD COLUMN reason_id INT UNSIGNED NULL,
  ADD FOREIGN KEY (reason_id) REFERENCES stock_reason (id);

-- use: what a count found of an item whose use nobody records.
ALTER TABLE movement
  MODIFY kind ENUM('opening','receipt','sale','correction','transfer','count','use','value','receipt_reversal','late_charge','cost_adjustment') NOT NULL;

-- A day of a place whose sales have come from the till: it is taken once.
CREATE TABLE till_day (
  location_id INT UNSIGNED NOT NULL,
  day DATE NOT NULL,
  document_id BIGINT UNSIGNED NULL,
  taken_at DATETIME(3) NOT NULL,
  PRIMARY KEY (location_id, day),
  FOREIGN KEY (location_id) REFERENCES location (id),
  FOREIGN KEY (document_id) REFERENCES stock_document (id)
);

-- Where alerts reach a person; what each wants to hear of, and how soon.
ALTER TABLE app_user ADD COLUMN mail VARCHAR(200) NOT NULL DEFAULT '';

CREATE TABLE alert_rule (
  user_id INT UNSIGNED NOT NULL,
  matter ENUM('below_min','above_max','below_zero','transfer_asked','count_due') NOT NULL,
  how ENUM('at_once','daily') NOT NULL,
  by_mail TINYINT(1) NOT NULL,
  PRIMARY KEY (user_id, matter),
  FOREIGN KEY (user_id) REFERENCES app_user (id)
);

-- One for each matter while it lasts: raised once, ended when it is over; what comes again is another.
CREATE TABLE alert (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  user_id INT UNSIGNED NOT NULL,
  matter ENUM('below_min','above_max','below_zero','transfer_asked','count_due') NOT NULL,
  matter_key VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
  item_id INT UNSIGNED NULL,
  location_id INT UNSIGNED NULL,
  ref_id BIGINT UNSIGNED NULL,
  raised_at DATETIME(3) NOT NULL,
  seen_at DATETIME(3) NULL,
  ended_at DATETIME(3) NULL,
  live TINYINT(1) AS (IF(ended_at IS NULL, 1, NULL)) PERSISTENT,
  UNIQUE KEY alert_once (user_id, matter, matter_key, live),
  KEY alert_age (ended_at),
  FOREIGN KEY (user_id) REFERENCES app_user (id)
);

-- A lot or a serial number of an item; a serial number has the cost it came with. Without a best-before date lots are dye
-- lots, which are not mixed on a line.
CREATE TABLE lot (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  item_id INT UNSIGNED NOT NULL,
  code VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
  best_before DATE NULL,
  cost_minor BIGINT NULL,
  made_at DATETIME(3) NOT NULL,
  UNIQUE KEY lot_code (item_id, code),
  KEY lot_search (code),
  FOREIGN KEY (item_id) REFERENCES item (id)
);

-- What is left of a lot at a place; what of a level is in no lot is not known by lot.
CREATE TABLE lot_level (
  lot_id BIGINT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  quantity DECIMAL(18,6) NOT NULL,
  PRIMARY KEY (lot_id, location_id),
  KEY lot_level_place (location_id),
  FOREIGN KEY (lot_id) REFERENCES lot (id),
  FOREIGN KEY (location_id) REFERENCES location (id),
  CONSTRAINT lot_not_below_zero CHECK (quantity >= 0)
);

-- The part of a movement that is of a lot.
CREATE TABLE movement_lot (
  item_id INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  posting INT UNSIGNED NOT NULL,
  lot_id BIGINT UNSIGNED NOT NULL,
  quantity DECIMAL(18,6) NOT NULL,
  PRIMARY KEY (item_id, location_id, posting, lot_id),
  KEY movement_of_lot (lot_id),
  FOREIGN KEY (lot_id) REFERENCES lot (id)
);
