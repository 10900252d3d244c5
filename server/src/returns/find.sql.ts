import type { Returnable } from '@yosegi/contract';
import { dayOf } from '@yosegi/core/days';
import { type Money, minus, type Quantity } from '@yosegi/core/number';
import { daysTooLate } from '@yosegi/core/returns';
import { decimal } from '../command/amounts.ts';
import type { Reader } from '../db/database.ts';
import { containing } from '../db/pages.ts';
import { COUNTED, leftOf } from './sql.ts';

/** The most lines that one search shows. */
const MOST = 40;

/**
 * Lines that left and of which something may come back: found by the number of their order, shipment, parcel or return, by
 * customer, or by a serial or lot of what really left; the last to leave first.
 */
export async function findReturnable(db: Reader, q: string, now: Date): Promise<Returnable[]> {
  if (q === '') return [];
  const rows = await db.all<{
    shipment_id: number;
    shipment: string;
    at: string;
    order_id: number;
    sales_order: string;
    customer_id: number;
    customer: string;
    customer_days: number | null;
    item_days: number | null;
    line_id: number;
    item_id: number;
    code: string;
    name: string;
    unit: string;
    decimals: number;
    is_kit: 0 | 1;
    shipped: Quantity;
    returned: Quantity;
    price: Money;
    announced: string;
  }>(
    `SELECT s.document_id AS shipment_id, d.number AS shipment, d.at, o.id AS order_id, o.number AS sales_order, c.id AS customer_id,
       c.name AS customer, c.return_days AS customer_days, i.return_days AS item_days, l.id AS line_id, i.id AS item_id, i.code,
       i.name, u.code AS unit, u.decimals, l.revision_id IS NOT NULL AS is_kit, s.quantity AS shipped, s.price,
       ifnull((SELECT sum(quantity) FROM (${COUNTED}) x WHERE x.is_here AND x.shipment_id = s.document_id AND x.line_id = s.line_id), 0) AS returned,
       (SELECT json_group_array(json_object('id', r.id, 'number', r.number, 'quantity', n.quantity)) FROM return_line n JOIN goods_return r ON r.id = n.return_id
        WHERE n.shipment_id = s.document_id AND n.line_id = s.line_id AND n.replaced = 0 AND r.document_id IS NULL AND r.called_off IS NULL) AS announced
     FROM shipment_line s JOIN document d ON d.id = s.document_id JOIN order_line l ON l.id = s.line_id
     JOIN sales_order o ON o.id = l.order_id JOIN customer c ON c.id = o.customer_id JOIN item i ON i.id = l.item_id
     JOIN unit u ON u.id = i.unit_id
     WHERE NOT EXISTS (SELECT 1 FROM document v WHERE v.reverses_id = d.id) AND (
       o.number = $1 COLLATE NOCASE OR d.number = $1 COLLATE NOCASE OR c.code = $1 OR c.name LIKE $2 ESCAPE '\\' OR o.reference = $1 COLLATE NOCASE
       OR EXISTS (SELECT 1 FROM return_line n JOIN goods_return r ON r.id = n.return_id
         WHERE n.shipment_id = s.document_id AND n.line_id = s.line_id AND n.replaced = 0 AND r.number = $1 COLLATE NOCASE)
       OR EXISTS (SELECT 1 FROM parcel p WHERE p.shipped_id = d.id AND p.number = $1 COLLATE NOCASE)
       OR d.id IN (SELECT m.document_id FROM movement m JOIN order_part p ON p.id = m.line_id AND p.line_id = l.id
         LEFT JOIN serial e ON e.id = m.serial_id LEFT JOIN lot t ON t.id = m.lot_id
         WHERE m.document_id = d.id AND m.quantity < 0 AND (e.code = $1 OR t.code = $1)))
     ORDER BY d.id DESC, l.position LIMIT ${MOST}`,
    [q, containing(q)],
  );
  const codes = await namesOf(db, rows);
  return rows.map((row): Returnable => {
    const own = codes.get(`${row.shipment_id}:${row.line_id}`);
    return {
      shipmentId: row.shipment_id,
      shipment: row.shipment,
      shippedAt: row.at,
      orderId: row.order_id,
      order: row.sales_order,
      customerId: row.customer_id,
      customer: row.customer,
      lineId: row.line_id,
      itemId: row.item_id,
      code: row.code,
      name: row.name,
      unit: row.unit,
      decimals: row.decimals,
      isKit: row.is_kit === 1,
      shipped: decimal(row.shipped),
      returned: decimal(row.returned),
      left: decimal(minus(row.shipped, row.returned)),
      price: decimal(row.price),
      tooLate: daysTooLate(dayOf(new Date(row.at)), dayOf(now), [row.item_days, row.customer_days]),
      serials: own?.serials ?? [],
      lots: own?.lots ?? [],
      announced: (JSON.parse(row.announced) as { id: number; number: string; quantity: Quantity }[]).map(
        ({ quantity, ...of }) => ({ ...of, quantity: decimal(quantity) }),
      ),
    };
  });
}

/** Serials that left and have not come back, and lots, by shipment and line. */
export async function namesOf(
  db: Reader,
  rows: readonly { readonly shipment_id: number; readonly line_id: number }[],
): Promise<ReadonlyMap<string, Pick<Returnable, 'serials' | 'lots'>>> {
  const known = new Map<string, Pick<Returnable, 'serials' | 'lots'>>();
  for (const { shipment_id, line_id } of rows) {
    const heaps = await leftOf(db, shipment_id, line_id);
    const open = heaps.filter(({ quantity, returned }) => quantity > returned);
    known.set(`${shipment_id}:${line_id}`, {
      serials: await codesOf(
        db,
        'serial',
        open.flatMap(({ serialId }) => serialId ?? []),
      ),
      lots: await codesOf(
        db,
        'lot',
        open.flatMap(({ lotId }) => lotId ?? []),
      ),
    });
  }
  return known;
}

async function codesOf(db: Reader, table: 'serial' | 'lot', ids: readonly number[]): Promise<string[]> {
  if (ids.length === 0) return [];
  const rows = await db.all<{ code: string }>(
    `SELECT code FROM ${table} WHERE id IN (SELECT value FROM json_each($1)) ORDER BY code`,
    [JSON.stringify(ids)],
  );
  return rows.map(({ code }) => code);
}
