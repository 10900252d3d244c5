-- Suppliers' orders, what came of them, and what was received at which price ----------------------------------------

ALTER TABLE company ADD COLUMN address TEXT NOT NULL DEFAULT '';
ALTER TABLE company ADD COLUMN email TEXT NOT NULL DEFAULT '';
ALTER TABLE company ADD COLUMN version INTEGER NOT NULL DEFAULT 0;
ALTER TABLE supplier ADD COLUMN address TEXT NOT NULL DEFAULT '';
ALTER TABLE supplier ADD COLUMN email TEXT NOT NULL DEFAULT '';

CREATE TABLE purchase_order (
  id INTEGER PRIMARY KEY,
  number TEXT NOT NULL UNIQUE,
  supplier_id INTEGER NOT NULL REFERENCES supplier,
  -- partly received and closed follow from the lines
  state TEXT NOT NULL CHECK (state IN ('draft', 'sent', 'confirmed', 'cancelled')),
  wanted_on TEXT,
  remark TEXT NOT NULL DEFAULT '',
  -- the supplier's own number for it
  reference TEXT NOT NULL DEFAULT '',
  made_at TEXT NOT NULL,
  made_by INTEGER NOT NULL REFERENCES person,
  sent_at TEXT,
  sent_by INTEGER REFERENCES person,
  sent_how TEXT CHECK (sent_how IN ('mailbox', 'print', 'csv', 'ubl')),
  confirmed_at TEXT,
  version INTEGER NOT NULL DEFAULT 0,
  CHECK ((state IN ('sent', 'confirmed')) <= (sent_at IS NOT NULL))
) STRICT;
CREATE INDEX purchase_order_by_supplier ON purchase_order (supplier_id, id);

CREATE TABLE purchase_order_line (
  id INTEGER PRIMARY KEY,
  order_id INTEGER NOT NULL REFERENCES purchase_order ON DELETE CASCADE,
  position INTEGER NOT NULL,
  item_id INTEGER NOT NULL REFERENCES item,
  -- what the supplier called it then
  supplier_code TEXT NOT NULL DEFAULT '',
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  price INTEGER NOT NULL CHECK (price >= 0),
  wanted_on TEXT,
  confirmed_quantity INTEGER CHECK (confirmed_quantity >= 0),
  confirmed_on TEXT,
  -- when it should come, as far as is known: confirmed, else wanted, else by lead time
  expected_on TEXT,
  -- the first day that was promised, or expected when it was sent: what being on time is measured by
  promised_on TEXT,
  received INTEGER NOT NULL DEFAULT 0 CHECK (received >= 0),
  closed INTEGER NOT NULL DEFAULT 0 CHECK (closed IN (0, 1)),
  -- kept with every change: what is still to come, and nothing of a draft
  open INTEGER NOT NULL DEFAULT 0 CHECK (open >= 0),
  UNIQUE (order_id, position)
) STRICT;
CREATE INDEX purchase_order_line_by_item ON purchase_order_line (item_id, order_id);
CREATE INDEX purchase_order_line_open ON purchase_order_line (item_id, expected_on) WHERE open > 0;

-- What suppliers will bring: never more than they confirmed.
CREATE VIEW purchase_coming AS
  SELECT l.id AS line_id, l.order_id, o.number, l.item_id, l.expected_on,
    min(l.open, max(0, ifnull(l.confirmed_quantity, l.quantity) - l.received)) AS quantity
  FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id WHERE l.open > 0;

-- What a line is bought for.
CREATE TABLE purchase_need (
  line_id INTEGER NOT NULL REFERENCES purchase_order_line ON DELETE CASCADE,
  build_id INTEGER NOT NULL REFERENCES build,
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  PRIMARY KEY (line_id, build_id)
) STRICT;
CREATE INDEX purchase_need_by_build ON purchase_need (build_id);

CREATE TABLE receipt (
  document_id INTEGER PRIMARY KEY REFERENCES document,
  supplier_id INTEGER REFERENCES supplier,
  order_id INTEGER REFERENCES purchase_order,
  delivery_note TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE INDEX receipt_by_order ON receipt (order_id) WHERE order_id IS NOT NULL;
CREATE INDEX receipt_by_supplier ON receipt (supplier_id) WHERE supplier_id IS NOT NULL;

-- What came in at which price, so that a price known later finds the goods.
CREATE TABLE receipt_line (
  id INTEGER PRIMARY KEY,
  document_id INTEGER NOT NULL REFERENCES receipt,
  order_line_id INTEGER REFERENCES purchase_order_line,
  item_id INTEGER NOT NULL REFERENCES item,
  bin_id INTEGER NOT NULL REFERENCES bin,
  lot_id INTEGER,
  -- JSON array of ids where it came by serial
  serial_ids TEXT CHECK (json_valid(serial_ids)),
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  value INTEGER NOT NULL CHECK (value >= 0),
  FOREIGN KEY (lot_id, item_id) REFERENCES lot (id, item_id)
) STRICT;
CREATE INDEX receipt_line_by_document ON receipt_line (document_id);
CREATE INDEX receipt_line_by_order_line ON receipt_line (order_line_id) WHERE order_line_id IS NOT NULL;
CREATE INDEX receipt_line_by_item ON receipt_line (item_id);
CREATE TRIGGER receipt_line_is_final_update BEFORE UPDATE ON receipt_line BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;
CREATE TRIGGER receipt_line_is_final_delete BEFORE DELETE ON receipt_line BEGIN SELECT raise(ABORT, 'the ledger is append-only'); END;

INSERT INTO receipt (document_id) SELECT id FROM document WHERE kind = 'receipt';
INSERT INTO receipt_line (document_id, item_id, bin_id, lot_id, serial_ids, quantity, value)
  SELECT m.document_id, m.item_id, m.bin_id, m.lot_id,
    iif(min(m.serial_id) IS NULL, NULL, json_group_array(m.serial_id)), sum(m.quantity), sum(m.value)
  FROM movement m JOIN document d ON d.id = m.document_id AND d.kind = 'receipt'
  WHERE m.quantity > 0 GROUP BY m.document_id, m.item_id, m.bin_id, m.lot_id ORDER BY min(m.id);

-- What a receipt turned out to cost otherwise, and where that went.
CREATE TABLE price_difference_line (
  document_id INTEGER NOT NULL REFERENCES document,
  receipt_line_id INTEGER NOT NULL REFERENCES receipt_line,
  -- of the whole line, before and after
  value_before INTEGER NOT NULL,
  value_after INTEGER NOT NULL CHECK (value_after >= 0),
  into_stock INTEGER NOT NULL,
  gone INTEGER NOT NULL,
  PRIMARY KEY (document_id, receipt_line_id),
  CHECK (value_after - value_before = into_stock + gone)
) STRICT;
CREATE INDEX price_difference_by_line ON price_difference_line (receipt_line_id);

-- What went to suppliers and came from them.
CREATE TABLE mail (
  id INTEGER PRIMARY KEY,
  order_id INTEGER NOT NULL REFERENCES purchase_order,
  direction TEXT NOT NULL CHECK (direction IN ('out', 'in')),
  kind TEXT NOT NULL CHECK (kind IN ('order', 'order-response', 'despatch-advice', 'change', 'cancellation')),
  at TEXT NOT NULL,
  subject TEXT NOT NULL,
  content TEXT NOT NULL,
  -- the receipt that an announced delivery became
  document_id INTEGER REFERENCES document
) STRICT;
CREATE INDEX mail_by_order ON mail (order_id, id);

INSERT INTO reason (name, used_for)
  SELECT 'Expired', 'adjustment' WHERE NOT EXISTS (SELECT 1 FROM reason WHERE name = 'Expired');
