-- Every way to refill, said at four levels; the network of places; what policies are reckoned from.

-- Of an item everywhere (location_id empty) or at one place. An empty value follows the next wider level: place, item,
-- category and those above it, company. special: says more than kind, min, max, trigger and refill.
ALTER TABLE policy DROP CONSTRAINT policy_order;
ALTER TABLE policy
  MODIFY kind ENUM('min_max','fixed_quantity','periodic','days_of_cover','lot_for_lot','per_demand','phase_out','not_carried') NULL,
  ADD COLUMN fixed_quantity DECIMAL(18,6) NULL AFTER max_quantity,
  ADD COLUMN cover_days SMALLINT UNSIGNED NULL AFTER fixed_quantity,
  ADD COLUMN safety_quantity DECIMAL(18,6) NULL AFTER cover_days,
  ADD COLUMN window_days SMALLINT UNSIGNED NULL AFTER safety_quantity,
  ADD COLUMN use_stock TINYINT(1) NULL AFTER window_days,
  ADD COLUMN keep_safety TINYINT(1) NULL AFTER use_stock,
  ADD COLUMN display_minimum DECIMAL(18,6) NULL AFTER keep_safety,
  ADD COLUMN reserve_quantity DECIMAL(18,6) NULL AFTER display_minimum,
  ADD COLUMN rounding ENUM('up','nearest','none') NULL AFTER refill_rule,
  ADD COLUMN supply ENUM('supplier','place') NULL AFTER rounding,
  ADD COLUMN supply_location_id INT UNSIGNED NULL AFTER supply,
  ADD COLUMN target_kind ENUM('cycle_service','fill_rate') NULL AFTER supply_location_id,
  ADD COLUMN target_thousandths SMALLINT UNSIGNED NULL AFTER target_kind,
  ADD COLUMN special TINYINT(1) AS (
    fixed_quantity IS NOT NULL OR cover_days IS NOT NULL OR safety_quantity IS NOT NULL OR window_days IS NOT NULL
    OR use_stock IS NOT NULL OR keep_safety IS NOT NULL OR display_minimum IS NOT NULL OR reserve_quantity IS NOT NULL
    OR rounding IS NOT NULL OR supply IS NOT NULL OR supply_location_id IS NOT NULL OR target_kind IS NOT NULL
    OR target_thousandths IS NOT NULL OR (kind IS NOT NULL AND kind NOT IN ('min_max', 'not_carried', 'phase_out'))) PERSISTENT,
  ADD KEY policy_special (special),
  ADD FOREIGN KEY (supply_location_id) REFERENCES location (id),
  ADD CONSTRAINT policy_order CHECK (max_quantity IS NULL OR min_quantity IS NULL OR min_quantity <= max_quantity);

-- A place that said only its minimum refilled up to it; values are now followed one by one, so it says so.
UPDATE policy p JOIN policy e ON e.item_id = p.item_id AND e.scope = 0
   SET p.refill_rule = 'up_to_min'
 WHERE p.scope <> 0 AND p.kind = 'min_max' AND p.max_quantity IS NULL AND p.min_quantity IS NOT NULL AND e.max_quantity IS NOT NULL;

-- The same for a category, or without one for the company.
CREATE TABLE policy_default (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  category_id INT UNSIGNED NULL,
  of_category INT UNSIGNED AS (COALESCE(category_id, 0)) PERSISTENT,
  kind ENUM('min_max','fixed_quantity','periodic','days_of_cover','lot_for_lot','per_demand','phase_out','not_carried') NULL,
  min_quantity DECIMAL(18,6) NULL,
  max_quantity DECIMAL(18,6) NULL,
  fixed_quantity DECIMAL(18,6) NULL,
  cover_days SMALLINT UNSIGNED NULL,
  safety_quantity DECIMAL(18,6) NULL,
  window_days SMALLINT UNSIGNED NULL,
  use_stock TINYINT(1) NULL,
  keep_safety TINYINT(1) NULL,
  display_minimum DECIMAL(18,6) NULL,
  reserve_quantity DECIMAL(18,6) NULL,
  trigger_rule ENUM('at_or_below','strictly_below') NULL,
  refill_rule ENUM('up_to_max','up_to_min') NULL,
  rounding ENUM('up','nearest','none') NULL,
  supply ENUM('supplier','place') NULL,
  target_kind ENUM('cycle_service','fill_rate') NULL,
  target_thousandths SMALLINT UNSIGNED NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY default_category (of_category),
  FOREIGN KEY (category_id) REFERENCES category (id),
  CONSTRAINT default_order CHECK (max_quantity IS NULL OR min_quantity IS NULL OR min_quantity <= max_quantity)
);

-- Min and max of a part of the year (every_year: the year of its days does not matter) or of a span of days.
CREATE TABLE policy_season (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  item_id INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NULL,
  of_location INT UNSIGNED AS (COALESCE(location_id, 0)) PERSISTENT,
  from_day DATE NOT NULL,
  to_day DATE NOT NULL,
  every_year TINYINT(1) NOT NULL DEFAULT 1,
  min_quantity DECIMAL(18,6) NULL,
  max_quantity DECIMAL(18,6) NULL,
  UNIQUE KEY season_identity (item_id, of_location, from_day),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (location_id) REFERENCES location (id),
  CONSTRAINT season_order CHECK (max_quantity IS NULL OR min_quantity IS NULL OR min_quantity <= max_quantity)
);

-- Days on the road from the place that supplies it.
ALTER TABLE location ADD COLUMN travel_days TINYINT UNSIGNED NOT NULL DEFAULT 1 AFTER van_days;

-- Limits of the classes in thousandths; which lead time counts, from how many measured ones on, and from how many on each of
-- them is taken as it was.
ALTER TABLE company
  ADD COLUMN abc_a SMALLINT UNSIGNED NOT NULL DEFAULT 800,
  ADD COLUMN abc_b SMALLINT UNSIGNED NOT NULL DEFAULT 950,
  ADD COLUMN xyz_x SMALLINT UNSIGNED NOT NULL DEFAULT 500,
  ADD COLUMN xyz_y SMALLINT UNSIGNED NOT NULL DEFAULT 1000,
  ADD COLUMN lead_time_rule ENUM('measured','stated') NOT NULL DEFAULT 'measured',
  ADD COLUMN lead_time_least SMALLINT UNSIGNED NOT NULL DEFAULT 5,
  ADD COLUMN lead_time_empirical SMALLINT UNSIGNED NOT NULL DEFAULT 20;

-- How much a day's use varies, over how many days it was measured, and the classes that follow.
ALTER TABLE demand_rate
  ADD COLUMN sd_per_day DECIMAL(18,6) NOT NULL DEFAULT 0,
  ADD COLUMN days_counted SMALLINT UNSIGNED NOT NULL DEFAULT 0,
  -- What a year of it costs, for the classes by value; NULL where no cost is known. Weekly variation in thousandths.
  ADD COLUMN annual_minor BIGINT NULL,
  ADD COLUMN variation_thousandths INT UNSIGNED NULL,
  ADD COLUMN abc ENUM('A','B','C') NULL,
  ADD COLUMN xyz ENUM('X','Y','Z') NULL;
UPDATE company SET demand_as_of = NULL;

-- Calendar days from order to receipt, measured once a day; observed: the latest ones, as a JSON array.
CREATE TABLE supplier_lead_time (
  supplier_id INT UNSIGNED NOT NULL PRIMARY KEY,
  n INT UNSIGNED NOT NULL,
  mean_days DECIMAL(9,4) NOT NULL,
  sd_days DECIMAL(9,4) NULL,
  median_days DECIMAL(9,4) NOT NULL,
  p90_days DECIMAL(9,4) NOT NULL,
  observed VARCHAR(1000) NOT NULL,
  measured_on DATE NOT NULL,
  FOREIGN KEY (supplier_id) REFERENCES supplier (id),
  CONSTRAINT observed_json CHECK (JSON_VALID(observed))
);

-- The levels of the plan in force, what is planned for places that are sent to, what is coming one to one for lines they
-- asked for (in no position), what is beyond the maximum, and whether what lies there has come to the minimum.
-- supply_location_id: sent by that place. plan: what is asked of the pair besides its stock, so that it can be run again by
-- itself when only its stock has moved; null where it can't.
ALTER TABLE item_location_state
  ADD COLUMN planned DECIMAL(18,6) NOT NULL DEFAULT 0 AFTER owed,
  ADD COLUMN pegged DECIMAL(18,6) NOT NULL DEFAULT 0 AFTER planned,
  ADD COLUMN level_quantity DECIMAL(18,6) NULL AFTER position_quantity,
  ADD COLUMN max_quantity DECIMAL(18,6) NULL AFTER level_quantity,
  ADD COLUMN excess DECIMAL(18,6) NOT NULL DEFAULT 0 AFTER cover_days,
  ADD COLUMN below_min TINYINT(1) NOT NULL DEFAULT 0 AFTER excess,
  ADD COLUMN supply_location_id INT UNSIGNED NULL AFTER source_id,
  ADD COLUMN plan VARCHAR(400) CHARACTER SET ascii NULL,
  ADD CONSTRAINT plan_json CHECK (plan IS NULL OR JSON_VALID(plan)),
  ADD KEY state_below (below_min),
  ADD KEY state_excess (excess);

-- what: since the pair was recomputed last only its stock has moved, or anything.
ALTER TABLE dirty_pair ADD COLUMN what ENUM('stock','all') NOT NULL DEFAULT 'all';

-- peg_of: what `peg` is the number of. A line that another place asks for and that is bought for one to one has a need of
-- its own; the ordinary demand of a pair has peg 0.
ALTER TABLE need
  MODIFY cause SET('below_min','dated_demand','shop_asks','supply_cut') NOT NULL,
  ADD COLUMN supply_location_id INT UNSIGNED NULL AFTER source_id,
  ADD COLUMN peg_of ENUM('pair','transfer_line') NOT NULL DEFAULT 'pair' AFTER location_id,
  DROP KEY need_identity,
  ADD UNIQUE KEY need_identity (item_id, location_id, peg_of, peg),
  ADD KEY need_pegs (peg, peg_of);

-- A transfer is asked for by a place or decided by the buyer, approved in full or less, shipped, received.
ALTER TABLE transfer
  MODIFY state ENUM('requested','approved','shipped','received','refused','cancelled') NOT NULL,
  MODIFY shipped_by INT UNSIGNED NULL,
  MODIFY shipped_at DATETIME(3) NULL,
  ADD COLUMN wanted_date DATE NULL,
  ADD COLUMN note VARCHAR(200) NOT NULL DEFAULT '',
  ADD COLUMN refused_because VARCHAR(200) NOT NULL DEFAULT '',
  ADD COLUMN requested_by INT UNSIGNED NULL,
  ADD COLUMN requested_at DATETIME(3) NULL,
  ADD COLUMN approved_by INT UNSIGNED NULL,
  ADD COLUMN approved_at DATETIME(3) NULL,
  ADD KEY transfer_from (from_location_id, state),
  ADD FOREIGN KEY (requested_by) REFERENCES app_user (id),
  ADD FOREIGN KEY (approved_by) REFERENCES app_user (id);

-- asked: what the place wants; approved: what it gets, promised by its allocation until it is shipped.
ALTER TABLE transfer_line DROP CONSTRAINT transfer_positive;
ALTER TABLE transfer_line
  MODIFY shipped DECIMAL(18,6) NOT NULL DEFAULT 0,
  MODIFY shipped_value_minor BIGINT NOT NULL DEFAULT 0,
  ADD COLUMN asked DECIMAL(18,6) NOT NULL DEFAULT 0,
  ADD COLUMN approved DECIMAL(18,6) NOT NULL DEFAULT 0,
  ADD COLUMN allocation_id BIGINT UNSIGNED NULL,
  ADD COLUMN decision_id BIGINT UNSIGNED NULL,
  ADD KEY transfer_line_decision (decision_id),
  ADD FOREIGN KEY (allocation_id) REFERENCES allocation (id),
  ADD FOREIGN KEY (decision_id) REFERENCES decision (id),
  ADD CONSTRAINT transfer_positive CHECK (shipped >= 0 AND received >= 0 AND lost >= 0 AND received + lost <= shipped
    AND asked >= 0 AND approved >= 0);
UPDATE transfer_line SET asked = shipped, approved = shipped;

-- Why stock is put right. own_use: what leaves for it was used here, not lost.
CREATE TABLE stock_reason (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL UNIQUE,
  own_use TINYINT(1) NOT NULL DEFAULT 0,
  note VARCHAR(200) NOT NULL DEFAULT ''
);
INSERT INTO stock_reason (name, own_use, note) VALUES
  ('Damaged', 0, ''), ('Missing', 0, 'not found where it should be'), ('Found', 0, ''), ('Own use', 1, 'used in the shop or for samples'),
  ('Wrongly booked', 0, 'another item, place or pack was meant');

-- Of a correction: quantity = what is added or taken, expected = what the books said before.
ALTER TABLE stock_document
  MODIFY kind ENUM('sale','count','correction') NOT NULL,
  ADD COLUMN reason_id INT UNSIGNED NULL,
  ADD FOREIGN KEY (reason_id) REFERENCES stock_reason (id);
ALTER TABLE movement
  MODIFY document_kind ENUM('receipt','opening','sales_day','sale','count','transfer','correction') NOT NULL,
  ADD KEY movement_day (business_date, id);
