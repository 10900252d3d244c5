import { Posting, shareOut, spotOf, type Taker } from '@yosegi/core/ledger';
import { countedIn, least, minus, negated, type Quantity, ZERO } from '@yosegi/core/number';
import { checkShipping, openOf, shippedPart } from '@yosegi/core/orders';
import { Refusal } from '@yosegi/core/refusal';
import { type Leaving, postShipment } from '@yosegi/core/shipping';
import { buildRecord, finishBuild, startBuild } from '../builds/index.ts';
import { type BodyOf, type Doing, found } from '../command/doing.ts';
import type { Writer } from '../db/database.ts';
import { updateVersioned } from '../db/versions.ts';
import { type ItemRow, itemRows } from '../items/index.ts';
import {
  type BalanceRow,
  heldLast,
  readStock,
  refuseHeld,
  spotIn,
  usableOf,
  withNames,
  writeDocument,
} from '../ledger/index.ts';
import {
  addShipped,
  builtFor,
  changeParts,
  current,
  keepOpen,
  needOf,
  type OrderLineRecord,
  type OrderPartRecord,
  openParcels,
  orderLines,
  orderParts,
  orderRecord,
  requireState,
  sendParcels,
  standingFor,
} from '../orders/index.ts';
import { usualBin } from '../places/index.ts';
import { choosePieces, inOrder, sayingWhere } from '../tracking/index.ts';

type ShipInput = BodyOf<'shipOrder'>;
type PartInput = ShipInput['lines'][number]['parts'][number];

/** What leaves of one thing of a line. */
interface Taken {
  readonly part: OrderPartRecord;
  readonly quantity: Quantity;
  /** Of it from a parcel. */
  readonly packed: Quantity;
}

/**
 * Ships some or all of an order in one document, from its parcel first and then from the shelves: goods leave at exactly
 * what they are worth. Builds for it can be finished in the same act: all of it is done, or nothing.
 * @throws Refusal `wrong-state`, `unknown-line`, `more-than-ordered`, `stock-short`, `is-held`, `stale-save`, and what lots and
 * serials are refused for
 */
export async function shipOrder(doing: Doing, id: number, input: ShipInput) {
  const { tx } = doing;
  const order = found(await orderRecord(tx, id));
  requireState(order, ['confirmed']);
  await updateVersioned(tx, 'sales_order', id, input.version, {}, () => current(doing, id));
  if (input.parcelId !== null) await requireParcel(tx, id, order.number, input.parcelId);
  await finishFirst(doing, id, order.number, input.finishes);
  const known = new Map((await orderLines(tx, [id])).map((line) => [line.id, line]));
  const parts = await orderParts(tx, [...known.keys()]);
  const itemIds = parts.map((part) => part.item_id);
  const items = await itemRows(tx, itemIds);
  const places = { shelves: await usableOf(tx, itemIds), parcels: heldLast(await standingFor(tx, id)) };
  const posting = new Posting(await readStock(tx, itemIds));
  const sent: { line: OrderLineRecord; quantity: Quantity }[] = [];
  const going: (Taken & { readonly takers: readonly Taker[] })[] = [];
  for (const [index, own] of input.lines.entries()) {
    const at = (name: string) => `lines.${index}.${name}`;
    const line = known.get(own.lineId);
    if (!line || sent.some((other) => other.line.id === line.id)) throw new Refusal('unknown-line', {}, at('lineId'));
    const quantity = countedIn(own.quantity, line.decimals, at('quantity'));
    checkShipping(line, quantity, at('quantity'));
    for (const part of parts.filter(({ line_id }) => line_id === line.id)) {
      const needed = shippedPart(needOf(part), line, line.output_quantity, quantity);
      if (needed === 0) continue;
      const named = own.parts.findIndex(({ partId }) => partId === part.id);
      const item = found(items.get(part.item_id));
      const field = (name: string) => at(named < 0 ? 'parts' : `parts.${named}.${name}`);
      const takers = await takersOf(tx, item, part, needed, places, own.parts[named], field);
      going.push({ part, quantity: needed, packed: least(needed, part.packed), takers });
    }
    sent.push({ line, quantity });
  }
  // All lines share the same shelves: whether all of it can leave is one question, not one for each line.
  const shares = shareOut(
    (spot) => posting.at(spot),
    going.flatMap(({ takers }) => takers),
  );
  const leaving = going.map(({ part }, index): Leaving => {
    const takings = shares.slice(2 * index, 2 * index + 2).flat();
    return { lineId: part.line_id, partId: part.id, takings };
  });
  const done = postShipment(posting, leaving);
  refuseHeld(places.parcels, (spot) => posting.at(spot));
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
  await addShipped(tx, new Map(sent.map(({ line, quantity }) => [line.id, quantity])));
  await changeParts(
    tx,
    new Map(going.map(({ part, quantity, packed }) => [part.id, { shipped: quantity, packed: negated(packed) }])),
  );
  await sendParcels(tx, id, document.id);
  await keepOpen(tx, id);
  doing.changed('orders', 'builds');
  const openLines = (await orderLines(tx, [id])).filter((line) => openOf(line) > 0).length;
  return { ...document, openLines };
}

/** @throws Refusal `unknown-choice`, `parcel-elsewhere`, `parcel-left` */
async function requireParcel(tx: Writer, orderId: number, order: string, parcelId: number): Promise<void> {
  if ((await openParcels(tx, [orderId])).some(({ id }) => id === parcelId)) return;
  const parcel = await tx.models.parcel.findByPk(parcelId);
  if (!parcel) throw new Refusal('unknown-choice', {}, 'parcelId');
  if (parcel.order_id !== orderId) {
    const other = await tx.models.sales_order.findByPk(parcel.order_id);
    throw new Refusal('parcel-elsewhere', { number: parcel.number, order: other?.number ?? order }, 'parcelId');
  }
  const shipment = await tx.models.document.findByPk(parcel.shipped_id ?? 0);
  throw new Refusal('parcel-left', { number: parcel.number, shipment: shipment?.number ?? '' }, 'parcelId');
}

/** Finishes builds for an order, so that what they make is in its parcel. @throws Refusal `not-built-for` */
async function finishFirst(doing: Doing, orderId: number, order: string, finishes: ShipInput['finishes']) {
  for (const [index, { buildId, ...finish }] of finishes.entries()) {
    const at = (name: string) => `finishes.${index}.${name}`;
    const build = await buildRecord(doing.tx, buildId);
    if (!build) throw new Refusal('unknown-choice', {}, at('buildId'));
    const isFor = (await builtFor(doing.tx, [buildId])).some(
      (row) => row.order_id === orderId && row.quantity > row.kept,
    );
    if (!isFor) throw new Refusal('not-built-for', { build: build.number, order }, at('buildId'));
    try {
      // Sent to the bench as it is finished, where nobody had.
      const { version } =
        build.state === 'planned' ? await startBuild(doing, buildId, { version: finish.version }) : finish;
      await finishBuild(doing, buildId, { ...finish, version });
    } catch (error) {
      throw error instanceof Refusal && error.field ? error.at(at(error.field)) : error;
    }
  }
}

interface Places {
  readonly shelves: readonly BalanceRow[];
  /** What stands in the order's parcels. */
  readonly parcels: readonly BalanceRow[];
}

/** Where one thing may be taken from: its parcel, and shelves, its home first, of lots the first to expire; or what was named. */
async function takersOf(
  tx: Writer,
  item: ItemRow,
  part: OrderPartRecord,
  quantity: Quantity,
  { shelves, parcels }: Places,
  named: PartInput | undefined,
  at: (name: string) => string,
): Promise<[parcel: Taker, shelves: Taker]> {
  const first = named?.binId ?? item.home_bin_id;
  const ordered = inOrder(shelves, item, first).sort(
    (a, b) => Number(b.bin_id === named?.binId) - Number(a.bin_id === named?.binId),
  );
  const bench = parcels.filter((row) => row.item_id === item.id && row.quantity > 0);
  const chosen = await sayingWhere(tx, item.id, () =>
    choosePieces({ item, quantity, standing: part.packed, bench, shelves: ordered, named, at }),
  );
  const fallback = spotOf(item.id, await usualBin(tx, first));
  const fromParcel = least(quantity, part.packed);
  const last = ordered[0] ? (chosen.shelves.at(-1) ?? spotIn(ordered[0])) : fallback;
  return [
    { wanted: fromParcel, spots: chosen.bench, fallback: chosen.bench[0] ?? last },
    { wanted: minus(quantity, fromParcel), spots: chosen.shelves, fallback: last },
  ];
}
