-- Among those wanted on the same day the older promise goes first: the moment an order was confirmed or a build planned.
DROP VIEW demand;
DROP VIEW demand_of_builds;
DROP VIEW demand_of_orders;
DROP VIEW built_for;
CREATE VIEW demand_of_builds AS
  SELECT 'build' AS kind, b.id AS source_id, l.id AS line_id, l.item_id, l.open AS quantity, b.due AS wanted_on,
    b.state = 'on-bench' AS begun, b.planned_at AS promised_at, 0 AS transport_days
  FROM build_line l CROSS JOIN build b ON b.id = l.build_id WHERE l.open > 0;
CREATE VIEW demand_of_orders AS
  SELECT 'order' AS kind, o.id AS source_id, p.id AS line_id, p.item_id, p.open AS quantity,
    CASE WHEN o.turn_on IS NULL THEN ifnull(l.wanted_on, o.wanted_on)
      -- after everybody who has a day
      WHEN o.turn_on >= '9999' THEN NULL
      ELSE max(o.turn_on, ifnull(l.wanted_on, ifnull(o.wanted_on, ''))) END AS wanted_on,
    o.packing AS begun, ifnull(o.confirmed_at, o.made_at) AS promised_at,
    -- how long goods are on their way to the customer
    ifnull((SELECT transport_days FROM customer WHERE id = o.customer_id), 0) AS transport_days
  FROM order_part p CROSS JOIN order_line l ON l.id = p.line_id CROSS JOIN sales_order o ON o.id = l.order_id
  WHERE p.open > 0;
CREATE VIEW demand AS SELECT * FROM demand_of_builds UNION ALL SELECT * FROM demand_of_orders;
CREATE VIEW built_for AS
  SELECT f.build_id, f.part_id, l.order_id, f.quantity - f.kept AS quantity, ifnull(l.wanted_on, o.wanted_on) AS wanted_on,
    ifnull(o.confirmed_at, o.made_at) AS promised_at
  FROM build_for f JOIN order_part p ON p.id = f.part_id JOIN order_line l ON l.id = p.line_id
  JOIN sales_order o ON o.id = l.order_id JOIN build b ON b.id = f.build_id
  WHERE f.quantity > f.kept AND b.state IN ('planned', 'on-bench');
