import { type Heap, Posting, spotOf, takeFrom } from '@yosegi/core/ledger';
import { add, least, negated, type Quantity, ZERO } from '@yosegi/core/number';
import { keepFor } from '@yosegi/core/shipping';
import type { Doing } from '../command/doing.ts';
import { itemRows } from '../items/index.ts';
import { readStock, spotIn, writeDocument } from '../ledger/index.ts';
import { benchBinOf, usualBin } from '../places/index.ts';
import { builtFor, setBuilt } from './built.sql.ts';
import { parcelOf, pickedFrom, standingFor } from './parcels.sql.ts';
import { changeParts, keepOpen, type OrderPartRecord, orderLines, orderParts } from './sql.ts';

/**
 * Puts what a build has just finished into the parcels of the orders it is built for, in their turn, because of the
 * document that finished it.
 * @param output where the good units stand
 */
export async function keepForOrders(
  doing: Doing,
  buildId: number,
  output: readonly Heap[],
  causeId: number,
): Promise<void> {
  const { tx, now } = doing;
  const rows = await builtFor(tx, [buildId]);
  const [first] = output;
  if (rows.length === 0 || !first) return;
  const good = add(ZERO, ...output.map(({ quantity }) => quantity));
  const gets = keepFor(good, rows);
  const shares = rows.map((row, index) => ({ ...row, gets: gets[index] ?? ZERO }));
  for (const orderId of new Set(shares.filter((share) => share.gets > 0).map((share) => share.order_id))) {
    const posting = new Posting(await readStock(tx, [first.spot.itemId]));
    const parcel = await parcelOf(tx, orderId, now);
    const holder = { kind: 'parcel', id: parcel.id } as const;
    const own = shares.filter((share) => share.order_id === orderId && share.gets > 0);
    for (const { part_id, gets: quantity } of own) {
      const there = output.map(({ spot, quantity: most }) => ({ spot, quantity: least(posting.at(spot), most) }));
      for (const taken of takeFrom(there, quantity, first.spot)) {
        const bench = await benchBinOf(tx, taken.spot.binId);
        posting.move(taken.spot, { ...taken.spot, binId: bench, holder }, taken.quantity, part_id);
      }
    }
    const subject = { kind: 'pick', for: { kind: 'order', id: orderId }, causeId } as const;
    await writeDocument(doing, { ...subject, remark: `Kept in ${parcel.number}` }, posting.close());
    await changeParts(tx, new Map(own.map((share) => [share.part_id, { shipped: 0, packed: share.gets }])));
    await setBuilt(
      tx,
      own.map(({ part_id, quantity, kept, gets: more }) => ({
        build_id: buildId,
        part_id,
        quantity,
        kept: add(kept, more),
      })),
    );
    await touched(doing, orderId);
  }
}

/** What stands in a parcel for parts of an order goes back to the shelves it came from, all of it. */
export async function putAllBack(doing: Doing, orderId: number, lineIds: readonly number[], remark: string) {
  const { tx } = doing;
  const parts = (await orderParts(tx, lineIds)).filter(({ packed }) => packed > 0);
  if (parts.length === 0) return;
  const back = await backOf(doing, orderId, parts);
  const posting = new Posting(
    await readStock(
      tx,
      parts.map((part) => part.item_id),
    ),
  );
  for (const part of parts) back.putBack(posting, part, part.packed);
  await writeDocument(doing, { kind: 'put-back', for: { kind: 'order', id: orderId }, remark }, posting.close());
  await changeParts(tx, new Map(parts.map((part) => [part.id, { shipped: 0, packed: negated(part.packed) }])));
}

/** What stands in the parcels of an order, and where each piece of it goes back to. */
export async function backOf(doing: Doing, orderId: number, parts: readonly OrderPartRecord[]) {
  const { tx } = doing;
  const standing = await standingFor(tx, orderId);
  const cameFrom = await pickedFrom(tx, orderId);
  const items = await itemRows(
    tx,
    parts.map((part) => part.item_id),
  );
  const usual = new Map<number, number>();
  for (const [id, item] of items) usual.set(id, await usualBin(tx, item.home_bin_id));
  return {
    standing,
    /** @param serials only these; null for any @param binId where to; null for where it came from */
    putBack(
      posting: Posting,
      part: OrderPartRecord,
      quantity: Quantity,
      pieces: (heap: Heap) => boolean = () => true,
      binId: number | null = null,
    ): void {
      const heaps = standing
        .filter((row) => row.item_id === part.item_id)
        .map((row) => ({ spot: spotIn(row), quantity: posting.at(spotIn(row)) }))
        .filter(pieces);
      const [first] = heaps;
      for (const { spot, quantity: taken } of takeFrom(heaps, quantity, first?.spot ?? spotOf(part.item_id, 0))) {
        const from = cameFrom.find(
          (row) => row.part_id === part.id && row.serial_id === spot.serialId && row.lot_id === spot.lotId,
        );
        const to = binId ?? from?.bin_id ?? usual.get(part.item_id) ?? spot.binId;
        posting.move(spot, { ...spot, binId: to, holder: null }, taken, part.id);
      }
    },
  };
}

/** An order whose parcel has changed is a new version of itself, and what it takes from shelves is known anew. */
export async function touched(doing: Doing, orderId: number): Promise<void> {
  const { tx } = doing;
  await tx.models.sales_order.increment('version', { where: { id: orderId } });
  await keepOpen(tx, orderId);
  doing.changed('orders', 'builds', 'stock', 'items');
}

/** The parts of an order with what stands in parcels for them. */
export async function partsOfOrder(doing: Doing, orderId: number): Promise<OrderPartRecord[]> {
  const lines = await orderLines(doing.tx, [orderId]);
  return orderParts(
    doing.tx,
    lines.map(({ id }) => id),
  );
}
