-- What is held in returns keeps what it left with, apart from what the shelf's goods cost.
ALTER TABLE item_stock ADD COLUMN returned_quantity INTEGER NOT NULL DEFAULT 0;
ALTER TABLE item_stock ADD COLUMN returned_value INTEGER NOT NULL DEFAULT 0;

-- Until now some of it went back to the shelf at the average: what that left too much or too little with returns goes over to
-- the shelf's goods, in a document of its own.
CREATE TEMP TABLE apart AS
  SELECT m.item_id, sum(m.value) - ifnull((SELECT sum(s.value - s.settled_value) FROM return_standing s WHERE s.item_id = m.item_id), 0) AS drift,
    max(m.id) AS movement_id
  FROM movement m WHERE m.holder_kind = 'return' GROUP BY m.item_id;
DELETE FROM apart WHERE drift = 0;
INSERT INTO document (number, kind, at, person_id, remark)
  SELECT 'RV-RETURNS', 'revaluation', strftime('%Y-%m-%dT%H:%M:%fZ'), (SELECT min(id) FROM person WHERE role = 'owner'),
    'Returned goods keep the value they left with'
  WHERE EXISTS (SELECT 1 FROM apart);
INSERT INTO movement (document_id, item_id, bin_id, lot_id, serial_id, holder_kind, holder_id, line_id, quantity, value)
  SELECT (SELECT id FROM document WHERE number = 'RV-RETURNS'), m.item_id, m.bin_id, m.lot_id, m.serial_id,
    iif(side = -1, 'return', NULL), iif(side = -1, m.holder_id, NULL), NULL, 0, side * a.drift
  FROM apart a JOIN movement m ON m.id = a.movement_id CROSS JOIN (SELECT -1 AS side UNION ALL SELECT 1);

UPDATE item_stock SET
  returned_quantity = m.quantity, returned_value = m.value,
  quantity = item_stock.quantity - m.quantity, value = item_stock.value - m.value
FROM (SELECT item_id, sum(quantity) AS quantity, sum(value) AS value FROM movement WHERE holder_kind = 'return' GROUP BY item_id) m
WHERE m.item_id = item_stock.item_id;
DROP TABLE apart;

-- Said of a return before it was here, or of an arrival that was undone: it was said anew since.
ALTER TABLE return_line ADD COLUMN replaced INTEGER NOT NULL DEFAULT 0 CHECK (replaced IN (0, 1));
