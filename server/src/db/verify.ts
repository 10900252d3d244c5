import type { Reader } from './database.ts';

/** One way in which the books disagree; nothing of this may ever be found. */
export interface Drift {
  readonly check: string;
  readonly rows: readonly object[];
}

/** What must hold between the ledger and everything kept beside it: each query finds the rows for which it does not. */
const checks: Record<string, string> = {
  'each document conserves value': `
    SELECT d.number, (SELECT ifnull(sum(value), 0) FROM movement WHERE document_id = d.id) AS moved,
      (SELECT ifnull(sum(amount), 0) FROM document_value WHERE document_id = d.id) AS accounted
    FROM document d WHERE moved <> accounted`,
  'balances by place equal the ledger': `
    SELECT * FROM (
      SELECT item_id, bin_id, lot_id, serial_id, holder_kind, holder_id, sum(quantity) AS drift FROM (
        SELECT item_id, bin_id, lot_id, serial_id, holder_kind, holder_id, quantity FROM movement
        UNION ALL SELECT item_id, bin_id, lot_id, serial_id, holder_kind, holder_id, -quantity FROM balance)
      GROUP BY item_id, bin_id, lot_id, serial_id, holder_kind, holder_id) WHERE drift <> 0`,
  'quantity and value by item equal the ledger': `
    SELECT * FROM (
      SELECT item_id, sum(quantity) AS quantity, sum(value) AS value FROM (
        SELECT item_id, quantity, value FROM movement WHERE holder_kind IS NOT 'return'
        UNION ALL SELECT item_id, -quantity, -value FROM item_stock)
      GROUP BY item_id) WHERE quantity <> 0 OR value <> 0`,
  'what is held in returns equals the ledger': `
    SELECT * FROM (
      SELECT item_id, sum(quantity) AS quantity, sum(value) AS value FROM (
        SELECT item_id, quantity, value FROM movement WHERE holder_kind = 'return'
        UNION ALL SELECT item_id, -returned_quantity, -returned_value FROM item_stock)
      GROUP BY item_id) WHERE quantity <> 0 OR value <> 0`,
  'what is held in returns keeps what it left with': `
    SELECT s.item_id, s.returned_value, ifnull((SELECT sum(r.value - r.settled_value) FROM return_standing r
      WHERE r.item_id = s.item_id), 0) AS undecided
    FROM item_stock s WHERE s.returned_value <> undecided`,
  'nothing on hand is worth nothing': 'SELECT item_id, value FROM item_stock WHERE quantity = 0 AND value <> 0',
  'what is on hand is not worth less than nothing':
    'SELECT item_id, value FROM item_stock WHERE quantity > 0 AND value < 0',
  'bench quantities of build lines equal the ledger': `
    SELECT l.id, l.on_bench, (SELECT ifnull(sum(quantity), 0) FROM movement WHERE line_id = l.id AND holder_kind = 'build') AS ledger
    FROM build_line l WHERE l.on_bench <> ledger`,
  'use of build lines equals their finishes': `
    SELECT l.id, l.used, (SELECT ifnull(sum(f.actual), 0) FROM finish_line f WHERE f.build_line_id = l.id
      AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = f.document_id)) AS finishes
    FROM build_line l WHERE l.used <> finishes`,
  'finished quantities equal their finishes': `
    SELECT b.number, b.finished, (SELECT ifnull(sum(f.good), 0) FROM finish f WHERE f.build_id = b.id
      AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = f.document_id)) AS finishes
    FROM build b WHERE b.finished <> finishes`,
  'rejected quantities equal their finishes': `
    SELECT b.number, b.rejected, (SELECT ifnull(sum(f.rejected), 0) FROM finish f WHERE f.build_id = b.id
      AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = f.document_id)) AS finishes
    FROM build b WHERE b.rejected <> finishes`,
  'what belongs to customers is not in stock': `
    SELECT r.number FROM repair r JOIN balance b ON b.serial_id = r.serial_id
    WHERE r.state <> 'given-back' AND b.quantity <> 0`,
  'a repair stands where its work does': `
    SELECT r.number, r.state, b.state AS build FROM repair r JOIN build b ON b.repair_id = r.id
    WHERE (r.state = 'on-bench') <> (b.state = 'on-bench')
      OR (r.state IN ('ready', 'given-back')) <> (b.state IN ('finished', 'cancelled'))`,
  'builds that are over promise nothing': `
    SELECT l.id FROM build_line l JOIN build b ON b.id = l.build_id
    WHERE b.state IN ('finished', 'cancelled') AND (l.open <> 0 OR l.on_bench <> 0)`,
  'an undo is the exact opposite': `
    SELECT d.number FROM document d WHERE d.reverses_id IS NOT NULL AND EXISTS (
      SELECT 1 FROM (SELECT item_id, bin_id, lot_id, serial_id, holder_kind, holder_id, quantity FROM movement
        WHERE document_id IN (d.id, d.reverses_id))
      GROUP BY item_id, bin_id, lot_id, serial_id, holder_kind, holder_id HAVING sum(quantity) <> 0)`,
  'a serial is one thing in one place': `
    SELECT serial_id, sum(quantity) AS units FROM balance WHERE serial_id IS NOT NULL
    GROUP BY serial_id HAVING count(*) <> 1 OR sum(quantity) <> 1000000`,
  'serials are worth what the ledger says': `
    SELECT s.id, s.code, s.value, sum(m.value) AS ledger FROM serial s LEFT JOIN movement m ON m.serial_id = s.id
    GROUP BY s.id HAVING ifnull(s.value, 0) <> ifnull(sum(m.value), 0)
      OR (s.value IS NOT NULL) <> EXISTS (SELECT 1 FROM balance b WHERE b.serial_id = s.id)`,
  'tracked stock names its lot or serial': `
    SELECT b.* FROM balance b JOIN item i ON i.id = b.item_id
    WHERE (i.tracking = 'lot') <> (b.lot_id IS NOT NULL) OR (i.tracking = 'serial') <> (b.serial_id IS NOT NULL)`,
  'received of orders equals their receipts': `
    SELECT l.id, l.received, (SELECT ifnull(sum(r.quantity), 0) FROM receipt_line r WHERE r.order_line_id = l.id
      AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = r.document_id)) AS receipts
    FROM purchase_order_line l WHERE l.received <> receipts`,
  'what is open of orders follows from the rest': `
    SELECT l.id, l.open FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
    WHERE l.open <> iif(o.state IN ('sent', 'confirmed') AND l.closed = 0, max(0, l.quantity - l.received), 0)`,
  'shipped of orders equals their shipments': `
    SELECT l.id, l.shipped, (SELECT ifnull(sum(s.quantity), 0) FROM shipment_line s WHERE s.line_id = l.id
      AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = s.document_id)) AS shipments
    FROM order_line l WHERE l.shipped <> shipments`,
  'what left for orders is in the ledger': `
    SELECT p.id, p.shipped, (SELECT -ifnull(sum(m.quantity), 0) FROM movement m JOIN document d ON d.id = m.document_id
      WHERE m.line_id = p.id AND d.for_kind = 'order') AS ledger
    FROM order_part p WHERE p.shipped <> ledger`,
  'what stands in parcels equals the ledger': `
    SELECT p.id, p.packed, (SELECT ifnull(sum(m.quantity), 0) FROM movement m JOIN document d ON d.id = m.document_id
      WHERE m.line_id = p.id AND m.holder_kind = 'parcel' AND d.for_kind = 'order') AS ledger
    FROM order_part p WHERE p.packed <> ledger`,
  'nothing stands for a line below zero': `
    SELECT 'order' AS kind, id, packed AS standing FROM order_part WHERE packed < 0
    UNION ALL SELECT 'build', id, on_bench FROM build_line WHERE on_bench < 0`,
  'parcels hold what their orders have packed': `
    SELECT * FROM (SELECT order_id, item_id, sum(quantity) AS drift FROM (
      SELECT c.order_id, b.item_id, b.quantity FROM balance b JOIN parcel c ON c.id = b.holder_id WHERE b.holder_kind = 'parcel'
      UNION ALL SELECT l.order_id, p.item_id, -p.packed FROM order_part p JOIN order_line l ON l.id = p.line_id)
      GROUP BY order_id, item_id) WHERE drift <> 0`,
  'a parcel that has left is empty': `
    SELECT c.number FROM parcel c JOIN balance b ON b.holder_kind = 'parcel' AND b.holder_id = c.id
    WHERE c.shipped_id IS NOT NULL`,
  'no more is built for orders than they need and builds make': `
    SELECT f.part_id AS id, sum(f.quantity) AS built, p.open AS most FROM built_for f JOIN order_part p ON p.id = f.part_id
    GROUP BY f.part_id HAVING built > most
    UNION ALL SELECT f.build_id, sum(f.quantity) AS built, b.quantity - b.finished - b.rejected AS most FROM built_for f
    JOIN build b ON b.id = f.build_id GROUP BY f.build_id HAVING built > most`,
  'shipments cost what left': `
    SELECT s.document_id, (SELECT sum(cost) FROM shipment_line WHERE document_id = s.document_id) AS cost,
      (SELECT -sum(value) FROM movement WHERE document_id = s.document_id) AS ledger
    FROM shipment s WHERE cost <> ledger`,
  'what waits of returns stands in the ledger': `
    SELECT * FROM (SELECT return_id, item_id, lot_id, serial_id, sum(quantity) AS drift FROM (
      SELECT return_id, item_id, lot_id, serial_id, quantity - settled AS quantity FROM return_standing
      UNION ALL SELECT holder_id, item_id, lot_id, serial_id, -quantity FROM balance WHERE holder_kind = 'return')
      GROUP BY return_id, item_id, lot_id, serial_id) WHERE drift <> 0`,
  'what came back is worth what left': `
    SELECT d.number, (SELECT sum(value) FROM return_piece WHERE document_id = d.id) AS pieces,
      (SELECT sum(amount) FROM document_value WHERE document_id = d.id AND kind = 'returned') AS ledger
    FROM document d WHERE d.kind = 'return' AND pieces <> ledger`,
  'what becomes of returns is worth what came back': `
    SELECT piece_id, value, settled_value FROM return_standing WHERE quantity = settled AND value <> settled_value
    UNION ALL SELECT piece_id, value, settled_value FROM return_standing WHERE value < settled_value`,
  'no more comes back than left': `
    SELECT p.part_id, l.shipment_id, p.item_id, sum(p.quantity - p.sent_back) AS back, (SELECT -sum(m.quantity) FROM movement m
      WHERE m.document_id = l.shipment_id AND m.line_id = p.part_id AND m.item_id = p.item_id) AS "left"
    FROM return_standing p JOIN return_line l ON l.id = p.return_line_id
    GROUP BY p.part_id, l.shipment_id, p.item_id HAVING back > "left"`,
  'orders that are over promise nothing': `
    SELECT o.number FROM sales_order o WHERE o.state <> 'confirmed' AND (o.open <> 0 OR EXISTS (SELECT 1
      FROM order_line l JOIN order_part p ON p.line_id = l.id WHERE l.order_id = o.id AND p.open <> 0))`,
  'price differences are in the ledger': `
    SELECT p.document_id, sum(p.into_stock) AS lines, (SELECT sum(value) FROM movement WHERE document_id = p.document_id) AS ledger
    FROM price_difference_line p GROUP BY p.document_id HAVING lines <> ifnull(ledger, 0)`,
  'numbers that are kept beside what they name are its own': `
    SELECT * FROM (
      SELECT 'build' AS kind, id, number, item_id FROM build
      UNION ALL SELECT 'order', id, number, NULL FROM sales_order
      UNION ALL SELECT 'parcel', id, number, NULL FROM parcel
      UNION ALL SELECT 'return', id, number, NULL FROM goods_return
      EXCEPT SELECT kind, id, number, item_id FROM numbered)`,
  'the file is sound': "SELECT integrity_check AS fault FROM pragma_integrity_check WHERE integrity_check <> 'ok'",
  'references are whole': 'SELECT * FROM pragma_foreign_key_check',
};

/** Compares everything kept beside the ledger with the ledger itself. An empty answer means that all is well. */
export async function verifyDatabase(db: Reader): Promise<Drift[]> {
  const drifts: Drift[] = [];
  for (const [check, sql] of Object.entries(checks)) {
    const rows = await rowsOf(db, sql);
    if (rows.length > 0) drifts.push({ check, rows });
  }
  return drifts;
}

/** What a check finds; a file too damaged to be asked is a finding of its own. */
async function rowsOf(db: Reader, sql: string): Promise<object[]> {
  try {
    return await db.all<object>(`${sql} LIMIT 20`);
  } catch (error) {
    return [{ fault: (error as Error).message }];
  }
}

/** What is checked, in words. */
export const checkNames = Object.keys(checks);
