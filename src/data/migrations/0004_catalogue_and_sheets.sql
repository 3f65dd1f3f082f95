-- The catalogue whole, what is brought in by spreadsheets, and the sheets themselves.

-- Categories are a tree; its paths are unique.
ALTER TABLE category
  ADD COLUMN parent_id INT UNSIGNED NULL,
  ADD COLUMN above INT UNSIGNED AS (COALESCE(parent_id, 0)) PERSISTENT,
  DROP KEY name,
  ADD UNIQUE KEY category_name (above, name),
  ADD FOREIGN KEY (parent_id) REFERENCES category (id);

-- An item in colours or sizes: up to two options. Breaks may count over a price group.
CREATE TABLE item_family (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL UNIQUE,
  option_1 VARCHAR(40) NOT NULL,
  option_2 VARCHAR(40) NOT NULL DEFAULT '',
  price_group VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL DEFAULT '',
  version INT UNSIGNED NOT NULL DEFAULT 1
);

-- Weight and volume are of one base unit. sale_decimals: how finely it is sold. edition: the latest one.
ALTER TABLE item
  ADD COLUMN maker VARCHAR(120) NOT NULL DEFAULT '',
  ADD COLUMN maker_number VARCHAR(60) NOT NULL DEFAULT '',
  ADD COLUMN sale_decimals TINYINT UNSIGNED NOT NULL DEFAULT 0,
  ADD COLUMN tracking ENUM('none','lot','serial') NOT NULL DEFAULT 'none',
  ADD COLUMN purpose ENUM('resale','own_use','service','one_off') NOT NULL DEFAULT 'resale',
  ADD COLUMN tax_category VARCHAR(20) NOT NULL DEFAULT '',
  ADD COLUMN weight_kg DECIMAL(18,6) NULL,
  ADD COLUMN volume_l DECIMAL(18,6) NULL,
  ADD COLUMN hs_code VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
  ADD COLUMN origin CHAR(2) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
  ADD COLUMN un_number CHAR(4) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
  ADD COLUMN hazard_class VARCHAR(10) NOT NULL DEFAULT '',
  ADD COLUMN packing_group ENUM('','I','II','III') NOT NULL DEFAULT '',
  ADD COLUMN hazard_name VARCHAR(120) NOT NULL DEFAULT '',
  ADD COLUMN stock_kept TINYINT(1) NOT NULL DEFAULT 1,
  ADD COLUMN availability ENUM('available','to_order','not_available') NOT NULL DEFAULT 'available',
  ADD COLUMN standard_cost DECIMAL(18,6) NULL,
  ADD COLUMN sale_price DECIMAL(18,6) NULL,
  ADD COLUMN sale_with_tax TINYINT(1) NOT NULL DEFAULT 1,
  ADD COLUMN sale_tax_rate DECIMAL(6,3) NULL,
  ADD COLUMN buyer_note VARCHAR(400) NOT NULL DEFAULT '',
  ADD COLUMN account VARCHAR(20) NOT NULL DEFAULT '',
  ADD COLUMN department VARCHAR(40) NOT NULL DEFAULT '',
  ADD COLUMN edition VARCHAR(40) NOT NULL DEFAULT '',
  ADD COLUMN successor_id INT UNSIGNED NULL,
  ADD COLUMN family_id INT UNSIGNED NULL,
  ADD COLUMN option_1 VARCHAR(60) NOT NULL DEFAULT '',
  ADD COLUMN option_2 VARCHAR(60) NOT NULL DEFAULT '',
  ADD COLUMN usual_buy_pack_id INT UNSIGNED NULL,
  ADD COLUMN usual_sell_pack_id INT UNSIGNED NULL,
  ADD COLUMN usual_send_pack_id INT UNSIGNED NULL,
  ADD KEY item_family (family_id),
  ADD FOREIGN KEY (successor_id) REFERENCES item (id),
  ADD FOREIGN KEY (family_id) REFERENCES item_family (id),
  ADD FOREIGN KEY (usual_buy_pack_id) REFERENCES pack (id),
  ADD FOREIGN KEY (usual_sell_pack_id) REFERENCES pack (id),
  ADD FOREIGN KEY (usual_send_pack_id) REFERENCES pack (id);

-- The unit that a pack's content is counted in when that is not the item's own (a bolt of 15 yards of cloth kept in metres).
ALTER TABLE pack
  MODIFY name VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
  ADD COLUMN count_text VARCHAR(40) NOT NULL DEFAULT '',
  ADD COLUMN count_unit VARCHAR(3) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
  ADD COLUMN weight_kg DECIMAL(18,6) NULL,
  ADD COLUMN volume_l DECIMAL(18,6) NULL,
  ADD COLUMN version INT UNSIGNED NOT NULL DEFAULT 1;

-- One table for all codes on labels, so that none points at two things. GTINs in their 14-digit form.
CREATE TABLE barcode (
  kind ENUM('gtin','internal') NOT NULL,
  code VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  pack_id INT UNSIGNED NULL,
  PRIMARY KEY (kind, code),
  KEY barcode_item (item_id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (pack_id) REFERENCES pack (id)
);

-- A kit holds no stock of its own; quantity in base units of the component.
CREATE TABLE kit_component (
  kit_id INT UNSIGNED NOT NULL,
  component_id INT UNSIGNED NOT NULL,
  quantity DECIMAL(18,6) NOT NULL,
  PRIMARY KEY (kit_id, component_id),
  KEY kit_use (component_id),
  FOREIGN KEY (kit_id) REFERENCES item (id),
  FOREIGN KEY (component_id) REFERENCES item (id),
  CONSTRAINT kit_positive CHECK (quantity > 0 AND kit_id <> component_id)
);

-- Besides the minimum in money there may be one by weight or by quantity in base units. order_days: bits from Monday.
ALTER TABLE supplier
  ADD COLUMN language VARCHAR(10) NOT NULL DEFAULT '',
  ADD COLUMN contact VARCHAR(120) NOT NULL DEFAULT '',
  ADD COLUMN phone VARCHAR(40) NOT NULL DEFAULT '',
  ADD COLUMN payment_days SMALLINT UNSIGNED NULL,
  ADD COLUMN discount_percent DECIMAL(6,3) NULL,
  ADD COLUMN discount_days SMALLINT UNSIGNED NULL,
  ADD COLUMN incoterm CHAR(3) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
  ADD COLUMN incoterm_place VARCHAR(80) NOT NULL DEFAULT '',
  ADD COLUMN freight_payer ENUM('prepaid','collect','third_party') NULL,
  ADD COLUMN minimum_weight_kg DECIMAL(18,6) NULL,
  ADD COLUMN minimum_quantity DECIMAL(18,6) NULL,
  ADD COLUMN freight_fixed DECIMAL(18,6) NULL,
  ADD COLUMN freight_per_kg DECIMAL(18,6) NULL,
  ADD COLUMN freight_free_from DECIMAL(18,6) NULL,
  ADD COLUMN order_days TINYINT UNSIGNED NOT NULL DEFAULT 31,
  ADD COLUMN cut_off TIME NULL,
  ADD COLUMN order_text VARCHAR(400) NOT NULL DEFAULT '',
  ADD COLUMN tray_rule ENUM('one_order','per_location') NOT NULL DEFAULT 'one_order';

ALTER TABLE source
  ADD COLUMN supplier_item_name VARCHAR(200) NOT NULL DEFAULT '',
  ADD COLUMN lead_time_days SMALLINT UNSIGNED NULL,
  ADD KEY source_number (supplier_id, supplier_item_number);

-- discount_percent comes off the amount.
ALTER TABLE price ADD COLUMN discount_percent DECIMAL(6,3) NOT NULL DEFAULT 0;

-- Codes are compared with whatever a spreadsheet says, so they are not limited to ASCII.
ALTER TABLE location
  MODIFY code VARCHAR(20) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
  ADD COLUMN invoice_address VARCHAR(400) NOT NULL DEFAULT '',
  ADD COLUMN latitude DECIMAL(9,6) NULL,
  ADD COLUMN longitude DECIMAL(9,6) NULL,
  ADD COLUMN supplied_by_id INT UNSIGNED NULL,
  ADD COLUMN van_days TINYINT UNSIGNED NOT NULL DEFAULT 0,
  ADD COLUMN working_days TINYINT UNSIGNED NOT NULL DEFAULT 31,
  ADD COLUMN receiving_days TINYINT UNSIGNED NOT NULL DEFAULT 31,
  ADD COLUMN version INT UNSIGNED NOT NULL DEFAULT 1,
  ADD FOREIGN KEY (supplied_by_id) REFERENCES location (id);

-- Where an item lies at a place.
CREATE TABLE item_place (
  item_id INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  shelf VARCHAR(40) NOT NULL,
  PRIMARY KEY (item_id, location_id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (location_id) REFERENCES location (id)
);

-- A rate as quoted, with its direction; in force from its day until the next.
CREATE TABLE currency_rate (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  currency CHAR(3) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  valid_from DATE NOT NULL,
  direction ENUM('base_per_foreign','foreign_per_base') NOT NULL,
  rate DECIMAL(20,10) NOT NULL,
  source VARCHAR(80) NOT NULL DEFAULT '',
  UNIQUE KEY rate_day (currency, valid_from),
  CONSTRAINT rate_positive CHECK (rate > 0)
);

-- What was used on a day before movements were kept here, or where a till does not post them.
CREATE TABLE daily_demand (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  item_id INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  day DATE NOT NULL,
  quantity DECIMAL(18,6) NOT NULL,
  UNIQUE KEY demand_day (item_id, location_id, day),
  KEY demand_location (location_id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (location_id) REFERENCES location (id)
);

-- Orders and receipts from before, so that lead times are known from the first day.
CREATE TABLE past_delivery (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  supplier_id INT UNSIGNED NOT NULL,
  order_number VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  received_on DATE NOT NULL,
  ordered_on DATE NOT NULL,
  promised_on DATE NULL,
  ordered_quantity DECIMAL(18,6) NOT NULL,
  received_quantity DECIMAL(18,6) NOT NULL,
  UNIQUE KEY delivery_identity (supplier_id, order_number, item_id, received_on),
  KEY delivery_item (item_id),
  FOREIGN KEY (supplier_id) REFERENCES supplier (id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT delivery_order CHECK (received_on >= ordered_on)
);

ALTER TABLE order_line ADD COLUMN edition VARCHAR(40) NOT NULL DEFAULT '';

-- A spreadsheet that was brought: its file in pieces, how it is read, its rows as checked. Nothing is changed before it is
-- applied.
CREATE TABLE import_run (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  kind VARCHAR(30) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  file_name VARCHAR(200) NOT NULL,
  bytes BIGINT UNSIGNED NOT NULL,
  state ENUM('uploading','reading','to_map','checking','checked','applying','applied','refused','cancelled') NOT NULL,
  -- What was found in the file: kind, encoding, separator, headings, sample, evidence.
  reading LONGTEXT NULL,
  -- How it is to be read: which column is which, decimal mark, order of dates.
  mapping LONGTEXT NULL,
  new_rows INT UNSIGNED NOT NULL DEFAULT 0,
  changed_rows INT UNSIGNED NOT NULL DEFAULT 0,
  unchanged_rows INT UNSIGNED NOT NULL DEFAULT 0,
  wrong_rows INT UNSIGNED NOT NULL DEFAULT 0,
  -- Why the file as a whole was refused.
  refusal LONGTEXT NULL,
  job_id BIGINT UNSIGNED NULL,
  created_by INT UNSIGNED NOT NULL,
  created_at DATETIME(3) NOT NULL,
  applied_at DATETIME(3) NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  KEY import_state (state),
  KEY import_age (created_at),
  FOREIGN KEY (created_by) REFERENCES app_user (id)
);

CREATE TABLE import_piece (
  import_id BIGINT UNSIGNED NOT NULL,
  piece_no INT UNSIGNED NOT NULL,
  content MEDIUMBLOB NOT NULL,
  PRIMARY KEY (import_id, piece_no),
  FOREIGN KEY (import_id) REFERENCES import_run (id)
);

-- row_no is the line of the spreadsheet. content: the cells of a faulty row as they stand. says: what the row says, by
-- column. outcome: what changes, what is wrong, what else of the file it names.
CREATE TABLE import_row (
  import_id BIGINT UNSIGNED NOT NULL,
  row_no INT UNSIGNED NOT NULL,
  state ENUM('new','changed','unchanged','wrong') NOT NULL,
  row_key VARCHAR(250) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
  -- Hash of the record that the row would change, as it was when it was checked.
  seen CHAR(16) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  content TEXT NOT NULL,
  says MEDIUMTEXT NOT NULL,
  outcome MEDIUMTEXT NOT NULL,
  PRIMARY KEY (import_id, row_no),
  KEY row_state (import_id, state, row_no),
  KEY row_identity (import_id, row_key),
  FOREIGN KEY (import_id) REFERENCES import_run (id)
);

-- How a foreign file was mapped, for the next one with the same headings.
CREATE TABLE import_mapping (
  kind VARCHAR(30) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  headings CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  mapping LONGTEXT NOT NULL,
  used_at DATETIME(3) NOT NULL,
  PRIMARY KEY (kind, headings)
);
