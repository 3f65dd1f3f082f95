-- What our own jobs need: a workshop's, an alteration's. An order's line can be for one of them.
CREATE TABLE job_material (
  id INT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  job VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NOT NULL,
  name VARCHAR(120) NOT NULL DEFAULT '',
  location_id INT UNSIGNED NOT NULL,
  item_id INT UNSIGNED NOT NULL,
  quantity DECIMAL(18,6) NOT NULL,
  needed_on DATE NOT NULL,
  done TINYINT(1) NOT NULL DEFAULT 0,
  UNIQUE KEY material_of_job (job, item_id, location_id),
  FOREIGN KEY (location_id) REFERENCES location (id),
  FOREIGN KEY (item_id) REFERENCES item (id),
  CONSTRAINT material_positive CHECK (quantity > 0)
);
ALTER TABLE order_line
  ADD COLUMN job_material_id INT UNSIGNED NULL,
  ADD FOREIGN KEY (job_material_id) REFERENCES job_material (id) ON DELETE SET NULL;
