-- The whole life of a purchase order. before_state: what an order was before its change was begun or it was closed;
-- before_change: its lines then, as JSON, to drop the change; said: its lines as the supplier was last told of them, as JSON.
-- sending_mail_id: the mail that carries it while it is not out yet. own_number: the number was typed.
-- dated_because: why its date is not that of its approval.
ALTER TABLE purchase_order DROP CONSTRAINT number_from_approval;
ALTER TABLE purchase_order
  MODIFY state ENUM('draft','awaiting','approved','sent','confirmed','amending','amendment_awaiting','closed','put_back','cancelled') NOT NULL,
  MODIFY sent_how ENUM('printed','phone','email','portal','in_person') NULL,
  ADD COLUMN sent_to VARCHAR(120) NOT NULL DEFAULT '',
  ADD COLUMN sending_mail_id BIGINT UNSIGNED NULL,
  ADD COLUMN asked_by INT UNSIGNED NULL,
  ADD COLUMN asked_at DATETIME(3) NULL,
  ADD COLUMN asked_user_id INT UNSIGNED NULL,
  ADD COLUMN confirmed_by INT UNSIGNED NULL,
  ADD COLUMN confirmed_at DATETIME(3) NULL,
  ADD COLUMN supplier_reference VARCHAR(60) NOT NULL DEFAULT '',
  ADD COLUMN before_state ENUM('approved','sent','confirmed') NULL,
  ADD COLUMN before_change LONGTEXT NULL,
  ADD COLUMN said LONGTEXT NULL,
  ADD COLUMN amendment_no INT UNSIGNED NOT NULL DEFAULT 0,
  ADD COLUMN next_contact DATE NULL,
  ADD COLUMN own_number TINYINT(1) NOT NULL DEFAULT 0,
  ADD COLUMN location_id INT UNSIGNED NULL,
  ADD COLUMN wanted_date DATE NULL,
  ADD COLUMN contact VARCHAR(160) NOT NULL DEFAULT '',
  ADD COLUMN internal_note VARCHAR(2000) NOT NULL DEFAULT '',
  ADD COLUMN dated_because VARCHAR(200) NOT NULL DEFAULT '',
  ADD CONSTRAINT number_from_approval CHECK (state IN ('draft','awaiting','put_back') OR number IS NOT NULL),
  ADD CONSTRAINT order_said_json CHECK (said IS NULL OR JSON_VALID(said)),
  ADD CONSTRAINT order_before_json CHECK (before_change IS NULL OR JSON_VALID(before_change)),
  ADD CONSTRAINT change_has_its_ground CHECK ((state IN ('amending','amendment_awaiting')) = (before_change IS NOT NULL)),
  ADD FOREIGN KEY (sending_mail_id) REFERENCES outbox_mail (id),
  ADD FOREIGN KEY (asked_by) REFERENCES app_user (id),
  ADD FOREIGN KEY (asked_user_id) REFERENCES app_user (id),
  ADD FOREIGN KEY (confirmed_by) REFERENCES app_user (id),
  ADD FOREIGN KEY (location_id) REFERENCES location (id);

-- What was said to a supplier until now is what the order says.
UPDATE purchase_order o SET o.said = (
  SELECT CONCAT('[', COALESCE(GROUP_CONCAT(x.line ORDER BY x.line_no SEPARATOR ','), ''), ']') FROM (
    SELECT l.order_id, l.line_no, JSON_OBJECT('lineId', l.id, 'lineNo', l.line_no, 'description', l.description,
      'packName', l.pack_name, 'price', IF(l.price_amount IS NULL, NULL, CAST(l.price_amount AS CHAR)), 'freeOfCharge', l.free_of_charge = 1,
      'parts', JSON_EXTRACT((SELECT CONCAT('[', COALESCE(GROUP_CONCAT(JSON_OBJECT('partId', d.id, 'packs', CAST(d.pack_quantity * 1000000 AS SIGNED),
        'date', d.wanted_date, 'placeId', d.location_id) ORDER BY d.part_no SEPARATOR ','), ''), ']')
        FROM delivery_part d WHERE d.order_line_id = l.id), '$')) AS line FROM order_line l WHERE l.unordered = 0) x
   WHERE x.order_id = o.id) WHERE o.state = 'sent';

CREATE TABLE order_amendment (
  order_id BIGINT UNSIGNED NOT NULL,
  no INT UNSIGNED NOT NULL,
  differences LONGTEXT NOT NULL,
  approved_by INT UNSIGNED NOT NULL,
  approved_at DATETIME(3) NOT NULL,
  sent_at DATETIME(3) NULL,
  PRIMARY KEY (order_id, no),
  FOREIGN KEY (order_id) REFERENCES purchase_order (id),
  FOREIGN KEY (approved_by) REFERENCES app_user (id),
  CONSTRAINT amendment_json CHECK (JSON_VALID(differences))
);

-- From this net on, in the company's currency, somebody else approves than who entered the order; empty: never asked for.
-- An order that its supplier has not confirmed after so many days is asked after.
ALTER TABLE company
  ADD COLUMN four_eyes_from_minor BIGINT NULL,
  ADD COLUMN confirm_days SMALLINT UNSIGNED NOT NULL DEFAULT 3;

-- A mail that is being sent right now is held until then; one that somebody stopped does not go out.
ALTER TABLE outbox_mail
  MODIFY state ENUM('waiting','sent','failed','stopped') NOT NULL DEFAULT 'waiting',
  ADD COLUMN held_until DATETIME(3) NULL;

-- price_reason: why the price is not the one that was expected. confirmed_price: what the supplier confirmed, where it is another.
ALTER TABLE order_line
  ADD COLUMN printed_note VARCHAR(400) NOT NULL DEFAULT '',
  ADD COLUMN internal_note VARCHAR(400) NOT NULL DEFAULT '',
  ADD COLUMN price_reason ENUM('offer','mistake','new_list','confirmed') NULL;
