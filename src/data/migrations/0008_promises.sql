-- Customers, what they ordered, and what is promised to them.

CREATE TABLE customer (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
  mail VARCHAR(200) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL DEFAULT '',
  phone VARCHAR(60) NOT NULL DEFAULT '',
  address VARCHAR(400) NOT NULL DEFAULT '',
  -- The lower, the sooner; whether orders go out in part or only complete.
  priority TINYINT UNSIGNED NOT NULL DEFAULT 5,
  delivers ENUM('in_part','complete') NOT NULL DEFAULT 'in_part',
  note VARCHAR(200) NOT NULL DEFAULT '',
  UNIQUE KEY customer_identity (name, mail)
);

-- channel: where it came from; reference: the number it has there.
CREATE TABLE customer_order (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  number VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL UNIQUE,
  customer_id INT UNSIGNED NOT NULL,
  channel ENUM('counter','file','web_shop') NOT NULL,
  reference VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NULL,
  state ENUM('open','done','cancelled') NOT NULL DEFAULT 'open',
  ordered_on DATE NOT NULL,
  priority TINYINT UNSIGNED NOT NULL,
  delivers ENUM('in_part','complete') NOT NULL,
  note VARCHAR(200) NOT NULL DEFAULT '',
  created_by INT UNSIGNED NOT NULL,
  created_at DATETIME(3) NOT NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  UNIQUE KEY customer_order_reference (channel, reference),
  KEY customer_order_state (state),
  FOREIGN KEY (customer_id) REFERENCES customer (id),
  FOREIGN KEY (created_by) REFERENCES app_user (id)
);

-- Quantities in base units of the item, of a kit in sets; pack_quantity as entered. way: sent from stock, or collected at the
-- place. hold_until: until when what is promised from stock is kept (UTC); by_hand: it is not given stock by itself
-- (any more). told: the date the customer was told last, and when.
CREATE TABLE customer_line (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  order_id BIGINT UNSIGNED NOT NULL,
  line_no INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  way ENUM('from_stock','collect') NOT NULL,
  pack_id INT UNSIGNED NULL,
  pack_name VARCHAR(60) NOT NULL DEFAULT '',
  pack_quantity DECIMAL(18,6) NOT NULL,
  base_quantity DECIMAL(18,6) NOT NULL,
  handed_over DECIMAL(18,6) NOT NULL DEFAULT 0,
  cancelled DECIMAL(18,6) NOT NULL DEFAULT 0,
  wanted_date DATE NOT NULL,
  ship_by DATE NOT NULL,
  whole_sets TINYINT(1) NOT NULL DEFAULT 0,
  hold_until DATETIME NULL,
  by_hand TINYINT(1) NOT NULL DEFAULT 0,
  told_date DATE NULL,
  told_at DATETIME(3) NULL,
  UNIQUE KEY customer_line_no (order_id, line_no),
  KEY customer_line_item (item_id),
  KEY customer_line_hold (hold_until),
  FOREIGN KEY (order_id) REFERENCES customer_order (id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (location_id) REFERENCES location (id),
  FOREIGN KEY (pack_id) REFERENCES pack (id),
  CONSTRAINT customer_line_figures CHECK (base_quantity > 0 AND handed_over >= 0 AND cancelled >= 0
    AND handed_over + cancelled <= base_quantity)
);

-- What a line takes of stock: the item itself, one for one, or what a kit was made of when it was ordered. What lies ready for
-- it is held by its allocation.
CREATE TABLE customer_demand (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  line_id BIGINT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  per_set DECIMAL(18,6) NOT NULL,
  allocation_id BIGINT UNSIGNED NULL,
  UNIQUE KEY customer_demand_item (line_id, item_id),
  KEY demand_item (item_id),
  KEY demand_allocation (allocation_id),
  FOREIGN KEY (line_id) REFERENCES customer_line (id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (allocation_id) REFERENCES allocation (id),
  CONSTRAINT demand_per_set CHECK (per_set > 0)
);

-- What was handed over, on which sale.
CREATE TABLE customer_hand_over (
  line_id BIGINT UNSIGNED NOT NULL,
  document_id BIGINT UNSIGNED NOT NULL,
  quantity DECIMAL(18,6) NOT NULL,
  PRIMARY KEY (line_id, document_id),
  FOREIGN KEY (line_id) REFERENCES customer_line (id),
  FOREIGN KEY (document_id) REFERENCES stock_document (id)
);

-- Orders are given stock once their ship-by date is so many days away; how much of an item may be promised.
ALTER TABLE company
  ADD COLUMN promise_days SMALLINT UNSIGNED NOT NULL DEFAULT 14,
  ADD COLUMN promise_rule ENUM('stock','on_the_way','without_limit') NOT NULL DEFAULT 'on_the_way';
ALTER TABLE item ADD COLUMN promise_rule ENUM('stock','on_the_way','without_limit') NULL;

-- Of what is owed, what customers wait for and nothing is promised for.
ALTER TABLE item_location_state ADD COLUMN backordered DECIMAL(18,6) NOT NULL DEFAULT 0 AFTER owed;
UPDATE item_location_state SET plan = NULL;
ALTER TABLE need MODIFY cause SET('below_min','dated_demand','shop_asks','supply_cut','customer_waits') NOT NULL;

-- What weighs ways to cover a need besides prices: carrying cost of a year (thousandths of the value), placing an order.
ALTER TABLE company
  ADD COLUMN carrying_thousandths SMALLINT UNSIGNED NOT NULL DEFAULT 200,
  ADD COLUMN order_cost_minor BIGINT NOT NULL DEFAULT 0,
  ADD COLUMN transport_minor BIGINT NOT NULL DEFAULT 0;
