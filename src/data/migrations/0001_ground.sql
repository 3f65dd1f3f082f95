-- Quantities are DECIMAL(18,6) in base units (or packs where said), money is BIGINT minor units, prices DECIMAL(18,6).
-- Codes compare byte by byte. Times are UTC; a business date is a DATE in the company's time zone.

CREATE TABLE company (
  id TINYINT UNSIGNED NOT NULL PRIMARY KEY,
  name VARCHAR(120) NOT NULL,
  currency CHAR(3) NOT NULL,
  time_zone VARCHAR(60) NOT NULL,
  trigger_rule ENUM('at_or_below','strictly_below') NOT NULL,
  refill_rule ENUM('up_to_max','up_to_min') NOT NULL,
  invoice_address VARCHAR(400) NOT NULL,
  needs_as_of DATE NULL,
  CONSTRAINT one_company CHECK (id = 1)
);

CREATE TABLE location (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  code VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL UNIQUE,
  name VARCHAR(120) NOT NULL,
  kind ENUM('shop','warehouse') NOT NULL,
  address VARCHAR(400) NOT NULL,
  sort_order SMALLINT NOT NULL
);

CREATE TABLE app_user (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  login VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL UNIQUE,
  name VARCHAR(120) NOT NULL,
  initials VARCHAR(4) NOT NULL,
  role ENUM('buyer','owner','shop','bookkeeper') NOT NULL,
  approval_limit_minor BIGINT NULL,
  password_hash VARCHAR(200) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  active TINYINT(1) NOT NULL DEFAULT 1
);

CREATE TABLE app_user_location (
  user_id INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  PRIMARY KEY (user_id, location_id),
  FOREIGN KEY (user_id) REFERENCES app_user (id),
  FOREIGN KEY (location_id) REFERENCES location (id)
);

CREATE TABLE session (
  token_hash BINARY(32) NOT NULL PRIMARY KEY,
  user_id INT UNSIGNED NOT NULL,
  created_at DATETIME(3) NOT NULL,
  rotated_at DATETIME(3) NOT NULL,
  last_seen_at DATETIME(3) NOT NULL,
  expires_at DATETIME(3) NOT NULL,
  replaced_by BINARY(32) NULL,
  KEY session_user (user_id),
  KEY session_expiry (expires_at),
  FOREIGN KEY (user_id) REFERENCES app_user (id)
);

CREATE TABLE sign_in_attempt (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  login VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
  address VARCHAR(60) NOT NULL,
  at DATETIME(3) NOT NULL,
  KEY attempt_login (login, at),
  KEY attempt_address (address, at)
);

CREATE TABLE category (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(120) NOT NULL UNIQUE
);

CREATE TABLE item (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  number VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL UNIQUE,
  name VARCHAR(200) NOT NULL,
  category_id INT UNSIGNED NOT NULL,
  base_unit VARCHAR(3) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  unit_name VARCHAR(30) NOT NULL,
  status ENUM('active','phase_out','stopped') NOT NULL DEFAULT 'active',
  version INT UNSIGNED NOT NULL DEFAULT 1,
  KEY item_category (category_id),
  FOREIGN KEY (category_id) REFERENCES category (id)
);

-- count_num/count_den of another pack of the item (of_pack_id), or of base units.
CREATE TABLE pack (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  item_id INT UNSIGNED NOT NULL,
  name VARCHAR(60) NOT NULL,
  count_num BIGINT NOT NULL,
  count_den BIGINT NOT NULL,
  of_pack_id INT UNSIGNED NULL,
  UNIQUE KEY pack_name (item_id, name),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (of_pack_id) REFERENCES pack (id),
  CONSTRAINT pack_positive CHECK (count_num > 0 AND count_den > 0)
);

CREATE TABLE supplier (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  code VARCHAR(20) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL UNIQUE,
  name VARCHAR(120) NOT NULL,
  address VARCHAR(400) NOT NULL,
  email VARCHAR(200) NOT NULL,
  currency CHAR(3) NOT NULL,
  payment_terms VARCHAR(120) NOT NULL,
  delivery_terms VARCHAR(120) NOT NULL,
  order_minimum_minor BIGINT NOT NULL DEFAULT 0,
  lead_time_days SMALLINT UNSIGNED NOT NULL,
  lead_time_kind ENUM('working','calendar') NOT NULL,
  status ENUM('active','blocked') NOT NULL DEFAULT 'active',
  version INT UNSIGNED NOT NULL DEFAULT 1
);

CREATE TABLE source (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  item_id INT UNSIGNED NOT NULL,
  supplier_id INT UNSIGNED NOT NULL,
  preference SMALLINT UNSIGNED NOT NULL DEFAULT 1,
  supplier_item_number VARCHAR(60) NOT NULL DEFAULT '',
  pack_id INT UNSIGNED NULL,
  minimum_quantity DECIMAL(18,6) NOT NULL DEFAULT 0,
  multiple_packs INT UNSIGNED NOT NULL DEFAULT 1,
  rounding ENUM('up','nearest','none') NOT NULL DEFAULT 'up',
  UNIQUE KEY source_pair (item_id, supplier_id),
  KEY source_preference (item_id, preference),
  KEY source_supplier (supplier_id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (supplier_id) REFERENCES supplier (id),
  FOREIGN KEY (pack_id) REFERENCES pack (id),
  CONSTRAINT source_multiple CHECK (multiple_packs >= 1 AND minimum_quantity >= 0)
);

-- amount for per_quantity packs, from from_packs packs on; an empty pack means per base unit.
CREATE TABLE price (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  source_id INT UNSIGNED NOT NULL,
  from_packs DECIMAL(18,6) NOT NULL DEFAULT 0,
  valid_from DATE NOT NULL,
  valid_to DATE NULL,
  amount DECIMAL(18,6) NOT NULL,
  per_quantity DECIMAL(18,6) NOT NULL DEFAULT 1,
  pack_id INT UNSIGNED NULL,
  UNIQUE KEY price_step (source_id, from_packs, valid_from),
  FOREIGN KEY (source_id) REFERENCES source (id),
  FOREIGN KEY (pack_id) REFERENCES pack (id),
  CONSTRAINT price_positive CHECK (amount >= 0 AND per_quantity > 0)
);

-- location_id empty = every location; scope makes (item, every location) unique as well.
CREATE TABLE policy (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  item_id INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NULL,
  scope INT UNSIGNED AS (COALESCE(location_id, 0)) PERSISTENT,
  kind ENUM('min_max','not_carried') NOT NULL,
  min_quantity DECIMAL(18,6) NULL,
  max_quantity DECIMAL(18,6) NULL,
  trigger_rule ENUM('at_or_below','strictly_below') NULL,
  refill_rule ENUM('up_to_max','up_to_min') NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY policy_scope (item_id, scope),
  KEY policy_location (location_id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (location_id) REFERENCES location (id),
  CONSTRAINT policy_order CHECK (max_quantity IS NULL OR min_quantity <= max_quantity)
);

CREATE TABLE level (
  item_id INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  on_hand DECIMAL(18,6) NOT NULL DEFAULT 0,
  allocated DECIMAL(18,6) NOT NULL DEFAULT 0,
  inspection DECIMAL(18,6) NOT NULL DEFAULT 0,
  blocked DECIMAL(18,6) NOT NULL DEFAULT 0,
  value_minor BIGINT NOT NULL DEFAULT 0,
  last_posting INT UNSIGNED NOT NULL DEFAULT 0,
  PRIMARY KEY (item_id, location_id),
  KEY level_location (location_id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (location_id) REFERENCES location (id)
);

-- Append-only. posting counts up within an item and location; cost runs in that order.
CREATE TABLE movement (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  item_id INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  posting INT UNSIGNED NOT NULL,
  kind ENUM('opening','receipt','sale','correction','transfer','count','value') NOT NULL,
  business_date DATE NOT NULL,
  on_hand_change DECIMAL(18,6) NOT NULL,
  inspection_change DECIMAL(18,6) NOT NULL DEFAULT 0,
  blocked_change DECIMAL(18,6) NOT NULL DEFAULT 0,
  value_change_minor BIGINT NOT NULL,
  variance_minor BIGINT NOT NULL DEFAULT 0,
  document_kind ENUM('receipt','opening','sales_day') NOT NULL,
  document_id BIGINT UNSIGNED NULL,
  document_line INT UNSIGNED NULL,
  user_id INT UNSIGNED NULL,
  posted_at DATETIME(3) NOT NULL,
  UNIQUE KEY movement_posting (item_id, location_id, posting),
  KEY movement_document (document_kind, document_id),
  FOREIGN KEY (item_id, location_id) REFERENCES level (item_id, location_id)
);

CREATE TABLE item_location_state (
  item_id INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  on_hand DECIMAL(18,6) NOT NULL,
  blocked DECIMAL(18,6) NOT NULL,
  on_the_way DECIMAL(18,6) NOT NULL,
  in_trays DECIMAL(18,6) NOT NULL,
  owed DECIMAL(18,6) NOT NULL,
  position_quantity DECIMAL(18,6) NOT NULL,
  shortage DECIMAL(18,6) NOT NULL,
  suggested DECIMAL(18,6) NOT NULL,
  source_id INT UNSIGNED NULL,
  need_state ENUM('none','open','decided') NOT NULL,
  fingerprint BIGINT UNSIGNED NOT NULL,
  PRIMARY KEY (item_id, location_id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (location_id) REFERENCES location (id)
);

-- A mark is a fresh random number every time, so a mark that was cleared and set again is never taken for the old one.
CREATE TABLE dirty_pair (
  item_id INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  mark BIGINT UNSIGNED NOT NULL,
  PRIMARY KEY (item_id, location_id)
);

-- peg: 0 = ordinary demand of the pair; later the hard-pegged demand line.
CREATE TABLE need (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  item_id INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  peg BIGINT UNSIGNED NOT NULL DEFAULT 0,
  state ENUM('none','open','decided') NOT NULL,
  cause SET('below_min') NOT NULL,
  shortage DECIMAL(18,6) NOT NULL,
  suggested DECIMAL(18,6) NOT NULL,
  source_id INT UNSIGNED NULL,
  fingerprint VARCHAR(160) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  last_decision_id BIGINT UNSIGNED NULL,
  first_seen DATETIME(3) NOT NULL,
  changed_at DATETIME(3) NOT NULL,
  UNIQUE KEY need_identity (item_id, location_id, peg),
  KEY need_state (state),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (location_id) REFERENCES location (id)
);

CREATE TABLE decision (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  need_id BIGINT UNSIGNED NOT NULL,
  kind ENUM('accept','take_back') NOT NULL,
  fingerprint VARCHAR(160) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  shortage DECIMAL(18,6) NOT NULL,
  source_id INT UNSIGNED NULL,
  pack_id INT UNSIGNED NULL,
  pack_quantity DECIMAL(18,6) NOT NULL,
  base_quantity DECIMAL(18,6) NOT NULL,
  reckoning LONGTEXT NOT NULL,
  user_id INT UNSIGNED NOT NULL,
  decided_at DATETIME(3) NOT NULL,
  KEY decision_need (need_id),
  FOREIGN KEY (need_id) REFERENCES need (id),
  FOREIGN KEY (source_id) REFERENCES source (id),
  FOREIGN KEY (user_id) REFERENCES app_user (id),
  CONSTRAINT reckoning_json CHECK (JSON_VALID(reckoning))
);

CREATE TABLE tray_line (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  supplier_id INT UNSIGNED NOT NULL,
  decision_id BIGINT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  source_id INT UNSIGNED NOT NULL,
  pack_id INT UNSIGNED NULL,
  pack_quantity DECIMAL(18,6) NOT NULL,
  base_quantity DECIMAL(18,6) NOT NULL,
  state ENUM('in_tray','ordered','taken_back') NOT NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  created_by INT UNSIGNED NOT NULL,
  created_at DATETIME(3) NOT NULL,
  KEY tray_supplier (supplier_id, state),
  KEY tray_pair (item_id, location_id, state),
  FOREIGN KEY (supplier_id) REFERENCES supplier (id),
  FOREIGN KEY (decision_id) REFERENCES decision (id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (location_id) REFERENCES location (id),
  FOREIGN KEY (source_id) REFERENCES source (id),
  FOREIGN KEY (pack_id) REFERENCES pack (id),
  CONSTRAINT tray_positive CHECK (pack_quantity > 0 AND base_quantity > 0)
);

-- A draft has no number; it is drawn at approval and kept from then on.
CREATE TABLE purchase_order (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  number VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NULL UNIQUE,
  supplier_id INT UNSIGNED NOT NULL,
  state ENUM('draft','approved','sent','put_back','cancelled') NOT NULL,
  order_date DATE NOT NULL,
  currency CHAR(3) NOT NULL,
  payment_terms VARCHAR(120) NOT NULL,
  delivery_terms VARCHAR(120) NOT NULL,
  supplier_address VARCHAR(400) NOT NULL,
  created_by INT UNSIGNED NOT NULL,
  created_at DATETIME(3) NOT NULL,
  approved_by INT UNSIGNED NULL,
  approved_at DATETIME(3) NULL,
  sent_by INT UNSIGNED NULL,
  sent_at DATETIME(3) NULL,
  sent_how ENUM('printed','phone','email') NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  KEY order_state (state),
  KEY order_supplier (supplier_id),
  FOREIGN KEY (supplier_id) REFERENCES supplier (id),
  FOREIGN KEY (created_by) REFERENCES app_user (id),
  CONSTRAINT number_from_approval CHECK (state IN ('draft','put_back') OR number IS NOT NULL)
);

-- pack_quantity as entered; content = base units in a pack as it was; price = amount per price_per packs of price_content.
CREATE TABLE order_line (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  order_id BIGINT UNSIGNED NOT NULL,
  line_no INT UNSIGNED NOT NULL,
  kind ENUM('stock','non_stock','charge','service','straight_to_customer') NOT NULL,
  item_id INT UNSIGNED NULL,
  source_id INT UNSIGNED NULL,
  description VARCHAR(200) NOT NULL,
  supplier_item_number VARCHAR(60) NOT NULL DEFAULT '',
  pack_id INT UNSIGNED NULL,
  pack_name VARCHAR(60) NOT NULL,
  content_num BIGINT NOT NULL,
  content_den BIGINT NOT NULL,
  pack_quantity DECIMAL(18,6) NOT NULL,
  base_quantity DECIMAL(18,6) NOT NULL,
  price_amount DECIMAL(18,6) NULL,
  price_per DECIMAL(18,6) NOT NULL DEFAULT 1,
  price_content_num BIGINT NOT NULL,
  price_content_den BIGINT NOT NULL,
  expected_amount DECIMAL(18,6) NULL,
  free_of_charge TINYINT(1) NOT NULL DEFAULT 0,
  UNIQUE KEY order_line_no (order_id, line_no),
  KEY order_line_item (item_id),
  FOREIGN KEY (order_id) REFERENCES purchase_order (id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (source_id) REFERENCES source (id),
  FOREIGN KEY (pack_id) REFERENCES pack (id),
  CONSTRAINT stock_line_has_item CHECK (kind <> 'stock' OR item_id IS NOT NULL)
);

CREATE TABLE delivery_part (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  order_line_id BIGINT UNSIGNED NOT NULL,
  part_no INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NULL,
  pack_quantity DECIMAL(18,6) NOT NULL,
  base_quantity DECIMAL(18,6) NOT NULL,
  received_quantity DECIMAL(18,6) NOT NULL DEFAULT 0,
  received_packs DECIMAL(18,6) NOT NULL DEFAULT 0,
  received_value_minor BIGINT NOT NULL DEFAULT 0,
  cancelled_quantity DECIMAL(18,6) NOT NULL DEFAULT 0,
  wanted_date DATE NULL,
  promised_date DATE NULL,
  confirmed_date DATE NULL,
  tray_line_id BIGINT UNSIGNED NULL,
  UNIQUE KEY part_no (order_line_id, part_no),
  KEY part_location (location_id),
  KEY part_tray (tray_line_id),
  FOREIGN KEY (order_line_id) REFERENCES order_line (id),
  FOREIGN KEY (location_id) REFERENCES location (id),
  FOREIGN KEY (tray_line_id) REFERENCES tray_line (id),
  CONSTRAINT part_positive CHECK (pack_quantity >= 0 AND base_quantity >= 0 AND received_quantity >= 0)
);

CREATE TABLE goods_receipt (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  number VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL UNIQUE,
  order_id BIGINT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  business_date DATE NOT NULL,
  delivery_note VARCHAR(60) NOT NULL DEFAULT '',
  received_by INT UNSIGNED NOT NULL,
  received_at DATETIME(3) NOT NULL,
  KEY receipt_order (order_id),
  FOREIGN KEY (order_id) REFERENCES purchase_order (id),
  FOREIGN KEY (location_id) REFERENCES location (id),
  FOREIGN KEY (received_by) REFERENCES app_user (id)
);

CREATE TABLE goods_receipt_line (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  receipt_id BIGINT UNSIGNED NOT NULL,
  line_no INT UNSIGNED NOT NULL,
  delivery_part_id BIGINT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NULL,
  pack_quantity DECIMAL(18,6) NOT NULL,
  base_quantity DECIMAL(18,6) NOT NULL,
  value_minor BIGINT NOT NULL,
  UNIQUE KEY receipt_line_no (receipt_id, line_no),
  KEY receipt_part (delivery_part_id),
  FOREIGN KEY (receipt_id) REFERENCES goods_receipt (id),
  FOREIGN KEY (delivery_part_id) REFERENCES delivery_part (id),
  CONSTRAINT receipt_positive CHECK (base_quantity > 0)
);

CREATE TABLE number_counter (
  pattern VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  period VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  last_number INT UNSIGNED NOT NULL,
  PRIMARY KEY (pattern, period)
);

CREATE TABLE idempotency_key (
  user_id INT UNSIGNED NOT NULL,
  idem_key VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  payload_hash BINARY(32) NOT NULL,
  result LONGTEXT NULL,
  created_at DATETIME(3) NOT NULL,
  PRIMARY KEY (user_id, idem_key),
  KEY key_age (created_at)
);

-- Who did what, before and after.
CREATE TABLE change_record (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  at DATETIME(3) NOT NULL,
  user_id INT UNSIGNED NULL,
  entity VARCHAR(30) NOT NULL,
  entity_id BIGINT UNSIGNED NOT NULL,
  action VARCHAR(40) NOT NULL,
  before_json LONGTEXT NULL,
  after_json LONGTEXT NULL,
  KEY change_entity (entity, entity_id)
);
