-- Promises, sales, counts, transfers and reversals; work in the background, mail, undo; when a pair becomes dirty by time.

-- Goods between two places stand on a level of their own, at the one place of kind transit.
ALTER TABLE location MODIFY kind ENUM('shop','warehouse','transit') NOT NULL;
INSERT INTO location (code, name, kind, address, sort_order) SELECT 'TRANSIT', 'In transit', 'transit', '', 32000 FROM company;

-- Nothing is posted on or before books_closed_to. mail_from: the sender of mail to suppliers.
ALTER TABLE company
  ADD COLUMN books_closed_to DATE NULL,
  ADD COLUMN mail_from VARCHAR(200) NOT NULL DEFAULT '';

-- What came in last: the cost of what goes out below zero.
ALTER TABLE level
  ADD COLUMN last_cost_quantity DECIMAL(18,6) NULL,
  ADD COLUMN last_cost_minor BIGINT NULL;
UPDATE level l JOIN (
    SELECT item_id, location_id, MAX(posting) AS posting FROM movement WHERE on_hand_change > 0 GROUP BY item_id, location_id
  ) x ON x.item_id = l.item_id AND x.location_id = l.location_id
  JOIN movement m ON m.item_id = l.item_id AND m.location_id = l.location_id AND m.posting = x.posting
  SET l.last_cost_quantity = m.on_hand_change, l.last_cost_minor = m.value_change_minor + m.variance_minor;

ALTER TABLE movement
  MODIFY kind ENUM('opening','receipt','sale','correction','transfer','count','value','receipt_reversal','late_charge','cost_adjustment') NOT NULL,
  MODIFY document_kind ENUM('receipt','opening','sales_day','sale','count','transfer') NOT NULL,
  ADD KEY movement_date (item_id, location_id, business_date);

ALTER TABLE source ADD COLUMN version INT UNSIGNED NOT NULL DEFAULT 1;

-- A promise of stock. Held = quantity − taken while its state is held; level.allocated is the sum of what is held.
CREATE TABLE allocation (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  item_id INT UNSIGNED NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  quantity DECIMAL(18,6) NOT NULL,
  taken DECIMAL(18,6) NOT NULL DEFAULT 0,
  promised_to VARCHAR(120) NOT NULL,
  state ENUM('held','taken','released') NOT NULL DEFAULT 'held',
  created_by INT UNSIGNED NOT NULL,
  created_at DATETIME(3) NOT NULL,
  KEY allocation_pair (item_id, location_id, state),
  FOREIGN KEY (item_id, location_id) REFERENCES level (item_id, location_id),
  CONSTRAINT allocation_positive CHECK (quantity > 0 AND taken >= 0 AND taken <= quantity)
);

-- Sales and counts as posted. Of a count: quantity = what was counted, expected = what the books said.
CREATE TABLE stock_document (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  number VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL UNIQUE,
  kind ENUM('sale','count') NOT NULL,
  location_id INT UNSIGNED NOT NULL,
  business_date DATE NOT NULL,
  note VARCHAR(200) NOT NULL DEFAULT '',
  posted_by INT UNSIGNED NOT NULL,
  posted_at DATETIME(3) NOT NULL,
  FOREIGN KEY (location_id) REFERENCES location (id),
  FOREIGN KEY (posted_by) REFERENCES app_user (id)
);

CREATE TABLE stock_document_line (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  document_id BIGINT UNSIGNED NOT NULL,
  line_no INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  quantity DECIMAL(18,6) NOT NULL,
  expected DECIMAL(18,6) NULL,
  allocation_id BIGINT UNSIGNED NULL,
  UNIQUE KEY document_line (document_id, line_no),
  FOREIGN KEY (document_id) REFERENCES stock_document (id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  FOREIGN KEY (allocation_id) REFERENCES allocation (id)
);

CREATE TABLE transfer (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  number VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL UNIQUE,
  from_location_id INT UNSIGNED NOT NULL,
  to_location_id INT UNSIGNED NOT NULL,
  state ENUM('shipped','received') NOT NULL,
  business_date DATE NOT NULL,
  shipped_by INT UNSIGNED NOT NULL,
  shipped_at DATETIME(3) NOT NULL,
  version INT UNSIGNED NOT NULL DEFAULT 1,
  KEY transfer_to (to_location_id, state),
  FOREIGN KEY (from_location_id) REFERENCES location (id),
  FOREIGN KEY (to_location_id) REFERENCES location (id),
  FOREIGN KEY (shipped_by) REFERENCES app_user (id),
  CONSTRAINT transfer_apart CHECK (from_location_id <> to_location_id)
);

-- Still in transit = shipped − received − lost, in quantity and in value.
CREATE TABLE transfer_line (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  transfer_id BIGINT UNSIGNED NOT NULL,
  line_no INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  shipped DECIMAL(18,6) NOT NULL,
  shipped_value_minor BIGINT NOT NULL,
  received DECIMAL(18,6) NOT NULL DEFAULT 0,
  received_value_minor BIGINT NOT NULL DEFAULT 0,
  lost DECIMAL(18,6) NOT NULL DEFAULT 0,
  lost_value_minor BIGINT NOT NULL DEFAULT 0,
  lost_reason VARCHAR(120) NOT NULL DEFAULT '',
  UNIQUE KEY transfer_line_no (transfer_id, line_no),
  KEY transfer_line_item (item_id),
  FOREIGN KEY (transfer_id) REFERENCES transfer (id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT transfer_positive CHECK (shipped > 0 AND received >= 0 AND lost >= 0 AND received + lost <= shipped)
);

-- A receipt is reversed as a whole, once; its lines stay.
CREATE TABLE receipt_reversal (
  receipt_id BIGINT UNSIGNED NOT NULL PRIMARY KEY,
  business_date DATE NOT NULL,
  reason VARCHAR(200) NOT NULL,
  reversed_by INT UNSIGNED NOT NULL,
  reversed_at DATETIME(3) NOT NULL,
  FOREIGN KEY (receipt_id) REFERENCES goods_receipt (id),
  FOREIGN KEY (reversed_by) REFERENCES app_user (id)
);

-- next_due_at: when time alone changes what is computed (a part comes within the horizon).
ALTER TABLE item_location_state
  ADD COLUMN next_due_at DATETIME NULL AFTER need_state,
  ADD KEY state_due (next_due_at);

-- One row per piece of work in the background. A worker holds it while its lease lasts; step and cursor say how far it is,
-- so another worker can go on after a crash.
CREATE TABLE job (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  kind VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  input LONGTEXT NOT NULL,
  state ENUM('waiting','running','done','failed','cancelled') NOT NULL DEFAULT 'waiting',
  not_before DATETIME(3) NOT NULL,
  lease_by VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NULL,
  lease_until DATETIME(3) NULL,
  done_steps BIGINT UNSIGNED NOT NULL DEFAULT 0,
  total_steps BIGINT UNSIGNED NULL,
  resume_at LONGTEXT NULL,
  cancel_wanted TINYINT(1) NOT NULL DEFAULT 0,
  attempts INT UNSIGNED NOT NULL DEFAULT 0,
  fault VARCHAR(400) NOT NULL DEFAULT '',
  created_by INT UNSIGNED NULL,
  created_at DATETIME(3) NOT NULL,
  ended_at DATETIME(3) NULL,
  KEY job_waiting (state, not_before),
  CONSTRAINT job_input_json CHECK (JSON_VALID(input))
);

-- Mail that was decided on in a transaction and goes out after it. message_id is made with the row, so that a mail sent
-- twice after a crash is the same mail.
CREATE TABLE outbox_mail (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  message_id VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL UNIQUE,
  recipient VARCHAR(200) NOT NULL,
  subject VARCHAR(200) NOT NULL,
  body LONGTEXT NOT NULL,
  entity VARCHAR(30) NOT NULL,
  entity_id BIGINT UNSIGNED NOT NULL,
  state ENUM('waiting','sent','failed') NOT NULL DEFAULT 'waiting',
  attempts INT UNSIGNED NOT NULL DEFAULT 0,
  next_try_at DATETIME(3) NOT NULL,
  fault VARCHAR(400) NOT NULL DEFAULT '',
  created_by INT UNSIGNED NULL,
  created_at DATETIME(3) NOT NULL,
  sent_at DATETIME(3) NULL,
  KEY outbox_waiting (state, next_try_at),
  KEY outbox_entity (entity, entity_id)
);

-- What a command did, so that its person can undo it; seen_change is the last change record of that command.
CREATE TABLE undo_step (
  user_id INT UNSIGNED NOT NULL,
  idem_key VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  command VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  effect LONGTEXT NOT NULL,
  state ENUM('open','undone') NOT NULL DEFAULT 'open',
  seen_change BIGINT UNSIGNED NOT NULL,
  done_at DATETIME(3) NOT NULL,
  PRIMARY KEY (user_id, idem_key),
  KEY undo_age (done_at),
  CONSTRAINT effect_json CHECK (JSON_VALID(effect))
);
