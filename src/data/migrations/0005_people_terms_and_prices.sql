-- People with roles of their own, what buying depends on besides price lists, and what is said of places and calendars.

-- Rights of a role that the company made itself, as a JSON array of their names. The built-in roles stand in the program.
CREATE TABLE own_role (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL UNIQUE,
  rights VARCHAR(2000) NOT NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  CONSTRAINT role_rights CHECK (JSON_VALID(rights))
);

-- role: a built-in one, or 'own-' and the id of one's own. Without a password nobody signs in. locale: '' = the browser's.
ALTER TABLE app_user
  MODIFY role VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  MODIFY password_hash VARCHAR(200) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
  ADD COLUMN locale VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
  ADD COLUMN version INT UNSIGNED NOT NULL DEFAULT 1;

-- A link with which somebody sets a password, once.
CREATE TABLE invitation (
  token_hash BINARY(32) NOT NULL PRIMARY KEY,
  user_id INT UNSIGNED NOT NULL,
  expires_at DATETIME(3) NOT NULL,
  created_by INT UNSIGNED NOT NULL,
  KEY invitation_user (user_id),
  FOREIGN KEY (user_id) REFERENCES app_user (id)
);

-- A list as somebody likes to see it: the query of its address.
CREATE TABLE saved_view (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  user_id INT UNSIGNED NOT NULL,
  page VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  name VARCHAR(60) NOT NULL,
  query VARCHAR(1000) NOT NULL,
  shared TINYINT(1) NOT NULL DEFAULT 0,
  UNIQUE KEY view_name (user_id, page, name),
  KEY view_page (page, shared),
  FOREIGN KEY (user_id) REFERENCES app_user (id)
);

ALTER TABLE change_record ADD KEY change_time (at);

-- Which cost is proposed first where no supplier's price applies; what own item numbers begin with.
ALTER TABLE company
  ADD COLUMN cost_order ENUM('standard_first','last_first') NOT NULL DEFAULT 'standard_first',
  ADD COLUMN item_prefix VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'N';

-- Who buys it: said of the item, else of its category or one above, else of its supplier.
ALTER TABLE category ADD COLUMN buyer_id INT UNSIGNED NULL, ADD FOREIGN KEY (buyer_id) REFERENCES app_user (id);

-- straight: sold straight from the supplier to the customer. to_complete: made in the middle of other work.
ALTER TABLE item
  ADD COLUMN buyer_id INT UNSIGNED NULL,
  ADD COLUMN straight TINYINT(1) NOT NULL DEFAULT 0,
  ADD COLUMN straight_supplier_id INT UNSIGNED NULL,
  ADD COLUMN to_complete TINYINT(1) NOT NULL DEFAULT 0,
  ADD KEY item_to_complete (to_complete),
  ADD FOREIGN KEY (buyer_id) REFERENCES app_user (id),
  ADD FOREIGN KEY (straight_supplier_id) REFERENCES supplier (id);

-- straight empty = as the item says.
ALTER TABLE item_place
  MODIFY shelf VARCHAR(40) NOT NULL DEFAULT '',
  ADD COLUMN straight TINYINT(1) NULL,
  ADD COLUMN straight_supplier_id INT UNSIGNED NULL,
  ADD FOREIGN KEY (straight_supplier_id) REFERENCES supplier (id);

CREATE TABLE shipping_way (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL UNIQUE,
  note VARCHAR(200) NOT NULL DEFAULT ''
);

-- Tolerances: so much more or less than ordered, so many days beside the promise. The order minimum is compared with goods
-- before or after the discount on the whole order.
ALTER TABLE supplier
  ADD COLUMN shipping_way_id INT UNSIGNED NULL,
  ADD COLUMN minimum_base ENUM('before_discount','after_discount') NOT NULL DEFAULT 'before_discount',
  ADD COLUMN over_percent DECIMAL(6,3) NULL,
  ADD COLUMN under_percent DECIMAL(6,3) NULL,
  ADD COLUMN date_tolerance_days SMALLINT UNSIGNED NULL,
  ADD COLUMN tax_regime ENUM('domestic','within_union','import','exempt') NOT NULL DEFAULT 'domestic',
  ADD COLUMN buyer_id INT UNSIGNED NULL,
  ADD FOREIGN KEY (shipping_way_id) REFERENCES shipping_way (id),
  ADD FOREIGN KEY (buyer_id) REFERENCES app_user (id);

-- Besides the supplier's own address and contact.
CREATE TABLE supplier_contact (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  supplier_id INT UNSIGNED NOT NULL,
  name VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
  kind ENUM('order_address','contact') NOT NULL,
  address VARCHAR(400) NOT NULL DEFAULT '',
  email VARCHAR(200) NOT NULL DEFAULT '',
  phone VARCHAR(40) NOT NULL DEFAULT '',
  note VARCHAR(200) NOT NULL DEFAULT '',
  UNIQUE KEY contact_name (supplier_id, name),
  FOREIGN KEY (supplier_id) REFERENCES supplier (id)
);

-- Days on which a supplier makes nothing, or on which nothing is received at a place (or, without one, anywhere).
CREATE TABLE closed_days (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  supplier_id INT UNSIGNED NULL,
  location_id INT UNSIGNED NULL,
  of_supplier INT UNSIGNED AS (COALESCE(supplier_id, 0)) PERSISTENT,
  of_location INT UNSIGNED AS (COALESCE(location_id, 0)) PERSISTENT,
  from_day DATE NOT NULL,
  to_day DATE NOT NULL,
  name VARCHAR(80) NOT NULL DEFAULT '',
  UNIQUE KEY closed_identity (of_supplier, of_location, from_day),
  FOREIGN KEY (supplier_id) REFERENCES supplier (id),
  FOREIGN KEY (location_id) REFERENCES location (id),
  CONSTRAINT closed_order CHECK (to_day >= from_day AND (supplier_id IS NULL OR location_id IS NULL))
);

-- share: of what is bought, so many percent here. break_scope: over what breaks are counted.
ALTER TABLE source
  ADD COLUMN share_percent DECIMAL(6,3) NULL,
  ADD COLUMN break_scope ENUM('line','item','price_group') NOT NULL DEFAULT 'item';

-- Rank and share where a place differs.
CREATE TABLE source_place (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  source_id INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  preference SMALLINT UNSIGNED NULL,
  share_percent DECIMAL(6,3) NULL,
  UNIQUE KEY source_place_pair (source_id, location_id),
  FOREIGN KEY (source_id) REFERENCES source (id),
  FOREIGN KEY (location_id) REFERENCES location (id)
);

-- Who set a price when, and why.
ALTER TABLE price
  ADD COLUMN reason VARCHAR(120) NOT NULL DEFAULT '',
  ADD COLUMN set_by INT UNSIGNED NULL,
  ADD COLUMN set_at DATETIME(3) NULL;

-- Empty pack = per base unit, empty place = everywhere.
CREATE TABLE sale_price (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  item_id INT UNSIGNED NOT NULL,
  pack_id INT UNSIGNED NULL,
  location_id INT UNSIGNED NULL,
  of_pack INT UNSIGNED AS (COALESCE(pack_id, 0)) PERSISTENT,
  of_location INT UNSIGNED AS (COALESCE(location_id, 0)) PERSISTENT,
  amount DECIMAL(18,6) NOT NULL,
  with_tax TINYINT(1) NOT NULL DEFAULT 1,
  tax_rate DECIMAL(6,3) NULL,
  UNIQUE KEY sale_price_identity (item_id, of_pack, of_location),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (pack_id) REFERENCES pack (id),
  FOREIGN KEY (location_id) REFERENCES location (id),
  CONSTRAINT sale_price_positive CHECK (amount >= 0)
);

-- A charge or allowance as a supplier usually has it; without a supplier a kind that any order may take.
-- on_charges: names of earlier charges that a percentage counts as well, parted by semicolons.
CREATE TABLE charge_type (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  supplier_id INT UNSIGNED NULL,
  of_supplier INT UNSIGNED AS (COALESCE(supplier_id, 0)) PERSISTENT,
  position SMALLINT UNSIGNED NOT NULL DEFAULT 1,
  name VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
  sign ENUM('charge','allowance') NOT NULL DEFAULT 'charge',
  amount_kind ENUM('asked','fixed','percent','duty') NOT NULL,
  amount DECIMAL(18,6) NULL,
  currency CHAR(3) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
  on_charges VARCHAR(400) NOT NULL DEFAULT '',
  spread ENUM('value','quantity','weight','volume','even') NOT NULL DEFAULT 'value',
  into_cost ENUM('stock','expense','recoverable') NOT NULL DEFAULT 'stock',
  account VARCHAR(20) NOT NULL DEFAULT '',
  UNIQUE KEY charge_name (of_supplier, name),
  FOREIGN KEY (supplier_id) REFERENCES supplier (id)
);

CREATE TABLE duty_rate (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  hs_prefix VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  origin CHAR(2) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
  percent DECIMAL(7,3) NOT NULL,
  valid_from DATE NOT NULL,
  valid_to DATE NULL,
  UNIQUE KEY duty_identity (hs_prefix, origin, valid_from)
);

-- Packs that many items have alike; each item that takes the pattern has its own copy.
CREATE TABLE pack_pattern (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  pattern VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
  pack VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
  content VARCHAR(40) NOT NULL,
  of_pack VARCHAR(60) NOT NULL DEFAULT '',
  unit VARCHAR(3) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
  buying TINYINT(1) NOT NULL DEFAULT 0,
  selling TINYINT(1) NOT NULL DEFAULT 0,
  sending TINYINT(1) NOT NULL DEFAULT 0,
  UNIQUE KEY pattern_pack (pattern, pack)
);

ALTER TABLE location ADD COLUMN status ENUM('active','closed') NOT NULL DEFAULT 'active';

-- An order keeps the rate it was approved at, as quoted; empty where it is in the company's own currency.
ALTER TABLE purchase_order
  ADD COLUMN rate DECIMAL(20,10) NULL,
  ADD COLUMN rate_direction ENUM('base_per_foreign','foreign_per_base') NULL,
  ADD COLUMN rate_date DATE NULL,
  ADD COLUMN shipping_way VARCHAR(60) NOT NULL DEFAULT '',
  ADD COLUMN order_text VARCHAR(400) NOT NULL DEFAULT '';

-- price_origin: where a price that is not on a list was proposed from. unordered: came without being ordered, and was
-- entered when it was booked in.
ALTER TABLE order_line
  ADD COLUMN price_origin ENUM('standard_cost','last_price') NULL,
  ADD COLUMN unordered TINYINT(1) NOT NULL DEFAULT 0;

-- What came in is worth value_minor in the company's currency, at the rate of its day, and order_minor in that of the order.
-- received_value_minor of a delivery part is the sum of the latter, so that parts of a line add up to it.
ALTER TABLE goods_receipt_line ADD COLUMN order_minor BIGINT NULL;
UPDATE goods_receipt_line SET order_minor = value_minor;
ALTER TABLE goods_receipt_line MODIFY order_minor BIGINT NOT NULL;

-- Whether a line moved stock: not that of an item whose stock was not kept when it was posted.
ALTER TABLE goods_receipt_line ADD KEY receipt_item (item_id), ADD COLUMN moves_stock TINYINT(1) NOT NULL DEFAULT 1;
ALTER TABLE stock_document_line ADD COLUMN moves_stock TINYINT(1) NOT NULL DEFAULT 1;

-- Whether anything that items are found by has changed is read with every search: from these keys alone.
ALTER TABLE item ADD KEY item_version (version);
ALTER TABLE source ADD KEY source_version (version);
