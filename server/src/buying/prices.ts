import type { Posted, ReceiptPrices } from '@yosegi/contract';
import { type Heap, Posting, postPriceDifference, stillHere } from '@yosegi/core/ledger';
import { minus, type Quantity, unitCostOf, worthOf } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { decimal } from '../command/amounts.ts';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import type { Reader } from '../db/database.ts';
import { itemRows } from '../items/index.ts';
import { balancesOf, heapAt, readStock, writeDocument } from '../ledger/index.ts';
import { keepLatestCosts } from './latest.sql.ts';
import { type ReceiptLineRow, receiptHead, receiptLines } from './receipts.sql.ts';

/** Where the goods of a receipt line are now, as far as anyone can tell: its serials, its lot, or else all of the item. */
async function hereOf(db: Reader, line: ReceiptLineRow): Promise<Heap[]> {
  const rows = await balancesOf(db, [line.item_id]);
  const serials = line.serial_ids === null ? null : (JSON.parse(line.serial_ids) as number[]);
  return rows
    .filter((row) => (serials ? serials.includes(row.serial_id ?? 0) : row.lot_id === line.lot_id))
    .map(heapAt);
}

/**
 * How much of each line is still here. Lines of one receipt that share an item or a lot have their claim one after the
 * other, so that nothing is here twice.
 */
async function stillHereOf(db: Reader, lines: readonly ReceiptLineRow[]) {
  const items = await itemRows(
    db,
    lines.map((line) => line.item_id),
  );
  const claimed = new Map<string, number>();
  const result = new Map<number, { here: Heap[]; standing: Quantity }>();
  for (const line of lines) {
    const here = await hereOf(db, line);
    const ofItem = found(items.get(line.item_id)).quantity;
    const key = `${line.item_id}:${line.serial_ids === null ? (line.lot_id ?? '') : line.id}`;
    const before = claimed.get(key) ?? 0;
    const all = stillHere((line.quantity + before) as Quantity, here, ofItem);
    const standing = Math.max(0, Math.min(line.quantity, all - before)) as Quantity;
    claimed.set(key, before + standing);
    result.set(line.id, { here, standing });
  }
  return result;
}

/** What a receipt cost, line by line, and how much of it is still here: for an invoice that says otherwise. */
export async function receiptPrices(db: Reader, documentId: number): Promise<ReceiptPrices> {
  const head = found(await receiptHead(db, documentId));
  const rows = await receiptLines(db, documentId);
  const still = await stillHereOf(db, rows);
  const lines = rows.map((line) => ({
    lineId: line.id,
    itemId: line.item_id,
    code: line.code,
    name: line.name,
    unit: line.unit,
    decimals: line.decimals,
    piece: line.lot ?? line.serials,
    quantity: decimal(line.quantity),
    unitCost: decimal(unitCostOf(line.value, line.quantity)),
    value: decimal(line.value),
    here: decimal(found(still.get(line.id)).standing),
  }));
  return { number: head.number, undone: head.undone === 1, lines };
}

/**
 * Posts what an invoice says otherwise than the receipt did. It lands where the goods are now: on what is still here, the
 * rest as a difference in cost.
 * @throws Refusal `receipt-undone`, `unknown-line`, `no-price-change`
 */
export async function postPrices(doing: Doing, documentId: number, input: BodyOf<'postPrices'>): Promise<Posted> {
  const { tx } = doing;
  const before = await receiptPrices(tx, documentId);
  if (before.undone) throw new Refusal('receipt-undone', { number: before.number });
  const known = new Map((await receiptLines(tx, documentId)).map((line) => [line.id, line]));
  const still = await stillHereOf(tx, [...known.values()]);
  const itemIds = [...known.values()].map((line) => line.item_id);
  const posting = new Posting(await readStock(tx, itemIds));
  const rows = [];
  for (const [index, own] of input.lines.entries()) {
    const line = known.get(own.lineId);
    if (!line) throw new Refusal('unknown-line', {}, `lines.${index}.lineId`);
    known.delete(own.lineId);
    const unitCost = own.unitCost;
    const quantity = line.quantity;
    // The price that was shown is the whole value ÷ quantity, rounded: typed unchanged, it changes nothing.
    if (unitCost === unitCostOf(line.value, quantity)) continue;
    const after = worthOf(quantity, unitCost);
    const difference = minus(after, line.value);
    if (difference === 0) continue;
    const change = { itemId: line.item_id, received: quantity, difference, ...found(still.get(line.id)) };
    const { intoStock, gone } = postPriceDifference(posting, change);
    rows.push({
      receipt_line_id: line.id,
      value_before: line.value,
      value_after: after,
      into_stock: intoStock,
      gone,
      unit_cost: unitCost,
    });
  }
  if (rows.length === 0) throw new Refusal('no-price-change');
  const remark = input.remark || `Price of ${before.number}`;
  const document = await writeDocument(doing, { kind: 'price-difference', remark }, posting.close());
  await tx.insertMany(
    'price_difference_line',
    rows.map((row) => ({ document_id: document.id, ...row })),
  );
  await keepLatestCosts(tx, itemIds);
  return document;
}
