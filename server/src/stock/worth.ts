import type { ReceiptPrices, StockDocument } from '@yosegi/contract';
import { type Money, type Quantity, unitCostOf, worthOf } from '@yosegi/core/number';
import { Refusal } from '@yosegi/core/refusal';
import { Posting, postPriceDifference, postRevaluation, type Standing, stillHere } from '@yosegi/core/stock';
import type { Reader, Writer } from '../db/database.ts';
import { decimal, moneyFromZero } from '../http/amounts.ts';
import { type Doing, found } from '../http/context.ts';
import { itemRows } from '../items/store.ts';
import { keepLatestCosts } from './costs.ts';
import { readDocument } from './documents.ts';
import { readStock, writeDocument } from './posting.ts';
import { standingAt, standingOf } from './standing.ts';

interface ReceiptLineRow {
  id: number;
  item_id: number;
  lot_id: number | null;
  serial_ids: string | null;
  lot: string | null;
  serials: string | null;
  code: string;
  name: string;
  unit: string;
  decimals: number;
  quantity: number;
  /** What all of it is known to have cost, with every difference posted since. */
  value: number;
}

/** The lines of a receipt at the price known by now: differences that stand are in it. */
const linesOf = (db: Reader, documentId: number) =>
  db.all<ReceiptLineRow>(
    `SELECT r.id, r.item_id, r.lot_id, r.serial_ids, l.code AS lot,
       (SELECT group_concat(code, ', ') FROM serial WHERE id IN (SELECT value FROM json_each(r.serial_ids))) AS serials,
       i.code, i.name, u.code AS unit, u.decimals, r.quantity,
       r.value + ifnull((SELECT sum(p.value_after - p.value_before) FROM price_difference_line p
         WHERE p.receipt_line_id = r.id
           AND NOT EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = p.document_id)), 0) AS value
     FROM receipt_line r JOIN item i ON i.id = r.item_id JOIN unit u ON u.id = i.unit_id LEFT JOIN lot l ON l.id = r.lot_id
     WHERE r.document_id = $1 ORDER BY r.id`,
    [documentId],
  );

/** Where the goods of a receipt line are now, as far as anyone can tell: its serials, its lot, or else all of the item. */
async function hereOf(db: Reader, line: ReceiptLineRow): Promise<Standing[]> {
  const rows = await standingOf(db, [line.item_id]);
  const serials = line.serial_ids === null ? null : (JSON.parse(line.serial_ids) as number[]);
  return rows
    .filter((row) => (serials ? serials.includes(row.serial_id ?? 0) : row.lot_id === line.lot_id))
    .map(standingAt);
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
  const result = new Map<number, { here: Standing[]; standing: Quantity }>();
  for (const line of lines) {
    const here = await hereOf(db, line);
    const ofItem = found(items.get(line.item_id)).quantity as Quantity;
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
  const head = found(
    await db.one<{ number: string; undone: number }>(
      `SELECT d.number, EXISTS (SELECT 1 FROM document u WHERE u.reverses_id = d.id) AS undone
       FROM document d JOIN receipt r ON r.document_id = d.id WHERE d.id = $1`,
      [documentId],
    ),
  );
  const rows = await linesOf(db, documentId);
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
    unitCost: decimal(unitCostOf(line.value as Money, line.quantity as Quantity)),
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
export async function postPrices(
  doing: Doing,
  documentId: number,
  input: { readonly remark: string; readonly lines: readonly { lineId: number; unitCost: string }[] },
): Promise<StockDocument> {
  const { tx } = doing;
  const before = await receiptPrices(tx, documentId);
  if (before.undone) throw new Refusal('receipt-undone', { number: before.number });
  const known = new Map((await linesOf(tx, documentId)).map((line) => [line.id, line]));
  const still = await stillHereOf(tx, [...known.values()]);
  const itemIds = [...known.values()].map((line) => line.item_id);
  const posting = new Posting(await readStock(tx, itemIds));
  const rows = [];
  for (const [index, own] of input.lines.entries()) {
    const line = known.get(own.lineId);
    if (!line) throw new Refusal('unknown-line', {}, `lines.${index}.lineId`);
    known.delete(own.lineId);
    const unitCost = moneyFromZero(own.unitCost, `lines.${index}.unitCost`);
    const quantity = line.quantity as Quantity;
    // The price that was shown is the whole value ÷ quantity, rounded: typed unchanged, it changes nothing.
    if (unitCost === unitCostOf(line.value as Money, quantity)) continue;
    const after = worthOf(quantity, unitCost);
    const difference = (after - line.value) as Money;
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
  const { id } = await writeDocument(doing, { kind: 'price-difference', remark }, posting.close());
  await tx.insertMany(
    'price_difference_line',
    rows.map((row) => ({ document_id: id, ...row })),
  );
  await keepLatestCosts(tx, itemIds);
  return readDocument(tx, id);
}

/**
 * Makes all there is of some items worth a new cost each, in one document; with `asStandard` that cost becomes their
 * standard too.
 * @throws Refusal `nothing-on-hand`, `no-price-change`, `unknown-item`
 */
export async function revalue(
  doing: Doing,
  input: {
    readonly remark: string;
    readonly asStandard: boolean;
    readonly lines: readonly { itemId: number; unitCost: string }[];
  },
): Promise<StockDocument> {
  const { tx } = doing;
  const itemIds = input.lines.map((line) => line.itemId);
  const items = await itemRows(tx, itemIds);
  const posting = new Posting(await readStock(tx, itemIds));
  const costs: [number, Money][] = [];
  let changed = false;
  for (const [index, line] of input.lines.entries()) {
    const item = items.get(line.itemId);
    if (!item) throw new Refusal('unknown-item', {}, `lines.${index}.itemId`);
    if (costs.some(([id]) => id === item.id)) throw new Refusal('twice', { name: item.name }, `lines.${index}.itemId`);
    const unitCost = moneyFromZero(line.unitCost, `lines.${index}.unitCost`);
    const here = (await standingOf(tx, [item.id])).map(standingAt).filter(({ quantity }) => quantity > 0);
    try {
      changed = postRevaluation(posting, item.id, unitCost, here) !== 0 || changed;
    } catch (error) {
      if (error instanceof Refusal)
        throw new Refusal(error.code, { ...error.facts, name: item.name }, `lines.${index}.unitCost`);
      throw error;
    }
    costs.push([item.id, unitCost]);
  }
  if (!changed) throw new Refusal('no-price-change');
  const { id } = await writeDocument(doing, { kind: 'revaluation', remark: input.remark }, posting.close());
  if (input.asStandard) await setStandards(tx, id, costs);
  return readDocument(tx, id);
}

async function setStandards(tx: Writer, documentId: number, costs: readonly [itemId: number, unitCost: Money][]) {
  await tx.run(
    `INSERT INTO revalued_standard (document_id, item_id, cost_before, cost_after)
     SELECT $1, i.id, i.standard_cost, v.value ->> 1 FROM json_each($2) v JOIN item i ON i.id = v.value ->> 0`,
    [documentId, JSON.stringify(costs)],
  );
  await tx.run(
    `UPDATE item SET standard_cost = s.cost_after, version = version + 1 FROM revalued_standard s
     WHERE s.document_id = $1 AND item.id = s.item_id`,
    [documentId],
  );
}

/** Standard costs that an undone revaluation had set are again what they were, unless somebody has set others since. */
export const setStandardsBack = (tx: Writer, documentId: number) =>
  tx.run(
    `UPDATE item SET standard_cost = s.cost_before, version = version + 1 FROM revalued_standard s
     WHERE s.document_id = $1 AND item.id = s.item_id AND item.standard_cost = s.cost_after`,
    [documentId],
  );
