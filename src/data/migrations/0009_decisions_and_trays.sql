-- What a decision can be besides accepting and taking back, and what the buyer asks for by hand.

-- put_off: until a day (it comes back on it); left_out: with a reason, until a day or for good. Both come back earlier once the
-- shortage has grown by a pack or more customers wait than did then (waited).
-- by_hand: what the buyer had asked for by hand of what was accepted.
ALTER TABLE decision
  MODIFY kind ENUM('accept','take_back','put_off','leave_out') NOT NULL,
  ADD COLUMN until DATE NULL,
  ADD COLUMN reason VARCHAR(200) NOT NULL DEFAULT '',
  ADD COLUMN waited DECIMAL(18,6) NOT NULL DEFAULT 0,
  ADD COLUMN by_hand DECIMAL(18,6) NOT NULL DEFAULT 0,
  ADD KEY decision_at (decided_at);
UPDATE decision d JOIN need n ON n.last_decision_id = d.id
  JOIN item_location_state s ON s.item_id = n.item_id AND s.location_id = n.location_id
   SET d.waited = s.backordered;

ALTER TABLE need
  MODIFY state ENUM('none','open','decided','aside') NOT NULL,
  MODIFY cause SET('below_min','dated_demand','shop_asks','supply_cut','customer_waits','by_hand') NOT NULL;
ALTER TABLE item_location_state MODIFY need_state ENUM('none','open','decided','aside') NOT NULL;
UPDATE item_location_state SET plan = NULL;

-- Asked for by hand at a place, in base units, until it is accepted or taken away.
CREATE TABLE hand_need (
  item_id INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  quantity DECIMAL(18,6) NOT NULL,
  note VARCHAR(200) NOT NULL DEFAULT '',
  user_id INT UNSIGNED NOT NULL,
  at DATETIME(3) NOT NULL,
  PRIMARY KEY (item_id, location_id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (location_id) REFERENCES location (id),
  FOREIGN KEY (user_id) REFERENCES app_user (id),
  CONSTRAINT hand_need_positive CHECK (quantity > 0)
);

-- What is said about a supplier's tray: held back, and what it will become (by rule it joins a draft that fits, else a new order).
CREATE TABLE tray (
  supplier_id INT UNSIGNED NOT NULL PRIMARY KEY,
  held TINYINT(1) NOT NULL DEFAULT 0,
  becomes ENUM('by_rule','new','joins') NOT NULL DEFAULT 'by_rule',
  order_id BIGINT UNSIGNED NULL,
  user_id INT UNSIGNED NOT NULL,
  at DATETIME(3) NOT NULL,
  FOREIGN KEY (supplier_id) REFERENCES supplier (id),
  FOREIGN KEY (order_id) REFERENCES purchase_order (id),
  FOREIGN KEY (user_id) REFERENCES app_user (id),
  CONSTRAINT tray_joins CHECK ((becomes = 'joins') = (order_id IS NOT NULL))
);

-- What may be spent on goods in a month in the company's currency, by order date and without tax: on a category and those below it, or on everything.
CREATE TABLE purchase_budget (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  month DATE NOT NULL,
  category_id INT UNSIGNED NULL,
  of_category INT UNSIGNED AS (COALESCE(category_id, 0)) PERSISTENT,
  amount DECIMAL(18,6) NOT NULL,
  UNIQUE KEY budget_identity (month, of_category),
  FOREIGN KEY (category_id) REFERENCES category (id),
  CONSTRAINT budget_month CHECK (DAYOFMONTH(month) = 1 AND amount >= 0)
);

-- Lines of Today that a person does not want to see.
CREATE TABLE today_hidden (
  user_id INT UNSIGNED NOT NULL,
  matter VARCHAR(30) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  PRIMARY KEY (user_id, matter),
  FOREIGN KEY (user_id) REFERENCES app_user (id)
);
