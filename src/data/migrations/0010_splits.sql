-- Needs that are assigned to suppliers together: what was asked for and what the solver found, as JSON.
CREATE TABLE split_run (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  user_id INT UNSIGNED NOT NULL,
  job_id BIGINT UNSIGNED NULL,
  need_ids LONGTEXT NOT NULL,
  seconds SMALLINT UNSIGNED NOT NULL,
  result LONGTEXT NULL,
  taken_at DATETIME(3) NULL,
  created_at DATETIME(3) NOT NULL,
  KEY split_age (created_at),
  FOREIGN KEY (user_id) REFERENCES app_user (id),
  CONSTRAINT split_needs_json CHECK (JSON_VALID(need_ids)),
  CONSTRAINT split_result_json CHECK (result IS NULL OR JSON_VALID(result))
);
