-- What stands on a bench, in a parcel or in a return and is held, by holder and item: nothing uses it before it is released.
CREATE VIEW stuck AS
SELECT b.holder_kind, b.holder_id, b.item_id, sum(b.quantity) AS quantity
FROM balance b JOIN bin n ON n.id = b.bin_id
LEFT JOIN lot l ON l.id = b.lot_id LEFT JOIN serial s ON s.id = b.serial_id
WHERE b.holder_kind IS NOT NULL AND b.quantity > 0 AND (l.held IS NOT NULL OR s.held IS NOT NULL OR n.kind = 'quarantine')
GROUP BY b.holder_kind, b.holder_id, b.item_id;
