import type { PutRight, StockDocument } from '@yosegi/contract';
import { Refusal } from '@yosegi/core/refusal';
import type { Reader } from '../db/database.ts';
import { decimal, decimalOrNull } from '../http/amounts.ts';
import { type Doing, found, ownersOnly } from '../http/context.ts';
import { adjust } from './adjust.ts';
import { transfer } from './transfer.ts';

interface PutRightRow extends Omit<PutRight, 'quantity' | 'elsewhere'> {
  quantity: number | null;
  lotId: number | null;
  lot: string | null;
}

/** Overrides that nobody has put right, the newest first, each with the piece of stock that is below zero. */
const rowsOf = (db: Reader) =>
  db.all<PutRightRow>(
    `SELECT r.id, r.item_id AS itemId, ifnull(i.code, bi.code) AS code, ifnull(i.name, bi.name) AS name,
       ifnull(u.code, '') AS unit, ifnull(u.decimals, 0) AS decimals, r.bin_id AS binId, n.code AS bin,
       b.quantity, b.lot_id AS lotId, l.code AS lot,
       o.order_id AS orderId, o.number AS "order",
       r.reason, p.name AS person, r.at, r.document_id AS documentId, r.build_id AS buildId,
       coalesce(d.number, c.number) AS source
     FROM put_right r JOIN person p ON p.id = r.person_id
     LEFT JOIN item i ON i.id = r.item_id LEFT JOIN unit u ON u.id = i.unit_id LEFT JOIN bin n ON n.id = r.bin_id
     LEFT JOIN document d ON d.id = r.document_id LEFT JOIN build c ON c.id = r.build_id LEFT JOIN item bi ON bi.id = c.item_id
     LEFT JOIN (SELECT item_id, bin_id, lot_id, min(quantity) AS quantity FROM balance
       WHERE build_id IS NULL AND quantity < 0 GROUP BY item_id, bin_id) b ON b.item_id = r.item_id AND b.bin_id = r.bin_id
     LEFT JOIN lot l ON l.id = b.lot_id
     LEFT JOIN (SELECT item_id, order_id, number, min(line_id) FROM purchase_coming WHERE quantity > 0 GROUP BY item_id) o
       ON o.item_id = r.item_id
     WHERE r.settled_at IS NULL ORDER BY r.id DESC LIMIT 200`,
  );

export async function listPutRight(db: Reader): Promise<PutRight[]> {
  const rows = await rowsOf(db);
  const shelves = await db.all<{
    item_id: number;
    bin_id: number;
    bin: string;
    lot_id: number | null;
    quantity: number;
  }>(
    `SELECT v.item_id, v.bin_id, t.name || ' ' || n.code AS bin, v.lot_id, v.quantity FROM usable v
     JOIN bin n ON n.id = v.bin_id JOIN store t ON t.id = n.store_id
     WHERE v.quantity > 0 AND v.serial_id IS NULL AND v.item_id IN (SELECT value FROM json_each($1))`,
    [JSON.stringify(rows.flatMap((row) => row.itemId ?? []))],
  );
  return rows.map(({ lot, lotId, ...row }) => ({
    ...row,
    bin: row.bin !== null && lot !== null ? `${row.bin}, lot ${lot}` : row.bin,
    quantity: decimalOrNull(row.quantity),
    // Only a bin that has all of it: half a settlement would leave the rest on the list.
    elsewhere: shelves
      .filter((shelf) => shelf.item_id === row.itemId && shelf.bin_id !== row.binId && shelf.lot_id === lotId)
      .filter((shelf) => row.quantity !== null && shelf.quantity >= -row.quantity)
      .map((shelf) => ({ binId: shelf.bin_id, bin: shelf.bin, quantity: decimal(shelf.quantity) })),
  }));
}

type Settling =
  | { readonly by: 'adjustment'; readonly reasonId: number; readonly remark: string }
  | { readonly by: 'transfer'; readonly fromBinId: number; readonly remark: string }
  | { readonly by: 'seen'; readonly remark: string };

/**
 * Settles one override in one step. What went below zero is brought to zero by what was really there or came from another
 * bin; what no posting can settle is settled by an owner having looked.
 * @throws Refusal `settled-already`, `not-below-zero`
 */
export async function settle(
  doing: Doing,
  id: number,
  settling: Settling,
): Promise<{ document: StockDocument | null }> {
  const { tx, person, now } = doing;
  const row = (await rowsOf(tx)).find((one) => one.id === id);
  if (!row) {
    found(await tx.one('SELECT 1 AS one FROM put_right WHERE id = $1', [id]));
    throw new Refusal('settled-already');
  }
  const document = settling.by === 'seen' ? null : await bringToZero(doing, row, settling);
  if (settling.by === 'seen') ownersOnly(person);
  await tx.run('UPDATE put_right SET settled_at = $1, settled_by = $2, remark = $3 WHERE id = $4', [
    now.toISOString(),
    person.id,
    settling.remark,
    id,
  ]);
  doing.changed('stock', 'builds');
  return { document };
}

async function bringToZero(
  doing: Doing,
  row: PutRightRow,
  settling: Exclude<Settling, { by: 'seen' }>,
): Promise<StockDocument> {
  const { itemId, binId, lot, quantity, source } = row;
  if (itemId === null || binId === null || quantity === null) throw new Refusal('not-below-zero');
  const remark = settling.remark || `Puts ${source} right`;
  const missing = decimal(-quantity);
  const named = { lot, serials: [] };
  if (settling.by === 'transfer') {
    const line = { itemId, fromBinId: settling.fromBinId, toBinId: binId, quantity: missing, ...named };
    return transfer(doing, { remark, lines: [line] });
  }
  const line = { itemId, binId, change: missing, unitCost: null, bestBefore: null, ...named };
  return adjust(doing, { reasonId: settling.reasonId, remark, lines: [line] });
}
