import type { Money, Quantity } from '@yosegi/core/number';
import type { Reader } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';

/** What leaves for a line, with the order it is on. */
export interface PartOfOrder extends Row<'order_part'>, Pick<Row<'item'>, 'name'>, Pick<Row<'unit'>, 'decimals'> {
  readonly order_id: number;
  readonly order_number: string;
  readonly order_open: 0 | 1;
}

export const partsById = (db: Reader, ids: readonly number[]) =>
  db.all<PartOfOrder>(
    `SELECT p.*, i.name, u.decimals, o.id AS order_id, o.number AS order_number, o.open AS order_open
     FROM order_part p JOIN order_line l ON l.id = p.line_id JOIN sales_order o ON o.id = l.order_id
     JOIN item i ON i.id = p.item_id JOIN unit u ON u.id = i.unit_id
     WHERE p.id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(ids)],
  );

export interface ShipmentRecord extends Row<'shipment'>, Pick<Row<'document'>, 'number' | 'at' | 'remark'> {
  readonly sales_order: string;
  readonly customer: string;
  readonly undone: 0 | 1;
}

export const shipmentRecord = (db: Reader, id: number) =>
  db.one<ShipmentRecord>(
    `SELECT s.*, d.number, d.at, d.remark, o.number AS sales_order, c.name AS customer,
       EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id) AS undone
     FROM shipment s JOIN document d ON d.id = s.document_id JOIN sales_order o ON o.id = s.order_id
     JOIN customer c ON c.id = o.customer_id WHERE s.document_id = $1`,
    [id],
  );

export const shipmentLines = (db: Reader, id: number) =>
  db.all<{
    line_id: number;
    quantity: Quantity;
    price: Money;
    cost: Money;
    code: string;
    name: string;
    unit: string;
    decimals: number;
    revision_id: number | null;
    paperwork: Row<'definition'>['paperwork'] | null;
  }>(
    `SELECT s.line_id, s.quantity, s.price, s.cost, i.code, i.name, u.code AS unit, u.decimals, l.revision_id,
       (SELECT d.paperwork FROM revision r JOIN definition d ON d.id = r.definition_id WHERE r.id = l.revision_id) AS paperwork
     FROM shipment_line s JOIN order_line l ON l.id = s.line_id JOIN item i ON i.id = l.item_id
     JOIN unit u ON u.id = i.unit_id WHERE s.document_id = $1 ORDER BY l.position`,
    [id],
  );

/** What left for each line, one thing after the other, with its lots or serials. */
export const shipmentParts = (db: Reader, id: number) =>
  db.all<{
    line_id: number;
    code: string;
    name: string;
    unit: string;
    decimals: number;
    quantity: Quantity;
    tracking: Row<'item'>['tracking'];
    pieces: string;
  }>(
    `SELECT p.line_id, i.code, i.name, u.code AS unit, u.decimals, i.tracking, -sum(m.quantity) AS quantity,
       json_group_array(coalesce(s.code, t.code)) FILTER (WHERE coalesce(s.code, t.code) IS NOT NULL) AS pieces
     FROM movement m JOIN order_part p ON p.id = m.line_id JOIN item i ON i.id = m.item_id JOIN unit u ON u.id = i.unit_id
     LEFT JOIN serial s ON s.id = m.serial_id LEFT JOIN lot t ON t.id = m.lot_id
     WHERE m.document_id = $1 GROUP BY p.id, i.id ORDER BY p.line_id, p.position`,
    [id],
  );

/** The lots that left of lines that are sold as they are, each with how much. */
export const shippedLots = (db: Reader, id: number) =>
  db.all<{ line_id: number; lot: string; best_before: string | null; quantity: Quantity }>(
    `SELECT p.line_id, t.code AS lot, t.best_before, -sum(m.quantity) AS quantity
     FROM movement m JOIN order_part p ON p.id = m.line_id JOIN order_line l ON l.id = p.line_id AND l.revision_id IS NULL
     JOIN lot t ON t.id = m.lot_id WHERE m.document_id = $1 GROUP BY p.line_id, t.id ORDER BY p.line_id, t.best_before, t.id`,
    [id],
  );

export const parcelsOf = (db: Reader, shipmentId: number) =>
  db.all<{ number: string }>('SELECT number FROM parcel WHERE shipped_id = $1 ORDER BY id', [shipmentId]);
