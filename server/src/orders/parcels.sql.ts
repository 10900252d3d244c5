import type { Quantity } from '@yosegi/core/number';
import type { Reader, Writer } from '../db/database.ts';
import type { Row } from '../db/models/index.ts';
import { type BalanceRow, heldForAll, nextNumber, STANDS } from '../ledger/index.ts';

/** The parcels of orders that have not left, the newest last. */
export const openParcels = (db: Reader, orderIds: readonly number[]) =>
  db.all<Row<'parcel'>>(
    `SELECT * FROM parcel WHERE shipped_id IS NULL AND order_id IN (SELECT value FROM json_each($1)) ORDER BY id`,
    [JSON.stringify(orderIds)],
  );

/** The parcel that an order is packed into: the last one that has not left, or a new one. */
export async function parcelOf(tx: Writer, orderId: number, now: Date): Promise<Row<'parcel'>> {
  const last = (await openParcels(tx, [orderId])).at(-1);
  if (last) return last;
  const values = { number: await nextNumber(tx, 'PC'), order_id: orderId, opened_at: now.toISOString() };
  return { ...values, shipped_id: null, id: await tx.insert('parcel', values) };
}

/** What stands in the parcels of an order. */
export async function standingFor(db: Reader, orderId: number): Promise<BalanceRow[]> {
  const parcels = await openParcels(db, [orderId]);
  return heldForAll(
    db,
    'parcel',
    parcels.map(({ id }) => id),
  );
}

/** What stands in parcels of orders and is kept from leaving, by order and item. */
export async function heldInParcels(db: Reader, orderIds: readonly number[]): Promise<ReadonlyMap<string, Quantity>> {
  const rows = await db.all<{ order_id: number; item_id: number; quantity: Quantity }>(
    `SELECT p.order_id, h.item_id, sum(h.quantity) AS quantity
     FROM parcel p JOIN stuck h ON h.holder_kind = 'parcel' AND h.holder_id = p.id
     WHERE p.shipped_id IS NULL AND p.order_id IN (SELECT value FROM json_each($1)) GROUP BY p.order_id, h.item_id`,
    [JSON.stringify(orderIds)],
  );
  return new Map(rows.map((row) => [`${row.order_id}:${row.item_id}`, row.quantity]));
}

/** Parcels from which the last has left with a shipment. */
export const sendParcels = (tx: Writer, orderId: number, shipmentId: number) =>
  tx.run(
    `UPDATE parcel SET shipped_id = $1 WHERE order_id = $2 AND shipped_id IS NULL
       AND EXISTS (SELECT 1 FROM movement WHERE document_id = $1 AND holder_kind = 'parcel' AND holder_id = parcel.id)
       AND NOT EXISTS (SELECT 1 FROM balance WHERE holder_kind = 'parcel' AND holder_id = parcel.id)`,
    [shipmentId, orderId],
  );

/** How much of each part has come out of parcels of its order onto shelves again since a document. */
export const putBackSince = (db: Reader, orderId: number, documentId: number) =>
  db.all<{ part_id: number; quantity: Quantity }>(
    `SELECT m.line_id AS part_id, -sum(m.quantity) AS quantity FROM movement m JOIN document d ON d.id = m.document_id
     WHERE d.for_kind = 'order' AND d.for_id = $1 AND d.kind = 'put-back' AND d.id > $2 AND m.holder_kind = 'parcel'
     GROUP BY m.line_id`,
    [orderId, documentId],
  );

/** The bin that each part of an order was last picked from, lots and serials apart: where it goes back to. */
export const pickedFrom = (db: Reader, orderId: number) =>
  db.all<{ part_id: number; bin_id: number; serial_id: number | null; lot_id: number | null }>(
    `SELECT m.line_id AS part_id, m.bin_id, m.serial_id, m.lot_id FROM movement m JOIN document d ON d.id = m.document_id
     WHERE d.for_kind = 'order' AND d.for_id = $1 AND d.kind = 'pick' AND m.quantity < 0 AND ${STANDS} ORDER BY m.id DESC`,
    [orderId],
  );
