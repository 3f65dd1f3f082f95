-- How orders are numbered and what stands on their paper. order_number_pattern: see core/purchase/orderNumbers; order_number_start: the
-- first number of a month or year. paper_hides: columns that are left out, parted by semicolons.
ALTER TABLE company
  ADD COLUMN order_number_pattern VARCHAR(24) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'YYMM-####',
  ADD COLUMN order_number_start INT UNSIGNED NOT NULL DEFAULT 1,
  ADD COLUMN paper_letterhead VARCHAR(400) NOT NULL DEFAULT '',
  ADD COLUMN paper_foot VARCHAR(400) NOT NULL DEFAULT '',
  ADD COLUMN paper_hides VARCHAR(200) NOT NULL DEFAULT '';

-- What stands above and below the lines, by the language of the supplier.
CREATE TABLE paper_text (
  language CHAR(2) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  opening VARCHAR(1000) NOT NULL,
  closing VARCHAR(1000) NOT NULL
);

-- invoice_address: where this order's invoice goes; '' = as its places and the company say.
ALTER TABLE purchase_order ADD COLUMN invoice_address VARCHAR(400) NOT NULL DEFAULT '';

-- number_series, number_no: where its number was drawn; without one it was typed. skipped: numbers of a series that were left out: before
-- its first, when the next was set ahead, or because somebody had typed them.
ALTER TABLE purchase_order
  ADD COLUMN number_series VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NULL,
  ADD COLUMN number_no INT UNSIGNED NULL,
  ADD UNIQUE KEY number_drawn (number_series, number_no),
  ADD CONSTRAINT number_drawn_whole CHECK ((number_series IS NULL) = (number_no IS NULL));
UPDATE purchase_order SET number_series = SUBSTRING(number, 1, 4), number_no = CAST(SUBSTRING(number, 6) AS UNSIGNED)
 WHERE own_number = 0 AND number REGEXP '^[0-9]{4}-[0-9]{4,}$';
ALTER TABLE number_counter ADD COLUMN skipped INT UNSIGNED NOT NULL DEFAULT 0;
