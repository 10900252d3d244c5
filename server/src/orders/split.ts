import type { Numbered } from '@yosegi/contract';
import { countedIn, minus, type Quantity, ZERO } from '@yosegi/core/number';
import { checkShipping, openOf, openPart } from '@yosegi/core/orders';
import { Refusal } from '@yosegi/core/refusal';
import { type BodyOf, type Doing, found, required } from '../command/doing.ts';
import { numbered, updateVersioned } from '../db/versions.ts';
import { itemRows } from '../items/index.ts';
import { nextNumber } from '../ledger/index.ts';
import { moveBuilt } from './built.sql.ts';
import { noteChanges } from './changes.sql.ts';
import { openParcels } from './parcels.sql.ts';
import {
  keepOpen,
  needOf,
  type OrderLineRecord,
  type OrderPartRecord,
  orderLines,
  orderParts,
  orderRecord,
} from './sql.ts';
import { current, requireState } from './state.ts';

/**
 * Takes lines off an order and makes another of them, at the same prices and with the same contents. A whole line goes as
 * it is; of a part of one, what builds still make for it goes along first, because it is what waits that is split off.
 * @throws Refusal `wrong-state`, `unknown-line`, `more-than-ordered`, `split-all`, `parcel-first`, `stale-save`
 */
export async function splitOrder(doing: Doing, id: number, input: BodyOf<'splitOrder'>): Promise<Numbered> {
  const { tx, person, now } = doing;
  const order = found(await orderRecord(tx, id));
  requireState(order, ['quote', 'confirmed']);
  await updateVersioned(tx, 'sales_order', id, input.version, {}, () => current(doing, id));
  const lines = await orderLines(tx, [id]);
  const parts = await orderParts(
    tx,
    lines.map((line) => line.id),
  );
  const going = input.lines.map((own, index) => {
    const at = (name: string) => `lines.${index}.${name}`;
    const line = lines.find((known) => known.id === own.lineId);
    const isTwice = input.lines.findIndex(({ lineId }) => lineId === own.lineId) !== index;
    if (!line || isTwice) throw new Refusal('unknown-line', {}, at('lineId'));
    const quantity = countedIn(own.quantity, line.decimals, at('quantity'));
    checkShipping(line, quantity, at('quantity'));
    return { line, quantity, at };
  });
  const stays = lines.some((line) => {
    const gone = going.find((own) => own.line.id === line.id)?.quantity ?? 0;
    return line.shipped > 0 || openOf(line) > gone;
  });
  if (!stays) throw new Refusal('split-all', {}, 'lines');
  const { id: _, number: __, version: ___, ...head } = required(await tx.models.sales_order.findByPk(id)).get();
  const other = await tx.insert('sales_order', {
    ...head,
    number: await nextNumber(tx, 'O'),
    wanted_on: input.wantedOn ?? order.wanted_on,
    made_at: now.toISOString(),
    made_by: person.id,
    packing: 0,
    open: 0,
    // Brought once more, and agreed once.
    freight: ZERO,
    // A message about it is about the order it was split from.
    came_by: 'typed',
    split_from_id: order.split_from_id ?? id,
  });
  for (const [position, { line, quantity, at }] of going.entries()) {
    const own = parts.filter(({ line_id }) => line_id === line.id);
    const rest = { ...line, quantity: minus(line.quantity, quantity) };
    for (const part of own) await refusePacked(doing, id, part, rest, at('quantity'));
    if (rest.quantity === 0)
      await tx.models.order_line.update({ order_id: other, position }, { where: { id: line.id } });
    else await partLine(doing, { orderId: other, position, line, parts: own, quantity });
  }
  await noteChanges(doing, id, lines);
  await keepOpen(tx, id);
  await keepOpen(tx, other);
  doing.changed('orders', 'items', 'stock', 'builds');
  return numbered(tx, 'sales_order', other);
}

/** A line of its own of some of another. */
async function partLine(
  { tx }: Doing,
  own: {
    orderId: number;
    position: number;
    line: OrderLineRecord;
    parts: readonly OrderPartRecord[];
    quantity: Quantity;
  },
): Promise<void> {
  const { orderId, position, line, parts, quantity } = own;
  await tx.models.order_line.update({ quantity: minus(line.quantity, quantity) }, { where: { id: line.id } });
  const lineId = await tx.insert('order_line', {
    order_id: orderId,
    position,
    item_id: line.item_id,
    revision_id: line.revision_id,
    output_quantity: line.output_quantity,
    quantity,
    price: line.price,
    list_price: line.list_price,
    discount: line.discount,
    price_from: line.price_from,
    wanted_on: line.wanted_on,
    their_line: line.their_line,
  });
  await tx.insertMany(
    'order_part',
    parts.map(({ position: at, item_id, basis, amount, waste, base_item_id, base_amount }) => ({
      ...{ line_id: lineId, position: at, item_id, basis, amount, waste, base_item_id, base_amount },
    })),
  );
  const split = (await orderParts(tx, [lineId])).flatMap((part) => {
    const from = parts.find(({ position: at }) => at === part.position);
    const needed = openPart('confirmed', needOf(part), { ...line, quantity }, line.output_quantity, ZERO);
    return from ? [{ from: from.id, to: part.id, needed }] : [];
  });
  await moveBuilt(tx, split);
}

/** What stands in the parcel stays with the order whose parcel it is. @throws Refusal `parcel-first` */
async function refusePacked(
  { tx }: Doing,
  orderId: number,
  part: OrderPartRecord,
  rest: OrderLineRecord,
  field: string,
): Promise<void> {
  const needed = openPart('confirmed', needOf(part), rest, rest.output_quantity, ZERO);
  if (part.packed <= needed) return;
  const item = (await itemRows(tx, [part.item_id])).get(part.item_id);
  const [parcel] = await openParcels(tx, [orderId]);
  throw new Refusal(
    'parcel-first',
    { name: item?.name ?? '', packed: part.packed, needed, parcel: parcel?.number ?? 'a parcel' },
    field,
  );
}
