import { type Money, worthOf } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { bringInAt, Posting } from '@yosegi/core/stock';
import type { SqlRow, Writer } from '../db/database.ts';
import { moneyFromZero, positiveQuantity } from '../http/amounts.ts';
import type { Doing } from '../http/context.ts';
import { itemRows } from '../items/store.ts';
import { requireShelf } from '../places/store.ts';
import { readDocument } from './documents.ts';
import { readStock, writeDocument } from './posting.ts';
import { withNames } from './shortage.ts';
import { type NamedIn, placesIn } from './tracked.ts';

interface ReceiveInput {
  readonly kind: 'receipt' | 'opening';
  readonly remark: string;
  readonly lines: readonly (NamedIn & {
    itemId: number;
    binId: number;
    quantity: string;
    unitCost: string;
    orderLineId?: number;
  })[];
}

/** Who brought it, and for which order. */
export interface ReceiptSource {
  readonly supplierId: number | null;
  readonly orderId: number | null;
  readonly deliveryNote: string;
}
const UNKNOWN_SOURCE: ReceiptSource = { supplierId: null, orderId: null, deliveryNote: '' };

/** @throws Refusal for what is never in stock or out of use, naming the line */
async function refuseUnstocked(tx: Writer, itemIds: readonly number[]): Promise<void> {
  const wrong = await tx.one<{ id: number; name: string; archived: number }>(
    `SELECT i.id, i.name, i.archived_at IS NOT NULL AS archived FROM item i
     WHERE i.id IN (SELECT value FROM json_each($1)) AND (i.archived_at IS NOT NULL
       OR EXISTS (SELECT 1 FROM definition WHERE item_id = i.id AND made = 'packed-per-order')) LIMIT 1`,
    [JSON.stringify(itemIds)],
  );
  if (!wrong) return;
  const field = `lines.${itemIds.indexOf(wrong.id)}.itemId`;
  if (wrong.archived === 1) throw new Refusal('item-archived', { name: wrong.name }, field);
  throw new Refusal('packed-not-stocked', { name: wrong.name }, field);
}

/** Brings goods in at what they cost; the latest cost of each item follows. */
export async function receive(doing: Doing, input: ReceiveInput, source: ReceiptSource = UNKNOWN_SOURCE) {
  const { tx } = doing;
  const itemIds = input.lines.map((line) => line.itemId);
  const items = await itemRows(tx, itemIds);
  await refuseUnstocked(tx, itemIds);
  const posting = new Posting(await readStock(tx, itemIds));
  const latest = new Map<number, Money>();
  const rows: SqlRow[] = [];
  for (const [index, line] of input.lines.entries()) {
    const at = (name: string) => `lines.${index}.${name}`;
    const item = items.get(line.itemId);
    if (!item) throw new Refusal('unknown-item', {}, at('itemId'));
    const bin = await requireShelf(tx, line.binId, at('binId'));
    const quantity = positiveQuantity(line.quantity, item.decimals, at('quantity'));
    const unitCost = moneyFromZero(line.unitCost, at('unitCost'));
    const value = worthOf(quantity, unitCost);
    posting.addValue(input.kind === 'opening' ? 'opening' : 'supplier', value, { itemId: item.id });
    const places = await placesIn(doing, item, bin.id, quantity, line, at);
    bringInAt(posting, places, value);
    rows.push({
      order_line_id: line.orderLineId ?? null,
      item_id: item.id,
      bin_id: bin.id,
      lot_id: places[0]?.place.lotId ?? null,
      serial_ids: item.tracking === 'serial' ? JSON.stringify(places.map(({ place }) => place.serialId)) : null,
      quantity,
      value,
      unit_cost: unitCost,
    });
    latest.set(item.id, unitCost);
  }
  const posted = await withNames(tx, () => posting.close());
  const { id } = await writeDocument(doing, { kind: input.kind, remark: input.remark }, posted);
  if (input.kind === 'receipt') {
    const { supplierId, orderId, deliveryNote } = source;
    await tx.insert('receipt', {
      document_id: id,
      supplier_id: supplierId,
      order_id: orderId,
      delivery_note: deliveryNote,
    });
    await tx.insertMany(
      'receipt_line',
      rows.map((row) => ({ document_id: id, ...row })),
    );
  }
  await tx.run('UPDATE item SET latest_cost = v.value ->> 1 FROM json_each($1) v WHERE item.id = v.value ->> 0', [
    JSON.stringify([...latest]),
  ]);
  return readDocument(tx, id);
}
