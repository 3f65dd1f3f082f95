-- Customers' lines that are bought for one to one: by a policy that buys per demand, or because they go straight from the
-- supplier to the customer.

-- peg: of a customer's line, what it takes of one item (customer_demand).
ALTER TABLE need MODIFY peg_of ENUM('pair','transfer_line','customer_demand') NOT NULL DEFAULT 'pair';

-- straight: never lies with us; it is decided on the customer's order and fixed where it is bought (customer_line_id).
ALTER TABLE customer_line MODIFY way ENUM('from_stock','collect','straight') NOT NULL;
ALTER TABLE tray_line
  ADD COLUMN customer_line_id BIGINT UNSIGNED NULL AFTER location_id,
  ADD FOREIGN KEY (customer_line_id) REFERENCES customer_line (id);
ALTER TABLE delivery_part
  ADD COLUMN customer_line_id BIGINT UNSIGNED NULL AFTER location_id,
  ADD FOREIGN KEY (customer_line_id) REFERENCES customer_line (id);

-- What was handed over stands on a sale, or on the receipt of what its supplier has sent straight to the customer.
ALTER TABLE customer_hand_over ADD KEY customer_hand_over_line (line_id);
ALTER TABLE customer_hand_over
  DROP PRIMARY KEY,
  MODIFY document_id BIGINT UNSIGNED NULL,
  ADD COLUMN receipt_id BIGINT UNSIGNED NULL AFTER document_id,
  ADD COLUMN id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY FIRST,
  ADD FOREIGN KEY (receipt_id) REFERENCES goods_receipt (id),
  ADD CONSTRAINT hand_over_on CHECK ((document_id IS NULL) <> (receipt_id IS NULL));

-- The decision that was the last of its need before: undone, that one is the last again.
ALTER TABLE decision ADD COLUMN previous_id BIGINT UNSIGNED NULL;

UPDATE item_location_state SET plan = NULL;
