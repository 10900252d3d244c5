import { bringInAt, Posting } from '@yosegi/core/ledger';
import { countedIn, type Money, worthOf } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import type { BodyOf, Doing } from '../command/doing.ts';
import type { SqlRow, Writer } from '../db/database.ts';
import { itemRows } from '../items/index.ts';
import { readStock, withNames, writeDocument } from '../ledger/index.ts';
import { requireShelf } from '../places/index.ts';
import { heapsIn } from '../tracking/index.ts';
import { setLatestCosts, unstockedOf } from './receipts.sql.ts';

interface ReceiveInput extends Pick<BodyOf<'receive'>, 'kind' | 'remark'> {
  readonly lines: readonly (BodyOf<'receive'>['lines'][number] & { readonly orderLineId?: number })[];
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
  const wrong = await unstockedOf(tx, itemIds);
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
    const quantity = countedIn(line.quantity, item.decimals, at('quantity'));
    const { unitCost } = line;
    const value = worthOf(quantity, unitCost);
    posting.addValue(input.kind === 'opening' ? 'opening' : 'supplier', value, { itemId: item.id });
    const spots = await heapsIn(doing, item, bin.id, quantity, line, at);
    bringInAt(posting, spots, value);
    rows.push({
      order_line_id: line.orderLineId ?? null,
      item_id: item.id,
      bin_id: bin.id,
      lot_id: spots[0]?.spot.lotId ?? null,
      serial_ids: item.tracking === 'serial' ? JSON.stringify(spots.map(({ spot }) => spot.serialId)) : null,
      quantity,
      value,
      unit_cost: unitCost,
    });
    latest.set(item.id, unitCost);
  }
  const posted = await withNames(tx, () => posting.close());
  const document = await writeDocument(doing, { kind: input.kind, remark: input.remark }, posted);
  if (input.kind === 'receipt') {
    const { supplierId, orderId, deliveryNote } = source;
    await tx.insert('receipt', {
      document_id: document.id,
      supplier_id: supplierId,
      order_id: orderId,
      delivery_note: deliveryNote,
    });
    await tx.insertMany(
      'receipt_line',
      rows.map((row) => ({ document_id: document.id, ...row })),
    );
  }
  await setLatestCosts(tx, latest);
  return document;
}
