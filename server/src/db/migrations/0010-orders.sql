-- Who buys from us -----------------------------------------------------------------------------------------------------

CREATE TABLE customer (
  id INTEGER PRIMARY KEY,
  code TEXT NOT NULL UNIQUE COLLATE NOCASE,
  name TEXT NOT NULL,
  contact TEXT NOT NULL DEFAULT '',
  email TEXT NOT NULL DEFAULT '',
  phone TEXT NOT NULL DEFAULT '',
  billing TEXT NOT NULL DEFAULT '',
  -- empty: to the billing address
  delivery TEXT NOT NULL DEFAULT '',
  discount INTEGER NOT NULL DEFAULT 0 CHECK (discount BETWEEN 0 AND 100000000),
  transport_days INTEGER CHECK (transport_days BETWEEN 0 AND 365),
  note TEXT NOT NULL DEFAULT '',
  archived_at TEXT,
  version INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX customer_by_name ON customer (name COLLATE NOCASE, id);
CREATE TABLE customer_field (
  customer_id INTEGER NOT NULL REFERENCES customer ON DELETE CASCADE,
  name TEXT NOT NULL COLLATE NOCASE,
  value TEXT NOT NULL,
  PRIMARY KEY (customer_id, name)
) STRICT;

-- What they asked for --------------------------------------------------------------------------------------------------

CREATE TABLE sales_order (
  id INTEGER PRIMARY KEY,
  number TEXT NOT NULL UNIQUE,
  customer_id INTEGER NOT NULL REFERENCES customer,
  reference TEXT NOT NULL DEFAULT '',
  state TEXT NOT NULL CHECK (state IN ('quote', 'confirmed', 'cancelled')),
  wanted_on TEXT,
  delivery TEXT NOT NULL CHECK (delivery IN ('whole', 'as-ready')),
  remark TEXT NOT NULL DEFAULT '',
  bench_note TEXT NOT NULL DEFAULT '',
  -- why it was cancelled, or the rest of it given up
  reason TEXT NOT NULL DEFAULT '',
  made_at TEXT NOT NULL,
  made_by INTEGER NOT NULL REFERENCES person,
  confirmed_at TEXT,
  -- whether anything of it is still to be shipped
  open INTEGER NOT NULL DEFAULT 0 CHECK (open IN (0, 1)),
  version INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX sales_order_open ON sales_order (ifnull(wanted_on, '9999'), id) WHERE open = 1;
CREATE INDEX sales_order_by_state ON sales_order (state, open, id);
CREATE INDEX sales_order_by_customer ON sales_order (customer_id, id);

CREATE TABLE order_line (
  id INTEGER PRIMARY KEY,
  order_id INTEGER NOT NULL REFERENCES sales_order ON DELETE CASCADE,
  position INTEGER NOT NULL,
  item_id INTEGER NOT NULL REFERENCES item,
  -- of the kit that is packed for it; null for what is stocked itself
  revision_id INTEGER REFERENCES revision,
  output_quantity INTEGER NOT NULL CHECK (output_quantity > 0),
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  price INTEGER NOT NULL CHECK (price >= 0),
  price_from TEXT NOT NULL CHECK (price_from IN ('own', 'contents', 'typed')),
  wanted_on TEXT,
  shipped INTEGER NOT NULL DEFAULT 0,
  dropped INTEGER NOT NULL DEFAULT 0,
  CHECK (shipped >= 0 AND dropped >= 0 AND shipped + dropped <= quantity)
) STRICT;
CREATE INDEX order_line_by_order ON order_line (order_id, position);
CREATE INDEX order_line_by_item ON order_line (item_id, order_id);

-- What leaves for a line: what is sold itself, or the parts of a kit.
CREATE TABLE order_part (
  id INTEGER PRIMARY KEY,
  line_id INTEGER NOT NULL REFERENCES order_line ON DELETE CASCADE,
  position INTEGER NOT NULL,
  item_id INTEGER NOT NULL REFERENCES item,
  basis TEXT NOT NULL CHECK (basis IN ('per-output', 'per-run')),
  -- zero where it is left out of this line
  amount INTEGER NOT NULL CHECK (amount >= 0),
  waste INTEGER NOT NULL DEFAULT 0,
  -- what the revision has in its place
  base_item_id INTEGER NOT NULL REFERENCES item,
  base_amount INTEGER NOT NULL CHECK (base_amount > 0),
  shipped INTEGER NOT NULL DEFAULT 0,
  -- what it still takes from shelves
  open INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX order_part_by_line ON order_part (line_id, position);
CREATE INDEX order_part_by_item ON order_part (item_id);
CREATE INDEX order_part_by_base ON order_part (base_item_id);
CREATE INDEX order_part_open ON order_part (item_id) WHERE open > 0;

CREATE TABLE shipment (
  document_id INTEGER PRIMARY KEY REFERENCES document,
  order_id INTEGER NOT NULL REFERENCES sales_order,
  carrier TEXT NOT NULL DEFAULT '',
  tracking TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE INDEX shipment_by_order ON shipment (order_id);
CREATE TABLE shipment_line (
  document_id INTEGER NOT NULL REFERENCES shipment,
  line_id INTEGER NOT NULL REFERENCES order_line,
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  price INTEGER NOT NULL,
  cost INTEGER NOT NULL,
  PRIMARY KEY (document_id, line_id)
) STRICT;
CREATE INDEX shipment_line_by_line ON shipment_line (line_id);

INSERT INTO document_kind VALUES ('shipment');
INSERT INTO value_kind VALUES ('shipped');

-- Orders need things as builds do --------------------------------------------------------------------------------------

DROP VIEW numbered;
CREATE VIEW numbered AS
  SELECT 'build' AS kind, id, number, item_id FROM build
  UNION ALL SELECT 'order', id, number, NULL FROM sales_order;
DROP VIEW said_line;
CREATE VIEW said_line AS
  SELECT 'build' AS kind, id, text FROM build_line
  UNION ALL SELECT 'order', id, '' FROM order_part;

DROP VIEW demand;
-- Told apart by what needs it, because SQLite finds an item's own by an index in each, but not in both at once.
CREATE VIEW demand_of_builds AS
  SELECT 'build' AS kind, b.id AS source_id, l.id AS line_id, l.item_id, l.open AS quantity, b.due AS wanted_on,
    b.state = 'on-bench' AS begun
  FROM build_line l CROSS JOIN build b ON b.id = l.build_id WHERE l.open > 0;
CREATE VIEW demand_of_orders AS
  SELECT 'order' AS kind, o.id AS source_id, p.id AS line_id, p.item_id, p.open AS quantity,
    ifnull(l.wanted_on, o.wanted_on) AS wanted_on, 0 AS begun
  FROM order_part p CROSS JOIN order_line l ON l.id = p.line_id CROSS JOIN sales_order o ON o.id = l.order_id
  WHERE p.open > 0;
CREATE VIEW demand AS SELECT * FROM demand_of_builds UNION ALL SELECT * FROM demand_of_orders;
