-- What purchases are taxed with, by category. own_use_percent: how much of it is recovered on what is bought for own use.
-- usual: it holds for what has no category.
CREATE TABLE tax_rate (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  category VARCHAR(20) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
  percent DECIMAL(6,3) NOT NULL,
  own_use_percent DECIMAL(6,3) NOT NULL DEFAULT 100,
  usual TINYINT(1) NOT NULL DEFAULT 0,
  valid_from DATE NOT NULL,
  valid_to DATE NULL,
  UNIQUE KEY tax_rate_from (category, valid_from),
  CONSTRAINT tax_percent_range CHECK (percent >= 0 AND own_use_percent BETWEEN 0 AND 100)
);

-- A charge or allowance of one order that is not as its supplier usually has it; once the order was approved, all that it has.
-- only_lines: numbers of the lines that it is for, parted by semicolons; '' = all.
CREATE TABLE order_charge (
  order_id BIGINT UNSIGNED NOT NULL,
  name VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
  position SMALLINT UNSIGNED NOT NULL,
  sign ENUM('charge','allowance') NOT NULL,
  amount_kind ENUM('fixed','percent','duty') NOT NULL,
  amount DECIMAL(18,6) NULL,
  currency CHAR(3) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  on_charges VARCHAR(400) NOT NULL DEFAULT '',
  spread ENUM('value','quantity','weight','volume','even') NOT NULL,
  into_cost ENUM('stock','expense','recoverable') NOT NULL,
  account VARCHAR(20) NOT NULL DEFAULT '',
  billed TINYINT(1) NOT NULL,
  only_lines VARCHAR(400) NOT NULL DEFAULT '',
  origin ENUM('freight_terms','usual','by_hand') NOT NULL,
  left_out TINYINT(1) NOT NULL DEFAULT 0,
  PRIMARY KEY (order_id, name),
  FOREIGN KEY (order_id) REFERENCES purchase_order (id)
);

-- charges_kept: its charges stand in order_charge, whatever its supplier's terms become.
ALTER TABLE purchase_order ADD COLUMN charges_kept TINYINT(1) NOT NULL DEFAULT 0;

-- purpose, tax_category, cost_to, inspect, matching: other than the item and the supplier have them; empty: as they have them.
-- cost_to: accounts with their shares, as text.
ALTER TABLE order_line
  ADD COLUMN discount_percent DECIMAL(6,3) NOT NULL DEFAULT 0,
  ADD COLUMN purpose ENUM('resale','own_use') NULL,
  ADD COLUMN tax_category VARCHAR(20) NOT NULL DEFAULT '',
  ADD COLUMN cost_to VARCHAR(200) NOT NULL DEFAULT '',
  ADD COLUMN inspect TINYINT(1) NULL,
  ADD COLUMN matching ENUM('two_way','three_way') NULL,
  ADD CONSTRAINT discount_range CHECK (discount_percent BETWEEN 0 AND 100);

-- inspect: what comes is looked at before it is stock to sell. matching: what an invoice is held against, the order alone or also what came.
ALTER TABLE item ADD COLUMN inspect TINYINT(1) NOT NULL DEFAULT 0;
ALTER TABLE supplier ADD COLUMN matching ENUM('two_way','three_way') NOT NULL DEFAULT 'three_way';
ALTER TABLE category ADD COLUMN account VARCHAR(20) NOT NULL DEFAULT '';
