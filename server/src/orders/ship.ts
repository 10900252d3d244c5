import { Posting, spotOf, takeFrom } from '@yosegi/core/ledger';
import { countedIn, type Quantity, ZERO } from '@yosegi/core/number';
import { checkShipping, type Leaving, openOf, postShipment, shippedPart } from '@yosegi/core/orders';
import { Refusal } from '@yosegi/core/refusal';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import type { Writer } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { type ItemRow, itemRows } from '../items/index.ts';
import { type BalanceRow, readStock, spotIn, usableOf, withNames, writeDocument } from '../ledger/index.ts';
import { usualBin } from '../places/index.ts';
import { choosePieces, inOrder } from '../tracking/index.ts';
import {
  addShipped,
  keepOpen,
  needOf,
  type OrderLineRecord,
  type OrderPartRecord,
  orderLines,
  orderParts,
  orderRecord,
} from './sql.ts';
import { current, requireState } from './state.ts';

type ShipInput = BodyOf<'shipOrder'>;
type PartInput = ShipInput['lines'][number]['parts'][number];

/** What of a line is sent, and what leaves for it. */
interface Sent {
  readonly line: OrderLineRecord;
  readonly quantity: Quantity;
  readonly parts: readonly { readonly part: OrderPartRecord; readonly quantity: Quantity; readonly leaving: Leaving }[];
}

/**
 * Ships some or all of an order from the shelves, in one document: goods leave at exactly what they are worth.
 * @throws Refusal `wrong-state`, `unknown-line`, `more-than-ordered`, `stock-short`, `stale-save`, and what lots and
 * serials are refused for
 */
export async function shipOrder(doing: Doing, id: number, input: ShipInput) {
  const { tx } = doing;
  const order = found(await orderRecord(tx, id));
  requireState(order, ['confirmed']);
  const known = new Map((await orderLines(tx, [id])).map((line) => [line.id, line]));
  const parts = await orderParts(tx, [...known.keys()]);
  const itemIds = parts.map((part) => part.item_id);
  const items = await itemRows(tx, itemIds);
  const shelves = await usableOf(tx, itemIds);
  const posting = new Posting(await readStock(tx, itemIds));
  const sent: Sent[] = [];
  for (const [index, own] of input.lines.entries()) {
    const at = (name: string) => `lines.${index}.${name}`;
    const line = known.get(own.lineId);
    if (!line || sent.some((other) => other.line.id === line.id)) throw new Refusal('unknown-line', {}, at('lineId'));
    const quantity = countedIn(own.quantity, line.decimals, at('quantity'));
    checkShipping(line, quantity, at('quantity'));
    const leaving: Sent['parts'][number][] = [];
    for (const part of parts.filter(({ line_id }) => line_id === line.id)) {
      const needed = shippedPart(needOf(part), line, line.output_quantity, quantity);
      if (needed === 0) continue;
      const named = own.parts.findIndex(({ partId }) => partId === part.id);
      const item = found(items.get(part.item_id));
      const field = (name: string) => at(named < 0 ? 'parts' : `parts.${named}.${name}`);
      const takings = await takingsOf(tx, posting, item, needed, shelves, own.parts[named], field);
      leaving.push({ part, quantity: needed, leaving: { lineId: line.id, partId: part.id, takings } });
    }
    sent.push({ line, quantity, parts: leaving });
  }
  const leaving = sent.flatMap((line) => line.parts.map((part) => part.leaving));
  const done = postShipment(posting, leaving);
  const posted = await withNames(tx, () => posting.close());
  const document = await writeDocument(
    doing,
    { kind: 'shipment', for: { kind: 'order', id }, remark: input.remark },
    posted,
  );
  await tx.insert('shipment', {
    document_id: document.id,
    order_id: id,
    carrier: input.carrier,
    tracking: input.tracking,
  });
  await tx.insertMany(
    'shipment_line',
    sent.map(({ line, quantity }) => ({
      document_id: document.id,
      line_id: line.id,
      quantity,
      price: line.price,
      cost: done.costs.get(line.id) ?? ZERO,
    })),
  );
  await addShipped(
    tx,
    new Map(sent.map(({ line, quantity }) => [line.id, quantity])),
    new Map(sent.flatMap((line) => line.parts.map(({ part, quantity }) => [part.id, quantity]))),
  );
  await updateVersioned(tx, 'sales_order', id, input.version, {}, () => current(doing, id));
  await keepOpen(tx, id);
  doing.changed('orders', 'builds');
  const openLines = (await orderLines(tx, [id])).filter((line) => openOf(line) > 0).length;
  return { ...document, openLines };
}

/** Where one thing is taken from: its home first, of lots the first to expire, or what was named. */
async function takingsOf(
  tx: Writer,
  posting: Posting,
  item: ItemRow,
  quantity: Quantity,
  shelves: readonly BalanceRow[],
  named: PartInput | undefined,
  at: (name: string) => string,
): Promise<Leaving['takings']> {
  const first = named?.binId ?? item.home_bin_id;
  const ordered = inOrder(shelves, item, first).sort(
    (a, b) => Number(b.bin_id === named?.binId) - Number(a.bin_id === named?.binId),
  );
  const wanted = { item, quantity, standing: ZERO, bench: [], shelves: ordered, named, at };
  const chosen = choosePieces(wanted).shelves;
  const fallback = spotOf(item.id, await usualBin(tx, first));
  // An earlier line of the same thing may have emptied a place within this posting.
  const heaps = chosen.map((spot) => ({ spot, quantity: posting.at(spot) }));
  return takeFrom(heaps, quantity, ordered[0] ? (chosen.at(-1) ?? spotIn(ordered[0])) : fallback);
}
