-- Goods gathered for an order ------------------------------------------------------------------------------------------

CREATE TABLE parcel (
  id INTEGER PRIMARY KEY,
  number TEXT NOT NULL UNIQUE,
  order_id INTEGER NOT NULL REFERENCES sales_order,
  opened_at TEXT NOT NULL,
  -- the shipment with which the last of it left
  shipped_id INTEGER REFERENCES shipment
) STRICT;
CREATE INDEX parcel_by_order ON parcel (order_id, id);

ALTER TABLE order_part ADD COLUMN packed INTEGER NOT NULL DEFAULT 0;
-- Whether anything stands in a parcel for it.
ALTER TABLE sales_order ADD COLUMN packing INTEGER NOT NULL DEFAULT 0;
ALTER TABLE sales_order ADD COLUMN job_tag TEXT NOT NULL DEFAULT '';
-- The day by which it is served where it gives way to others; null: the day it is wanted.
ALTER TABLE sales_order ADD COLUMN turn_on TEXT;

-- What a build makes for an order: some of what leaves for a line.
CREATE TABLE build_for (
  build_id INTEGER NOT NULL REFERENCES build,
  part_id INTEGER NOT NULL REFERENCES order_part ON DELETE CASCADE,
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  -- of it finished and put into the order's parcel
  kept INTEGER NOT NULL DEFAULT 0 CHECK (kept BETWEEN 0 AND quantity),
  PRIMARY KEY (build_id, part_id)
) STRICT;
CREATE INDEX build_for_by_part ON build_for (part_id);

-- What a line is bought for, beside builds.
CREATE TABLE purchase_for_order (
  line_id INTEGER NOT NULL REFERENCES purchase_order_line ON DELETE CASCADE,
  order_id INTEGER NOT NULL REFERENCES sales_order,
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  PRIMARY KEY (line_id, order_id)
) STRICT;
CREATE INDEX purchase_for_order_by_order ON purchase_for_order (order_id);

-- What one act posted because of another document: undone before it.
ALTER TABLE document ADD COLUMN cause_id INTEGER REFERENCES document;
CREATE INDEX document_by_cause ON document (cause_id) WHERE cause_id IS NOT NULL;

-- The numbers of what holds goods and of what documents are for. Kept beside them: asked for one movement after the other,
-- a view of all three would be read whole each time, which a hundred thousand orders make a tenth of a second.
DROP VIEW numbered;
CREATE TABLE numbered (
  kind TEXT NOT NULL,
  id INTEGER NOT NULL,
  number TEXT NOT NULL,
  item_id INTEGER REFERENCES item,
  PRIMARY KEY (kind, id)
) STRICT;
INSERT INTO numbered SELECT 'build', id, number, item_id FROM build;
INSERT INTO numbered SELECT 'order', id, number, NULL FROM sales_order;
CREATE TRIGGER build_numbered AFTER INSERT ON build BEGIN
  INSERT INTO numbered VALUES ('build', new.id, new.number, new.item_id);
END;
CREATE TRIGGER order_numbered AFTER INSERT ON sales_order BEGIN
  INSERT INTO numbered VALUES ('order', new.id, new.number, NULL);
END;
CREATE TRIGGER parcel_numbered AFTER INSERT ON parcel BEGIN
  INSERT INTO numbered VALUES ('parcel', new.id, new.number, NULL);
END;
CREATE TRIGGER build_gone AFTER DELETE ON build BEGIN
  DELETE FROM numbered WHERE kind = 'build' AND id = old.id;
END;
CREATE TRIGGER order_gone AFTER DELETE ON sales_order BEGIN
  DELETE FROM numbered WHERE kind = 'order' AND id = old.id;
END;
CREATE TRIGGER parcel_gone AFTER DELETE ON parcel BEGIN
  DELETE FROM numbered WHERE kind = 'parcel' AND id = old.id;
END;
-- Lines of orders say nothing of their own.
DROP VIEW said_line;
CREATE VIEW said_line AS SELECT 'build' AS kind, id, text FROM build_line;

DROP VIEW demand;
DROP VIEW demand_of_orders;
CREATE VIEW demand_of_orders AS
  SELECT 'order' AS kind, o.id AS source_id, p.id AS line_id, p.item_id, p.open AS quantity,
    CASE WHEN o.turn_on IS NULL THEN ifnull(l.wanted_on, o.wanted_on)
      -- after everybody who has a day
      WHEN o.turn_on >= '9999' THEN NULL
      ELSE max(o.turn_on, ifnull(l.wanted_on, ifnull(o.wanted_on, ''))) END AS wanted_on,
    o.packing AS begun
  FROM order_part p CROSS JOIN order_line l ON l.id = p.line_id CROSS JOIN sales_order o ON o.id = l.order_id
  WHERE p.open > 0;
CREATE VIEW demand AS SELECT * FROM demand_of_builds UNION ALL SELECT * FROM demand_of_orders;

-- What open builds still make for orders, first in turn first.
CREATE VIEW built_for AS
  SELECT f.build_id, f.part_id, l.order_id, f.quantity - f.kept AS quantity, ifnull(l.wanted_on, o.wanted_on) AS wanted_on
  FROM build_for f JOIN order_part p ON p.id = f.part_id JOIN order_line l ON l.id = p.line_id
  JOIN sales_order o ON o.id = l.order_id JOIN build b ON b.id = f.build_id
  WHERE f.quantity > f.kept AND b.state IN ('planned', 'on-bench');

-- How papers look ------------------------------------------------------------------------------------------------------

ALTER TABLE company ADD COLUMN paper_size TEXT NOT NULL DEFAULT 'A4' CHECK (paper_size IN ('A4', 'Letter'));
ALTER TABLE company ADD COLUMN paper_head TEXT NOT NULL DEFAULT '';
ALTER TABLE company ADD COLUMN paper_foot TEXT NOT NULL DEFAULT '';
-- what stands beside the name of a line, as a JSON list
ALTER TABLE company ADD COLUMN paper_columns TEXT NOT NULL DEFAULT '["tile","code","price","day"]';

CREATE TABLE logo (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  hash TEXT NOT NULL,
  content BLOB NOT NULL
) STRICT;

-- What customers and their shops sent, as it came; the same once ------------------------------------------------------

CREATE TABLE order_message (
  id INTEGER PRIMARY KEY,
  order_id INTEGER NOT NULL REFERENCES sales_order,
  kind TEXT NOT NULL CHECK (kind IN ('Order', 'OrderChange', 'OrderCancellation')),
  at TEXT NOT NULL,
  -- of the content
  hash TEXT NOT NULL UNIQUE,
  content TEXT NOT NULL
) STRICT;
CREATE INDEX order_message_by_order ON order_message (order_id, id);

ALTER TABLE sales_order ADD COLUMN came_by TEXT NOT NULL DEFAULT 'typed' CHECK (came_by IN ('typed', 'message', 'file'));
-- Where it goes instead of the customer's own address.
ALTER TABLE sales_order ADD COLUMN deliver_to TEXT NOT NULL DEFAULT '';
-- What the customer calls the line.
ALTER TABLE order_line ADD COLUMN their_line TEXT NOT NULL DEFAULT '';
