-- What was sent back to the customer is known by its worth too: what comes again of it is worth the same.
DROP VIEW return_standing;
CREATE VIEW return_standing AS
  SELECT p.id AS piece_id, p.return_line_id, l.return_id, p.part_id, p.item_id, p.lot_id, p.serial_id, p.quantity, p.value,
    ifnull((SELECT sum(o.quantity) FROM return_outcome o WHERE o.piece_id = p.id
      AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = o.document_id)), 0) AS settled,
    ifnull((SELECT sum(o.quantity) FROM return_outcome o WHERE o.piece_id = p.id AND o.outcome = 'sent-back'
      AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = o.document_id)), 0) AS sent_back,
    ifnull((SELECT sum(o.value) FROM return_outcome o WHERE o.piece_id = p.id
      AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = o.document_id)), 0) AS settled_value,
    ifnull((SELECT sum(o.value) FROM return_outcome o WHERE o.piece_id = p.id AND o.outcome = 'sent-back'
      AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = o.document_id)), 0) AS sent_back_value
  FROM return_piece p JOIN return_line l ON l.id = p.return_line_id
  WHERE NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = p.document_id);
